import { addDays, type LocalDate } from "../time/dates";
import { datesOfRule, type Recurrence } from "./recurrence";

/** How far a date of a rule is looked for, in days: a visit comes every ten years at the rarest. */
const farAhead = 3660;

/** The first date of a rule from a day on, if there is one within ten years. */
export const firstFrom = (rule: Recurrence, start: LocalDate, from: LocalDate): LocalDate | undefined => {
  const opens = from > start ? from : start;
  return datesOfRule(rule, start, opens, addDays(opens, farAhead), 1)[0];
};

/** How many of an agreed number of dates are left from a day on; null where no number was agreed. */
export const leftFrom = (rule: Recurrence, start: LocalDate, from: LocalDate): number | null =>
  rule.count === null ? null : rule.count - datesOfRule(rule, start, start, addDays(from, -1)).length;

/**
 * A rule as it goes on from a day: with as many dates as are left of an agreed number. Whoever lets a rule begin anew, by
 * whatever change, begins with this one. Null where none is left.
 */
export function aheadOf(rule: Recurrence, start: LocalDate, from: LocalDate): Recurrence | null {
  const left = leftFrom(rule, start, from);
  return left === null || left > 0 ? { ...rule, count: left } : null;
}
