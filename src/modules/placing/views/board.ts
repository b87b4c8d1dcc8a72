import { noAccessFee } from "@/core/catalogue/terms";
import type { TickedItem } from "@/core/catalogue/checklist";
import { addDays, datesFrom, localOf } from "@/core/time/local";
import { isOpen } from "@/core/time/opening";
import { readOpening } from "@/operations/opening-hours";
import { minutesIn } from "@/core/time/spans";
import { windowsOn } from "@/core/windows/patterns";
import { input, LocalDate } from "@/schemas/common";
import { Nothing } from "@/schemas/money";
import { OneVisit, PlacementOptions } from "@/schemas/booking";
import {
  answersWithin,
  explainWithin,
  namesOf,
  readPattern,
  reasonsInWords,
  type AskOptions,
} from "@/operations/placing";
import { daysOfWork, mustSee, placingOf, readVisit, type VisitRow } from "@/operations/visits";
import { reasonWords } from "@/core/windows/words";
import { shortName } from "@/core/people/names";
import { may, seesOnly } from "@/core/people/permissions";
import { loadPlanning } from "@/operations/planning";
import type { ViewContext } from "@/operations/door";
import { Refusal } from "@/core/problems";
import { linkTokenOf } from "@/operations/links";
import { ruleWords, type RepeatRule } from "@/core/repeats/rule";
import { answersOfJob, termsOfJob } from "@/operations/catalogue";
import { defineView } from "./view";

export interface BoardVisit {
  id: number;
  state: string;
  code: string;
  service: string;
  hue: number;
  customer: string;
  site: string;
  minutes: number;
  /** Minutes of the day. */
  windowFrom: number;
  windowTo: number;
  crew: number;
}

export interface BoardStop extends BoardVisit {
  driveFrom: number;
  /** Minutes, without a break in between. */
  driving: number;
  arrives: number;
  leaves: number;
}

const visitColumns = `v.id, v.state, s.code, v.title AS service, s.hue, v.minutes, v.crew, v.date, v.window_from, v.window_to,
  coalesce(c.name, rc.name, 'A customer is booking') AS customer, coalesce(t.line, rt.line, '') AS site`;
const visitTables = `visits v JOIN services s ON s.id = v.service_id
  LEFT JOIN jobs j ON j.id = v.job_id LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN sites t ON t.id = j.site_id
  LEFT JOIN repeats r ON r.id = v.repeat_id LEFT JOIN customers rc ON rc.id = r.customer_id LEFT JOIN sites rt ON rt.id = r.site_id`;

interface BoardRow {
  id: number;
  state: string;
  code: string;
  service: string;
  hue: number;
  minutes: number;
  crew: number;
  date: string;
  window_from: number;
  window_to: number;
  customer: string;
  site: string;
}

