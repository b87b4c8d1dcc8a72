import { lettingIn } from "../letting-in";
import { noAccessFee } from "@/core/catalogue/terms";
import type { Approval, JobState } from "@/core/jobs/states";
import { Refusal } from "@/core/problems";
import type { Comes } from "@/core/repeats/flexible";
import { repeatWords } from "@/core/repeats/rule-words";
import type { LocalDate } from "@/core/time/dates";
import { localOf, minuteOn } from "@/core/time/local";
import { isPencilled } from "@/core/visits/promises";
import type { WorkPlace } from "@/core/visits/work-place";
import { type FieldStep, fieldSteps, stepRefusal, type VisitState, visitStates } from "@/core/visits/states";
import { isBegunElsewhere } from "../cancelling";
import { Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { answersOfJob, termsOfJob } from "@/modules/catalogue/job-items";
import { rightsOn } from "@/kernel/seen";
import { type BoardRow, visitColumns, visitTables } from "@/modules/placing/board";
import { daysOfWork, readVisit, type VisitRow } from "@/modules/placing/visits";
import { photosColumn, tickedColumn } from "@/store/columns";

const OneVisit = input({ visitId: Id });

/** Everything about one visit, for the side sheet. */
export const visitSheet = defineView({
  name: "visit-sheet",
  access: "office.see",
  about: { visitId: "visit" },
  input: OneVisit,
  read(context, { visitId }) {
    const { sql, business, hogar } = context;
    const visit = sql<
      BoardRow & {
        job_id: number | null;
        repeat_id: number | null;
        started_at: number | null;
        ended_at: number | null;
        customer_id: number | null;
        phone: string | null;
        mail: string | null;
        note: string | null;
        instructions: string | null;
        pays: string | null;
        approval: Approval | null;
        checklist: string;
        confirmed_at: number | null;
        postcode: string | null;
        work_place: WorkPlace;
        access: string | null;
        parking: string | null;
        technician_note: string | null;
        contacts: string | null;
        total_minor: number | null;
        deposit_minor: number | null;
        job_state: JobState | null;
      }
    >(
      `SELECT ${visitColumns}, v.job_id, v.repeat_id, v.started_at, v.ended_at,
          coalesce(c.id, rc.id) AS customer_id, coalesce(c.phone, rc.phone) AS phone,
          coalesce(c.mail, rc.mail) AS mail, j.note, j.instructions, j.pays, j.approval, v.checklist, v.confirmed_at,
          iif(v.work_place = 'site', coalesce(t.postcode, rt.postcode), NULL) AS postcode, v.work_place, coalesce(t.access, rt.access) AS access,
          coalesce(t.parking, rt.parking) AS parking, coalesce(c.technician_note, rc.technician_note) AS technician_note, coalesce(c.contacts, rc.contacts) AS contacts, j.total_minor, j.deposit_minor, j.state AS job_state
        FROM ${visitTables} WHERE v.id = ?`,
    ).get(visitId);
    if (!visit) throw new Refusal("not-found");
    const zone = business.time_zone;
    const { contacts } = rightsOn(context.actor);
    const technicians = sql<{ id: number; name: string; arrives: number; leaves: number }>(
      `SELECT t.id, t.name, p.arrives, p.leaves
        FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE visit_id = ? ORDER BY t.position`,
    ).all(visitId);
    const repeat = visit.repeat_id
      ? sql<{ id: number; rule: string; start_date: string; state: string }>("SELECT * FROM repeats WHERE id = ?").get(
          visit.repeat_id,
        )
      : undefined;
    const placed = readVisit(context, visitId);
    const found = visit.site ? hogar.gateways.places.suggest(`${visit.site} ${visit.postcode}`, 1)[0] : undefined;
    return {
      id: visit.id,
      state: visit.state,
      jobState: visit.job_state,
      steps: stepsNow(visit, context.today),
      code: visit.code,
      service: visit.service,
      hue: visit.hue,
      minutes: visit.minutes,
      crew: visit.crew,
      today: context.today,
      date: visit.date,
      windowFrom: localOf(visit.window_from, zone).minute,
      windowTo: minuteOn(visit.date, visit.window_to, zone),
      customer: {
        id: visit.customer_id,
        name: visit.customer,
        phone: contacts ? visit.phone : null,
        mail: contacts ? visit.mail : null,
      },
      siteNotes: [
        ...(visit.work_place === "site"
          ? [visit.access, ...(contacts ? lettingIn(visit.contacts) : []), visit.parking && `Parking: ${visit.parking}`]
          : []),
        visit.technician_note,
      ].filter((words): words is string => !!words),
      /** Who shares its time, itself among them, where it has several seats. */
      comes: placed.shared_id === null ? null : comesTo(context, placed),
      site: visit.site,
      workPlace: visit.work_place,
      postcode: visit.postcode,
      note: visit.note,
      instructions: visit.instructions,
      answers: visit.job_id ? answersOfJob(context, visit.job_id) : [],
      paysAtDoor: visit.pays === "at the door",
      approval: visit.approval,
      checklist: tickedColumn.read(visit.checklist),
      confirmed: visit.confirmed_at !== null,
      /** Work of several days that has begun: this day alone is cancelled. */
      begunElsewhere: visit.job_id ? isBegunElsewhere(context, visit.job_id, visit.id) : false,
      noAccessMinor: visit.job_id ? noAccessFee(termsOfJob(context, visit.job_id)) : 0,
      additions: visit.job_id
        ? sql<{ id: number; made_at: number; words: string; photos: string }>(
            "SELECT id, made_at, words, photos FROM additions WHERE job_id = ? ORDER BY id",
          )
            .all(visit.job_id)
            .map((a) => ({ ...a, photos: photosColumn.read(a.photos) }))
        : [],
      totalMinor: visit.total_minor,
      depositMinor: visit.deposit_minor,
      jobId: visit.job_id,
      technicians: technicians.map((t) => ({
        id: t.id,
        name: t.name,
        arrives: localOf(t.arrives, zone).minute,
        leaves: localOf(t.leaves, zone).minute,
      })),
      repeatId: visit.coming_repeat_id,
      comesBack: sql<{ comes: Comes }>("SELECT comes FROM services WHERE id = ?").get(placed.service_id)!.comes,
      /** In how many months its customer is asked again; what comes back by a repeat is not asked about. */
      againMonths: placed.again_months,
      repeat: repeat && {
        id: repeat.id,
        words: repeatWords(repeat),
        active: repeat.state === "active",
      },
      days: daysOfWork(context, placed).map((d) => d.date),
      coming: visit.repeat_id
        ? sql<{ date: string }>(
            `SELECT date
              FROM visits WHERE repeat_id = ? AND state IN ${visitStates.sql("move")} AND date > ?
              ORDER BY date LIMIT 6`,
          )
            .all(visit.repeat_id, visit.date)
            .map((v) => v.date)
        : [],
      whyNot: found ? `/why-not?address=${found.id}&service=${placed.service_id}&date=${visit.date}` : null,
      promises: sql<{
        made_at: number;
        window_from: number;
        window_to: number;
        ended_at: number | null;
        approval: "given" | "waiting" | "proposed";
        given_at: number | null;
      }>(
        `SELECT p.made_at, p.window_from, p.window_to, p.ended_at, j.approval, j.given_at
          FROM promises p JOIN visits v ON v.id = p.visit_id JOIN jobs j ON j.id = v.job_id WHERE p.visit_id = ?
          ORDER BY p.made_at`,
      )
        .all(visitId)
        .map(({ approval, given_at, ...promise }) => ({
          ...promise,
          pencilled: isPencilled({ endedAt: promise.ended_at }, { approval, givenAt: given_at }),
        })),
      messages: visit.job_id
        ? sql<{ id: number; channel: string; subject: string; body: string; state: string; written_at: number }>(
            "SELECT id, channel, subject, body, state, written_at FROM messages WHERE job_id = ? ORDER BY id",
          ).all(visit.job_id)
        : [],
      history: sql<{ at: number; actor: string; operation: string }>(
        `SELECT DISTINCT a.id, a.at, a.actor, a.operation
          FROM audit_changes ac JOIN audit a ON a.id = ac.audit_id WHERE ac.entity = 'visits' AND ac.row_key = ?
          ORDER BY a.id DESC LIMIT 30`,
      ).all(String(visitId)),
      currency: business.currency,
      timeZone: zone,
    };
  },
});

/** The steps that the office may take on somebody's behalf now: those of the day one after the other. */
function stepsNow(
  visit: { state: VisitState; date: LocalDate; job_state: JobState | null; approval: Approval | null },
  today: LocalDate,
): FieldStep[] {
  const { job_state: state, approval } = visit;
  if (state === null || approval === null) return [];
  const may = fieldSteps.filter((step) => stepRefusal(step, visit, { state, approval }, today) === null);
  return visit.state === "promised" ? may.slice(0, 1) : may;
}

/** The list of who comes, and how many seats there are. */
function comesTo(context: ViewContext, visit: VisitRow) {
  const { sql } = context;
  const who = sql<{ id: number; state: VisitState; customer: string; phone: string; note: string; seats: number }>(
    `SELECT v.id, v.state, coalesce(c.name, 'A customer is booking') AS customer, coalesce(c.phone, '') AS phone,
        coalesce(j.note, '') AS note, v.seats
      FROM visits v LEFT JOIN jobs j ON j.id = v.job_id LEFT JOIN customers c ON c.id = j.customer_id
      WHERE v.shared_id = ? AND (v.state <> 'cancelled' OR v.id = ?) ORDER BY v.id`,
  ).all(visit.shared_id, visit.id);
  const { seats } = sql<{ seats: number }>("SELECT seats FROM services WHERE id = ?").get(visit.service_id)!;
  const { contacts } = rightsOn(context.actor);
  return { seats, who: who.map((one) => (contacts ? one : { ...one, phone: "" })) };
}
