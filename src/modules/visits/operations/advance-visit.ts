import { missing, tick, type TickedItem } from "@/core/catalogue/checklist";
import type { JobStanding } from "@/core/jobs/states";
import { type ProblemCode, Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { epochMinute, localOf, minuteOn } from "@/core/time/local";
import { type FieldStep, stepRefusal, visitStates } from "@/core/visits/states";
import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { tellOfficeOf } from "@/modules/messages/telling-us";
import { issueInvoice } from "@/modules/money/invoicing";
import { comeAgain } from "@/modules/repeats/again";
import { laidOut, readRepeat } from "@/modules/repeats/repeats";
import { togetherWith } from "@/modules/placing/shared-times";
import { readVisit, type VisitRow } from "@/modules/placing/visits";
import { tickedColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { keepChecklist, noteWork, setAgainMonths, setVisitState } from "@/modules/jobs/visits";
import { setJobState } from "@/modules/jobs/work";
import { settlePlacement } from "@/modules/placing/days";

const AdvanceVisit = input({
  visitId: Id,
  to: OneOf(["on the way", "on site", "done", "no access"]),
  ticked: Type.Optional(Type.Array(Type.String({ maxLength: 40 }), { maxItems: 60 })),
  /** Ticked later: the day on which it was, from that of the visit on. Nothing: now, or its own day where that has passed. */
  on: Type.Optional(DateText),
  /** With what is done: in how many months its customer is asked again; null is not at all, and nothing as it was agreed. */
  againMonths: Type.Optional(OrNull(Type.Integer({ minimum: 1, maximum: 120 }))),
});

/** As it was, where nothing is said of it. */
const tickedList = (list: TickedItem[], ticked: readonly string[] | undefined): TickedItem[] =>
  ticked ? tick(list, ticked) : list;

/**
 * A technician (or the office) says where a visit stands. Done brings the invoice. A step counts for all who share its
 * time, except that nobody was there: that is said of one of them.
 */
export const advanceVisit = defineOperation({
  name: "advance-visit",
  access: "field.work",
  about: { visitId: "visit" },
  input: AdvanceVisit,
  run(context, { visitId, to, ticked, on, againMonths }) {
    const visit = readVisit(context, visitId);
    // Repeating a step changes nothing: a phone may send it twice.
    if (visit.state === to) return;
    const refusal = refusalOf(context, visit, to);
    if (refusal) throw new Refusal(refusal);
    const again = againMonths === undefined || visit.repeat_id !== null ? visit.again_months : againMonths;
    if (again !== visit.again_months) setAgainMonths(context, visitId, again);
    const at = momentOf(context, visit, on);
    take(context, { ...visit, again_months: again }, to, ticked, at);
    if (to === "no access") return;
    for (const other of togetherWith(context, visit))
      if (other.id !== visitId && !refusalOf(context, other, to)) take(context, other, to, ticked, at);
  },
});

function refusalOf({ sql, today }: OperationContext, visit: VisitRow, to: FieldStep): ProblemCode | null {
  const job = sql<JobStanding>("SELECT state, approval FROM jobs WHERE id = ?").get(visit.job_id);
  return job ? stepRefusal(to, visit, job, today) : "visit-not-open";
}

/** So long after its window a visit of the day before is still under way: work may go on past midnight. */
const nightMinutes = 8 * 60;

/** When it was, in epoch milliseconds: what is said later is of the end of the window on its day. */
function momentOf(
  { now, today, minute, business }: OperationContext,
  visit: VisitRow,
  said: LocalDate | undefined,
): number {
  const isOfToday = visit.date >= today || minute <= visit.window_to + nightMinutes;
  const on = said ?? (isOfToday ? today : visit.date);
  if (on < visit.date || on > today)
    throw new Refusal("invalid-input", { fields: { "/on": "Choose a day from that of the visit to today." } });
  return on === today
    ? now
    : epochMinute(on, minuteOn(visit.date, visit.window_to, business.time_zone), business.time_zone) * 60_000;
}

function take(
  context: OperationContext,
  visit: VisitRow,
  to: FieldStep,
  ticked: readonly string[] | undefined,
  at: number,
): void {
  const { sql } = context;
  const jobId = visit.job_id!;
  const list = tickedList(tickedColumn.read(visit.checklist), ticked);
  const left = to === "done" ? missing(list) : [];
  if (left.length)
    throw new Refusal("checklist-open", {
      sentence: `Required first: ${left.map((item) => item.words).join("; ")}.`,
    });
  keepChecklist(context, visit.id, list);
  const over = visitStates.allows("over", to);
  setVisitState(context, visit.id, to);
  noteWork(context, visit.id, {
    startedAt: to === "on site" ? at : visit.started_at,
    endedAt: over ? at : null,
  });

  if (to === "on the way")
    tellCustomer(context, {
      jobId,
      visitId: visit.id,
      occasion: "on the way",
      about: `visit ${visit.id}`,
      answer: true,
      fields: { expected: expectedAt(context, visit) },
    });
  if (to === "no access")
    tellCustomer(context, { jobId, visitId: visit.id, occasion: "nobody home", about: `visit ${visit.id}` });
  if (to === "done")
    tellCustomer(context, {
      jobId,
      visitId: visit.id,
      occasion: "done",
      about: `visit ${visit.id}`,
      fields: {
        done: list
          .filter(({ done }) => done)
          .map(({ words }) => words)
          .join("\n"),
        note: "",
      },
    });
  if (to === "done") tellToSignOff(context, visit);
  if (over) settlePlacements(context, visit, at);
  else beginPlacements(context, visit, to, at);
  if (to === "done") comeBack(context, visit);
  if (
    to === "done" &&
    !sql(`SELECT 1 FROM visits WHERE job_id = ? AND state NOT IN ${visitStates.sql("closed")}`).get(jobId)
  ) {
    setJobState(context, jobId, "done");
    issueInvoice(context, jobId);
  }
}

/** The office looks over what a subcontractor has closed. */
function tellToSignOff(context: OperationContext, visit: VisitRow): void {
  const { sql } = context;
  const closed = sql<{ technician: string; who: string; site: string }>(
    `SELECT t.name AS technician, c.name AS who, s.line AS site FROM placements p JOIN technicians t ON t.id = p.technician_id
        JOIN jobs j ON j.id = @jobId JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id
      WHERE p.visit_id = @id AND t.kind = 'subcontractor' LIMIT 1`,
  ).get({ id: visit.id, jobId: visit.job_id });
  if (closed)
    tellOfficeOf(context, "to sign off", `visit ${visit.id}`, {
      ...closed,
      service: visit.title,
      where: closed.site,
      day: { days: [visit.date] },
    });
}

/** When somebody who sets off now is there: as long as the way takes after now, by the plan; nothing where it was planned otherwise. */
function expectedAt({ sql, minute, business }: OperationContext, visit: VisitRow) {
  const way = sql<{ minutes: number }>(
    "SELECT min(driving) AS minutes FROM placements WHERE visit_id = ? AND driving > 0",
  ).get(visit.id)?.minutes;
  return way ? { clock: localOf(roundUp(minute + way, 5), business.time_zone).minute } : "";
}

const roundUp = (minutes: number, step: number): number => Math.ceil(minutes / step) * step;

/** What follows of a visit that was done: it is time again in some months, or so long after it by its repeat. */
function comeBack(context: OperationContext, visit: VisitRow): void {
  if (visit.repeat_id === null) return comeAgain(context, visit);
  const repeat = readRepeat(context, visit.repeat_id);
  if (repeat.counted === "done" && repeat.state === "active") laidOut(context, repeat.id);
}

/** From a plan to what happened. */
function settlePlacements(context: OperationContext, visit: VisitRow, at: number): void {
  // Both steps said later say nothing of how long it took.
  const unsaid = at < context.now ? at - visit.minutes * 60_000 : at;
  const begun = visit.started_at !== null && (visit.started_at < at || at === context.now) ? visit.started_at : unsaid;
  const arrives = Math.floor(begun / 60_000);
  settlePlacement(context, visit.id, () => ({ arrives, leaves: Math.ceil(at / 60_000) }));
}

/** From a plan to what has begun: whoever drives off is there when the way says, and not before the window; whoever has arrived stays for the work. */
function beginPlacements(context: OperationContext, visit: VisitRow, to: FieldStep, at: number): void {
  const minute = Math.floor(at / 60_000);
  const work = visit.minutes + visit.after_minutes;
  settlePlacement(context, visit.id, ({ driving }) => {
    if (to === "on site") return { arrives: minute, leaves: minute + work };
    const arrives = Math.max(minute + driving, visit.meet_at ?? visit.window_from);
    return { arrives, leaves: arrives + visit.before_minutes + work };
  });
}