/** One day, technician by technician, with what is unplaced. */
export const board = defineView({
  name: "board",
  access: "office.see",
  input: input({ date: LocalDate }),
  read(context, { date }) {
    const { sql, business, minute, today } = context;
    const zone = business.time_zone;
    const planning = loadPlanning(context, [date]);
    const ofDay = (epoch: number) => localOf(epoch, zone).minute;
    const toVisit = (v: BoardRow): BoardVisit => ({
      id: v.id,
      state: v.state,
      code: v.code,
      service: v.service,
      hue: v.hue,
      customer: v.customer,
      site: v.site,
      minutes: v.minutes,
      crew: v.crew,
      windowFrom: ofDay(v.window_from),
      windowTo: ofDay(v.window_to),
    });
    const placed = sql<
      BoardRow & { technician_id: number; drive_from: number; driving: number; arrives: number; leaves: number }
    >(
      `SELECT ${visitColumns}, p.technician_id, p.drive_from, p.driving, p.arrives, p.leaves FROM placements p JOIN ${visitTables.replace("visits v", "visits v ON v.id = p.visit_id")} WHERE p.date = ? ORDER BY p.arrives`,
    ).all(date);
    const looks = new Map(
      sql<{ id: number; hue: number; photo: string | null }>("SELECT id, hue, photo FROM technicians")
        .all()
        .map((t) => [t.id, t]),
    );
    const only = seesOnly(context.actor);
    const technicians = planning.technicians
      .filter((t) => only === null || t.id === only)
      .map((technician) => {
        const { absence, reason, hours, errands } = planning.dayOf(technician.id, date);
        const stops = placed
          .filter((p) => p.technician_id === technician.id)
          .map((p): BoardStop => ({
            ...toVisit(p),
            driveFrom: ofDay(p.drive_from),
            driving: p.driving,
            arrives: ofDay(p.arrives),
            leaves: ofDay(p.leaves),
          }));
        return {
          id: technician.id,
          name: technician.name,
          hue: looks.get(technician.id)!.hue,
          photo: looks.get(technician.id)!.photo,
          skills: sql<{ name: string }>(
            "SELECT s.name FROM technician_skills ts JOIN skills s ON s.id = ts.skill_id WHERE technician_id = ? ORDER BY s.name",
          )
            .all(technician.id)
            .map((s) => s.name),
          spans: hours.map(([open, close]) => [ofDay(open), close - open + ofDay(open)] as const),
          errands: errands.map((e) => ({
            id: e.id,
            title: e.title,
            place: e.place,
            from: ofDay(e.begins),
            to: ofDay(e.ends),
          })),
          absence: absence === "off" ? (reason ?? "Off") : absence ? "Not working" : null,
          workable: minutesIn(hours),
          promised: stops.reduce((sum, s) => sum + s.leaves - s.arrives + s.driving, 0),
          stops,
          late: lateVisits(date, technician.id),
        };
      });
    const unplaced = sql<BoardRow>(
      `SELECT ${visitColumns} FROM ${visitTables} WHERE v.date = ? AND v.state IN ('promised', 'forecast') AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY v.state DESC, v.window_from`,
    ).all(date);
    return {
      date,
      technicians,
      tray: (only === null ? unplaced : []).map((v) => ({ ...toVisit(v), best: bestPlacement(context, v.id) })),
      windows: windowsOn(readPattern(context), [date], zone).map((w) => [ofDay(w.from), ofDay(w.to)] as const),
      now: date === today ? ofDay(minute) : null,
      timeZone: zone,
      canChange: may(context.actor, "board.change"),
    };

    /** Visits of today whose window will be missed if everything goes on from here as planned. */
    function lateVisits(of: string, technicianId: number): number[] {
      if (of !== today) return [];
      return placed
        .filter(
          (p) =>
            p.technician_id === technicianId &&
            (p.state === "promised" || p.state === "on the way") &&
            minute > p.window_to,
        )
        .map((p) => p.id);
    }
  },
});

/** Who takes an unplaced visit best in its own window, or why nobody can: one line for the tray. */
function bestPlacement(
  context: ViewContext,
  visitId: number,
): { technicianIds: number[]; words: string; fits: boolean } {
  const visit = readVisit(context, visitId);
  const [answer] = answersWithin(context, placingOf(visit), [windowOf(visit)], {
    ...inOffice(visit),
    without: [visitId],
  });
  if (!answer?.offered)
    return {
      technicianIds: [],
      fits: false,
      words: reasonsInWords(context, answer?.reasons.slice(-2) ?? [])[0] ?? "Nobody can take it.",
    };
  const crew = answer.technicians.slice(0, visit.crew);
  const { technician } = namesOf(context);
  return {
    technicianIds: crew.map((t) => Number(t.id)),
    fits: true,
    words: `${crew.map((t) => shortName(technician(t.id))).join(" and ")}, ${answer.extraDriving} min extra driving`,
  };
}

const windowOf = (visit: VisitRow) => ({ date: visit.date, from: visit.window_from, to: visit.window_to });

/** A person in the office is not bound by the booking rules; forecasts do not push one another aside. */
const inOffice = (visit: VisitRow): AskOptions => ({
  strict: false,
  ...(visit.state === "forecast" && { forecasts: "full" }),
});

