import { addDays, type LocalDate } from "../time/dates";
import { datesOfRule, isDateOf, type Recurrence } from "./recurrence";

/** What becomes of a date on which nobody comes: it moves, is left out, or waits for a person. */
export type OnClosed = "later" | "earlier" | "nearest" | "skip" | "ask";
export const onClosedWays: readonly OnClosed[] = ["nearest", "later", "earlier", "skip", "ask"];

/** What was agreed for one date of a rule: it is left out, takes place on another day, in another window (minutes of the day), or both. */
interface Exception {
  date: LocalDate;
  skip?: boolean;
  to?: LocalDate;
  window?: readonly [from: number, to: number];
}

/** A rule with all that was agreed beside it. */
export interface Coming {
  rule: Recurrence;
  start: LocalDate;
  exceptions: readonly Exception[];
  /** Dates of the rule inside do not take place, both ends included. */
  pauses: readonly (readonly [LocalDate, LocalDate])[];
  /** Whether somebody comes on a day at all. */
  comes: (day: LocalDate) => boolean;
  onClosed: OnClosed;
}

/** What becomes of a date: `no day` is a date near which nobody comes. */
export type ComingDate =
  | { date: LocalDate; state: "planned" | "moved"; day: LocalDate; window: readonly [number, number] | null }
  | { date: LocalDate; state: "skipped" | "paused" | "no day" };

/** How far a visit may stand from its date. */
export const furthestDays = 10;

/**
 * Each date of the rule from `from` to `to`, both included, and what becomes of it. An exception that names a day is
 * taken as it is; otherwise a pause is stronger. A date whose day nobody comes on moves by the agreement, and keeps its
 * place in the rule. Once is enough: where it would move onto a date of the rule, or onto a day that an earlier date
 * has been moved to, it is left out.
 */
export function comingDates(coming: Coming, from: LocalDate, to: LocalDate): ComingDate[] {
  const { rule, start, exceptions, pauses, comes, onClosed } = coming;
  const before = addDays(from, -2 * furthestDays);
  const dates = datesOfRule(rule, start, before, addDays(to, furthestDays));
  const isDate = new Set([...datesOfRule(rule, start, addDays(before, -furthestDays), before), ...dates]);
  const agreed = new Map(exceptions.map((exception) => [exception.date, exception]));
  // Whoever was moved long ago may have been moved far.
  const taken = new Set(
    exceptions.flatMap(({ date, to: day }) => (day && date < before && isDateOf(rule, start, date) ? [day] : [])),
  );
  return dates.flatMap((date) => {
    if (date > to) return [];
    const became = becomes(date);
    return date < from ? [] : [became];
  });

  function becomes(date: LocalDate): ComingDate {
    const exception = agreed.get(date);
    const window = exception?.window ?? null;
    if (exception?.to) return on(exception.to);
    if (pauses.some(([first, last]) => first <= date && date <= last)) return { date, state: "paused" };
    if (exception?.skip) return { date, state: "skipped" };
    if (comes(date)) return on(date);
    if (onClosed === "skip") return { date, state: "skipped" };
    if (onClosed === "ask") return { date, state: "no day" };
    const day = dayInstead(date, comes, onClosed);
    if (day === null) return { date, state: "no day" };
    return isDate.has(day) || taken.has(day) ? { date, state: "skipped" } : on(day);

    function on(day: LocalDate): ComingDate {
      if (day === date) return { date, state: "planned", day, window };
      taken.add(day);
      return { date, state: "moved", day, window };
    }
  }
}

/** The day of a date on which nobody comes; of two that are as near, the later. Null where nobody comes within ten days. */
const dayInstead = (date: LocalDate, comes: (day: LocalDate) => boolean, way: OnClosed): LocalDate | null =>
  daysInstead(date, way).find(comes) ?? null;

/** The days to which a date may move by its agreement, the nearest first; none where it does not move by itself. */
export function daysInstead(date: LocalDate, way: OnClosed): LocalDate[] {
  if (way === "skip" || way === "ask") return [];
  return Array.from({ length: furthestDays }, (_, i) => i + 1).flatMap((away) => [
    ...(way === "earlier" ? [] : [addDays(date, away)]),
    ...(way === "later" ? [] : [addDays(date, -away)]),
  ]);
}
