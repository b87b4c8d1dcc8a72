import { addDays } from "@/core/time/dates";
import { groupBy } from "@/core/group";
import { dayMs } from "@/core/horizons";
import { Refusal } from "@/core/problems";
import { epochMinute, localOf, minuteOn } from "@/core/time/local";
import type { WorkPlace } from "@/core/visits/work-place";
import { standsFor, type VisitState, visitStates } from "@/core/visits/states";
import { Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { lettingIn } from "../letting-in";
import { answersOfJobs } from "@/modules/catalogue/job-items";
import { takesCards } from "@/modules/money/cards";
import { idsColumn, photosColumn, tickedColumn } from "@/store/columns";

/** A technician's day, in order: only their own. */
export const fieldDay = defineView({
  name: "field-day",
  access: "field.work",
  input: Nothing,
  read(context) {
    const { sql, actor, today, business, minute, hogar } = context;
    if (actor.kind !== "person" || actor.technicianId === null)
      throw new Refusal("not-allowed", {
        sentence: "Nobody’s day belongs to this sign-in. Ask the owner to connect it to a technician.",
      });
    const zone = business.time_zone;
    const stops = sql<{
      id: number;
      state: VisitState;
      service: string;
      minutes: number;
      customer: string;
      phone: string;
      line: string;
      postcode: string;
      note: string;
      instructions: string;
      pays: string;
      checklist: string;
      access: string;
      parking: string;
      work_place: WorkPlace;
      technician_note: string;
      contacts: string;
      date: string;
      window_from: number;
      window_to: number;
      arrives: number;
      driving: number;
      due_minor: number;
      job_id: number;
      lastHere: string | null;
      repeat_id: number | null;
      again_months: number | null;
      shared_id: number | null;
      seats: number;
    }>(
      `SELECT v.id, v.state, iif(v.shared_id IS NULL, v.title, sv.name) AS service, v.minutes, c.name AS customer, c.phone, t.line, t.postcode,
          j.note, j.instructions, j.pays, v.checklist, t.access, t.parking, v.work_place, c.technician_note, c.contacts, v.date, v.window_from, v.window_to, p.arrives, p.driving,
          b.due_minor, j.id AS job_id, v.shared_id, v.seats, v.repeat_id, v.again_months,
          (SELECT max(v2.date) FROM visits v2 JOIN jobs j2 ON j2.id = v2.job_id WHERE j2.site_id = j.site_id AND v2.state = 'done' AND v2.id <> v.id) AS lastHere
        FROM placements p JOIN visits v ON v.id = p.visit_id JOIN jobs j ON j.id = v.job_id
          JOIN customers c ON c.id = j.customer_id JOIN sites t ON t.id = j.site_id
          JOIN job_balances b ON b.job_id = j.id JOIN services sv ON sv.id = v.service_id
        WHERE p.technician_id = @technicianId AND j.state <> 'awaiting deposit' AND j.approval = 'given'
          -- What goes on past midnight is still there until it is over.
          AND (p.date = @today OR (p.date = @yesterday AND p.leaves > @midnight AND v.state IN ${visitStates.sql("expect")}))
        ORDER BY p.arrives, v.id`,
    ).all({
      technicianId: actor.technicianId,
      today,
      yesterday: addDays(today, -1),
      midnight: epochMinute(today, 0, zone),
    });
    const times = groupBy(stops, (s) => s.shared_id ?? `visit ${s.id}`);
    const jobIds = stops.map((s) => s.job_id);
    const answersOf = answersOfJobs(context, jobIds);
    const additions = groupBy(
      sql<{ job_id: number; words: string; photos: string }>(
        "SELECT job_id, words, photos FROM additions WHERE job_id IN (SELECT value FROM json_each(?)) ORDER BY id",
      ).all(idsColumn.write(jobIds)),
      (addition) => addition.job_id,
    );
    return {
      name: actor.name,
      today,
      currency: business.currency,
      phone: business.phone,
      /** How one may pay at the door, beside cash and cheques. */
      takes: { cards: takesCards(context), readers: hogar.gateways.readers !== null, tips: business.tips === 1 },
      now: localOf(minute, zone).minute,
      stops: [...times.values()].map(stopOf),
    };

    /** Of those who share a time, the one who is served last says where it stands. */
    function stopOf(together: typeof stops) {
      const s = standsFor(together);
      return {
        id: s.id,
        state: s.state,
        service: s.service,
        minutes: s.minutes,
        customer: s.customer,
        phone: s.phone,
        workPlace: s.work_place,
        line: s.work_place === "site" ? s.line : s.work_place === "ours" ? "At our place" : "By phone",
        postcode: s.work_place === "site" ? s.postcode : "",
        note: [
          ...(s.work_place === "site"
            ? [s.access, ...lettingIn(s.contacts), s.parking && `Parking: ${s.parking}`]
            : []),
          s.technician_note,
          s.note,
        ]
          .filter(Boolean)
          .join(" "),
        answers: answersOf(s.job_id).map((a) => ({
          words: `${a.question} ${a.words}`,
          photos: a.photos ?? [],
        })),
        additions: (additions.get(s.job_id) ?? []).map((a) => ({
          words: a.words,
          photos: photosColumn.read(a.photos),
        })),
        /** What its job pattern says is to be done. */
        instructions: s.instructions,
        checklist: tickedColumn.read(s.checklist),
        /** What comes back by a repeat, or is a seat of a time, is not asked about again. */
        mayComeAgain: s.repeat_id === null && s.shared_id === null,
        againMonths: s.again_months,
        windowFrom: localOf(s.window_from, zone).minute,
        windowTo: minuteOn(s.date, s.window_to, zone),
        arrives: minuteOn(s.date, s.arrives, zone),
        driving: s.driving,
        // A sum is told where it is to be collected, and nowhere else.
        toCollectMinor: s.pays === "at the door" ? s.due_minor : 0,
        paysAtDoor: s.pays === "at the door",
        /** What may be taken at the door, whether or not it is to be. */
        dueMinor: s.shared_id === null ? s.due_minor : 0,
        card: cardAtTheDoor(context, s.id, s.job_id),
        lastHere: s.work_place === "site" ? s.lastHere : null,
        // Where several customers share the time: each of them, with what is to be known of them.
        comes:
          s.shared_id === null
            ? []
            : together
                .toSorted((a, b) => a.id - b.id)
                .map((one) => ({
                  id: one.id,
                  state: one.state,
                  customer: one.customer,
                  phone: one.phone,
                  seats: one.seats,
                  note: [one.technician_note, one.note].filter(Boolean).join(" "),
                  answers: answersOf(one.job_id).map((a) => `${a.question} ${a.words}`),
                  toCollectMinor: one.pays === "at the door" ? one.due_minor : 0,
                })),
      };
    }
  },
});

/** How it stands with a card at the door: the reader waits, it is being charged, it has paid or was declined; null where none was tried today. */
function cardAtTheDoor({ sql, now }: ViewContext, visitId: number, jobId: number) {
  const waits = sql<{ minor: number }>(
    "SELECT amount_minor + tip_minor AS minor FROM reader_asks WHERE visit_id = ? AND ended_at IS NULL",
  ).get(visitId);
  if (waits) return { state: "waiting" as const, minor: waits.minor, problem: null };
  return (
    sql<{ state: "asked" | "second step" | "received" | "declined"; minor: number; problem: string | null }>(
      `SELECT state, amount_minor + tip_minor AS minor, problem FROM payments
        WHERE job_id = ? AND purpose = 'invoice' AND method = 'card' AND asked_at > ?
          AND state IN ('asked', 'second step', 'received', 'declined') ORDER BY id DESC LIMIT 1`,
    ).get(jobId, now - dayMs) ?? null
  );
}