/** For moving a visit on a date: each window and each technician, with what it would cost or why it cannot be. */
export const placementOptions = defineView({
  name: "placement-options",
  access: "board.change",
  input: PlacementOptions,
  read(context, { visitId, date }) {
    const { business } = context;
    const visit = readVisit(context, visitId);
    const own = date === visit.date ? [windowOf(visit)] : [];
    const pattern = windowsOn(readPattern(context, placingOf(visit).serviceIds), [date], business.time_zone).filter(
      (w) => !own.some((o) => o.from === w.from && o.to === w.to),
    );
    const windows = [...own, ...pattern].sort((a, b) => a.from - b.from);
    const days = visit.first_visit_id === null ? daysOfWork(context, visit) : [visit];
    const options = { ...inOffice(visit), without: days.map((d) => d.id) };
    // Of a crew, each is looked at alone; who can come together is asked once more.
    const alone = explainWithin(context, { ...placingOf(visit, days.length), crew: 1 }, windows, options);
    const together = visit.crew > 1 ? answersWithin(context, placingOf(visit, days.length), windows, options) : [];
    const names = namesOf(context);
    return windows.map((window, i) => {
      const crew = together[i];
      return {
        from: localOf(window.from, business.time_zone).minute,
        to: localOf(window.to, business.time_zone).minute,
        isPromised: window.from === visit.window_from && window.to === visit.window_to,
        technicians: alone[i]!.technicians.map(({ id, fits, reason }) => ({
          id: Number(id),
          name: names.technician(id),
          ...(fits
            ? {
                fits: true as const,
                extraDriving: fits.extraDriving,
                arrives: localOf(fits.arrive[0], business.time_zone).minute,
              }
            : { fits: false as const, why: reasonWords({ technician: id, ...reason! }, names) }),
        })),
        crew: crew?.offered ? crew.technicians.map((t) => Number(t.id)) : null,
      };
    });
  },
});

/** How full the next fourteen days are, and where a person is needed. */
export const dayStrip = defineView({
  name: "day-strip",
  access: "office.see",
  input: Nothing,
  read(context) {
    const { sql, today } = context;
    const dates = datesFrom(today, addDays(today, 13));
    const planning = loadPlanning(context, dates);
    const opening = readOpening(context);
    const promised = new Map(
      sql<{ date: string; minutes: number }>(
        "SELECT date, sum(leaves - arrives + driving) AS minutes FROM placements WHERE date BETWEEN ? AND ? GROUP BY date",
      )
        .all(today, dates.at(-1)!)
        .map((d) => [d.date, d.minutes]),
    );
    const unplaced = new Map(
      sql<{ date: string; n: number }>(
        "SELECT date, count(*) AS n FROM visits v WHERE date BETWEEN ? AND ? AND state = 'promised' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) GROUP BY date",
      )
        .all(today, dates.at(-1)!)
        .map((d) => [d.date, d.n]),
    );
    return dates.map((date) => {
      const days = planning.technicians.map((t) => planning.dayOf(t.id, date));
      const hours = days.reduce((sum, day) => sum + minutesIn(day.hours), 0);
      return {
        date,
        workable: isOpen(opening, date) ? hours : 0,
        promised: promised.get(date) ?? 0,
        needsPerson: unplaced.get(date) ?? 0,
        off: days.filter((d) => d.absence === "off").length,
      };
    });
  },
});

