import { jobAllows, type JobStanding } from "../jobs/states";
import type { ProblemCode } from "../problems";
import { stateTable } from "../states";
import type { LocalDate } from "../time/dates";

export type VisitState =
  "held" | "forecast" | "promised" | "on the way" | "on site" | "done" | "no access" | "cancelled";

/** What can be done with a visit, or said of it. */
export type VisitAct =
  /** Keeps room on the board that is not promised: it gives way to nothing but may still be given up. */
  | "keeps room"
  /** Is placed and placed again: nobody has begun with it. */
  | "plan"
  /** The office moves it. */
  | "move"
  /** Somebody goes once more, since nobody was there: it is promised anew. */
  | "go again"
  /** The customer or the office cancels it. */
  | "cancel"
  /** Is still to come, or under way: what a customer is told of. */
  | "expect"
  /** The customer has not been served yet: late when its window has passed. */
  | "await"
  /** Somebody has set out for it, and it is not over. */
  | "under way"
  /** Somebody was there and is gone. */
  | "over"
  /** Counts as work of a day: what was agreed, however it ended. */
  | "count"
  /** Is nothing more to be done with before its job is done. */
  | "closed";

/** What follows what: along the day, and out of it. */
export const visitStates = stateTable<VisitState, VisitAct>({
  held: { next: ["promised", "cancelled"], allows: ["keeps room", "plan"] },
  forecast: { next: ["promised", "cancelled"], allows: ["keeps room", "plan", "move"] },
  promised: {
    next: ["on the way", "on site", "cancelled"],
    allows: ["plan", "move", "cancel", "expect", "await", "count"],
  },
  "on the way": {
    next: ["on site", "no access", "cancelled"],
    allows: ["cancel", "expect", "await", "under way", "count"],
  },
  "on site": { next: ["done", "no access"], allows: ["expect", "under way", "count"] },
  done: { next: [], allows: ["over", "count", "closed"] },
  "no access": { next: ["promised", "cancelled"], allows: ["over", "go again", "cancel", "count"] },
  cancelled: { next: [], allows: ["closed"] },
});

/** The steps of a visit in the field, and their order on the day; a later one may stand for those before it. */
export type FieldStep = Extract<VisitState, "on the way" | "on site" | "done" | "no access">;
export const fieldSteps: readonly FieldStep[] = ["on the way", "on site", "done", "no access"];
const order: Record<VisitState, number> = {
  held: 0,
  forecast: 0,
  promised: 0,
  "on the way": 1,
  "on site": 2,
  done: 3,
  "no access": 3,
  cancelled: 4,
};

/** Where a visit stands when a step was taken that may not have arrived yet: the further of the two. */
export const furtherOf = (state: VisitState, step: VisitState): VisitState =>
  order[step] > order[state] ? step : state;

/** Of several that share a time, the one that says where it stands: the first that is not over. */
export const standsFor = <V extends { state: VisitState }>(together: readonly V[]): V =>
  together.find(({ state }) => !visitStates.allows("over", state)) ?? together[0]!;

/** The step that comes next where all goes well; null where there is none. */
export const nextStep = (state: VisitState): FieldStep | null =>
  (({ promised: "on the way", "on the way": "on site", "on site": "done" }) as Partial<Record<VisitState, FieldStep>>)[
    state
  ] ?? null;

/**
 * What stands against a step in the field; null where nothing does. A job that waits for approval or for its deposit
 * is not worked on, nor a visit before its day.
 */
export function stepRefusal(
  step: FieldStep,
  visit: { state: VisitState; date: LocalDate },
  job: JobStanding,
  today: LocalDate,
): ProblemCode | null {
  if (!jobAllows("work", job)) return "not-agreed-yet";
  if (visit.date > today) return "before-its-day";
  return visitStates.follows(step, visit.state) ? null : "wrong-order";
}
