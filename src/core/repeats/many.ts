import { addDays, type LocalDate, weekdayOf } from "../time/dates";
import { weekdayNames } from "../time/words";
import { datesOfRule, type Recurrence } from "./recurrence";

/** What is changed for many repeats at once; null leaves it as it is. */
export interface ManyChange {
  /** Those who come on one weekday come on another: 0 is Monday. */
  weekday: { from: number; to: number } | null;
  /** The last day: a season ends. */
  until: LocalDate | null;
}

/** The rule from a day on, or why it cannot be changed so. */
export type Changed = { rule: Recurrence; begins: LocalDate } | { odd: string };

/**
 * A rule as it is after a change of many, from a day on; `begins` is its first date then. What comes every second week
 * stays in its weeks. Null where the change does not concern it: by its rule it does not come on that weekday.
 */
export function changedRule(
  rule: Recurrence,
  start: LocalDate,
  { weekday, until }: ManyChange,
  from: LocalDate,
): Changed | null {
  const first = firstFrom(rule, start, from);
  if (!first) return { odd: "It has no date from that day on." };
  const moved = weekday ? onOtherWeekday(rule, start, first, weekday) : { rule, begins: first };
  if (moved === null || "odd" in moved || until === null) return moved;
  return until < moved.begins
    ? { odd: "It would end before its next date: end it instead." }
    : { ...moved, rule: { ...moved.rule, until, count: null } };
}

function onOtherWeekday(
  rule: Recurrence,
  start: LocalDate,
  first: LocalDate,
  { from, to }: { from: number; to: number },
): Changed | null {
  const named = rule.weekdays.length
    ? rule.weekdays
    : rule.freq === "WEEKLY"
      ? [{ weekday: weekdayOf(start), nth: null }]
      : [];
  const day = (weekday: number) => weekdayNames[weekday]!;
  if (!named.some(({ weekday }) => weekday === from)) return null;
  if (named.some(({ weekday }) => weekday === to)) return { odd: `It comes on a ${day(to)} already.` };
  if (rule.positions.length)
    return { odd: "By its rule it cannot be told which day is meant. Change it on its own page." };
  const weekdays = named
    .map((one) => (one.weekday === from ? { ...one, weekday: to } : one))
    .sort((a, b) => a.weekday - b.weekday);
  const changed = { ...rule, weekdays, count: left(rule, start, first) };
  // Counted from the week of its next date, so that every second week stays the same one.
  const week = addDays(first, -weekdayOf(first));
  const begins = firstFrom({ ...changed, count: null }, rule.freq === "WEEKLY" ? week : first, week);
  return begins ? { rule: changed, begins } : { odd: "It has no date from that day on." };
}

/** How many of an agreed number of visits are left from a date on. */
const left = (rule: Recurrence, start: LocalDate, date: LocalDate): number | null =>
  rule.count === null ? null : rule.count - datesOfRule(rule, start, start, addDays(date, -1)).length;

const firstFrom = (rule: Recurrence, start: LocalDate, from: LocalDate): LocalDate | undefined =>
  datesOfRule(rule, start, from > start ? from : start, addDays(from > start ? from : start, 3660), 1)[0];