/** Everything about one visit, for the side sheet. */
export const visitSheet = defineView({
  name: "visit-sheet",
  access: "office.see",
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
        pays: string | null;
        approval: string | null;
        checklist: string;
        confirmed_at: number | null;
        postcode: string | null;
        total_minor: number | null;
        deposit_minor: number | null;
        job_state: string | null;
      }
    >(
      `SELECT ${visitColumns}, v.job_id, v.repeat_id, v.started_at, v.ended_at, coalesce(c.id, rc.id) AS customer_id, coalesce(c.phone, rc.phone) AS phone, coalesce(c.mail, rc.mail) AS mail,
        j.note, j.pays, j.approval, v.checklist, v.confirmed_at, coalesce(t.postcode, rt.postcode) AS postcode, j.total_minor, j.deposit_minor, j.state AS job_state FROM ${visitTables} WHERE v.id = ?`,
    ).get(visitId);
    if (!visit) throw new Refusal("not-found");
    mustSee(context, visitId);
    const zone = business.time_zone;
    const technicians = sql<{ id: number; name: string; arrives: number; leaves: number }>(
      "SELECT t.id, t.name, p.arrives, p.leaves FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE visit_id = ? ORDER BY t.position",
    ).all(visitId);
    const repeat = visit.repeat_id
      ? sql<{ id: number; every: number; unit: RepeatRule["unit"]; until_date: string | null; state: string }>(
          "SELECT * FROM repeats WHERE id = ?",
        ).get(visit.repeat_id)
      : undefined;
    const placed = readVisit(context, visitId);
    const found = visit.site ? hogar.gateways.places.suggest(`${visit.site} ${visit.postcode}`, 1)[0] : undefined;
    const token = visit.job_id ? linkTokenOf(hogar, visit.job_id) : null;
    return {
      id: visit.id,
      state: visit.state,
      jobState: visit.job_state,
      code: visit.code,
      service: visit.service,
      hue: visit.hue,
      minutes: visit.minutes,
      crew: visit.crew,
      date: visit.date,
      windowFrom: localOf(visit.window_from, zone).minute,
      windowTo: localOf(visit.window_to, zone).minute,
      customer: { id: visit.customer_id, name: visit.customer, phone: visit.phone, mail: visit.mail },
      site: visit.site,
      postcode: visit.postcode,
      note: visit.note,
      answers: visit.job_id ? answersOfJob(context, visit.job_id) : [],
      paysAtDoor: visit.pays === "at the door",
      approval: visit.approval,
      checklist: JSON.parse(visit.checklist) as TickedItem[],
      confirmed: visit.confirmed_at !== null,
      noAccessMinor: visit.job_id ? noAccessFee(termsOfJob(context, visit.job_id)) : 0,
      additions: visit.job_id
        ? sql<{ id: number; made_at: number; words: string; photos: string }>(
            "SELECT id, made_at, words, photos FROM additions WHERE job_id = ? ORDER BY id",
          )
            .all(visit.job_id)
            .map((a) => ({ ...a, photos: JSON.parse(a.photos) as string[] }))
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
      repeat: repeat && {
        id: repeat.id,
        words: ruleWords({ every: repeat.every, unit: repeat.unit, until: repeat.until_date }),
        active: repeat.state === "active",
      },
      days: daysOfWork(context, placed).map((d) => d.date),
      coming: visit.repeat_id
        ? sql<{ date: string }>(
            "SELECT date FROM visits WHERE repeat_id = ? AND state IN ('forecast', 'promised') AND date > ? ORDER BY date LIMIT 6",
          )
            .all(visit.repeat_id, visit.date)
            .map((v) => v.date)
        : [],
      link: token && `/my/${token}`,
      whyNot: found ? `/why-not?address=${found.id}&service=${placed.service_id}&date=${visit.date}` : null,
      promises: sql<{
        made_at: number;
        window_from: number;
        window_to: number;
        ended_at: number | null;
        pencilled: number;
      }>(
        `SELECT p.made_at, p.window_from, p.window_to, p.ended_at, j.approval <> 'given' OR coalesce(p.ended_at <= j.given_at, 0) AS pencilled FROM promises p JOIN visits v ON v.id = p.visit_id JOIN jobs j ON j.id = v.job_id WHERE p.visit_id = ? ORDER BY p.made_at`,
      ).all(visitId),
      messages: visit.job_id
        ? sql<{ id: number; channel: string; subject: string; body: string; state: string; written_at: number }>(
            "SELECT id, channel, subject, body, state, written_at FROM messages WHERE job_id = ? ORDER BY id",
          ).all(visit.job_id)
        : [],
      history: sql<{ at: number; actor: string; operation: string }>(
        `SELECT DISTINCT a.id, a.at, a.actor, a.operation FROM audit_changes ac JOIN audit a ON a.id = ac.audit_id WHERE ac.entity = 'visits' AND ac.row_key = ? ORDER BY a.id DESC LIMIT 30`,
      ).all(String(visitId)),
      currency: business.currency,
      timeZone: zone,
    };
  },
});
