import type { LocalDate } from "../time/dates";
import type { Recurrence } from "./recurrence";
import { ruleFrom } from "./rule";

/** Whether dates come by the calendar, whatever becomes of a visit, or so long after the last one that was done. */
export type Counted = "calendar" | "done";
export const waysToCount: readonly Counted[] = ["calendar", "done"];

const unitOf = { DAILY: "day", WEEKLY: "week", MONTHLY: "month", YEARLY: "year" } as const;

/** What can be counted from a visit: so many days, weeks, months or years, and an end; not weekdays or days of a month. */
export const canCountFromVisits = ({ months, weeks, daysOfYear, daysOfMonth, weekdays }: Recurrence): boolean =>
  ![months, weeks, daysOfYear, weekdays].some((list) => list.length > 0) && daysOfMonth.every((day) => day >= 28);

/** What is said to whoever wants to count something else so. */
export const countedFromVisitsWords =
  "Counted from the last visit, a rule says only how often: so many days, weeks, months or years. Choose such a rule first.";

/**
 * The rule from the day on which a visit was done, or is promised: that is its first date. `passed`: how many of its
 * dates have come to be visits since it began, which a rule for so many visits counts down; it never falls below that first one.
 */
export function countedFrom(rule: Recurrence, day: LocalDate, passed: number): Recurrence {
  const from = ruleFrom({ every: rule.interval, unit: unitOf[rule.freq] }, day);
  return { ...from, until: rule.until, count: rule.count === null ? null : Math.max(1, rule.count - passed) };
}
