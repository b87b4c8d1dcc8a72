import { addDays, type LocalDate, weekdayOf } from "../time/dates";
import { weekdayNames } from "../time/words";
import { aheadOf, firstFrom } from "./left";
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
 * stays in its weeks, and of an agreed number of visits as many come as were left. Null where the change does not concern it:
 * by its rule it does not come on that weekday, or it ends sooner.
 */
export function changedRule(
  rule: Recurrence,
  start: LocalDate,
  { weekday, until }: ManyChange,
  from: LocalDate,
): Changed | null {
  const first = firstFrom(rule, start, from);
  const ahead = first && aheadOf(rule, start, first);
  if (!first || !ahead) return { odd: "It has no date from that day on." };
  const moved = weekday ? onOtherWeekday(ahead, first, weekday) : { rule: ahead, begins: first };
  if (moved === null || "odd" in moved || until === null) return moved;
  if (until < moved.begins) return { odd: "It would end before its next date: end it instead." };
  // Whoever comes until a day before that, or has had their number by then, stays with it.
  const isSooner = lastOf(moved) !== null && lastOf(moved)! <= until;
  if (isSooner) return weekday ? moved : null;
  return { ...moved, rule: { ...moved.rule, until, count: null } };
}

/** The last date of a rule that ends by itself. */
const lastOf = ({ rule, begins }: { rule: Recurrence; begins: LocalDate }): LocalDate | null =>
  rule.count !== null ? (datesOfRule(rule, begins, begins, addDays(begins, 366 * 100)).at(-1) ?? null) : rule.until;

function onOtherWeekday(
  rule: Recurrence,
  first: LocalDate,
  { from, to }: { from: number; to: number },
): Changed | null {
  const named = rule.weekdays.length
    ? rule.weekdays
    : rule.freq === "WEEKLY"
      ? [{ weekday: weekdayOf(first), nth: null }]
      : [];
  const day = (weekday: number) => weekdayNames[weekday]!;
  if (!named.some(({ weekday }) => weekday === from)) return null;
  if (named.some(({ weekday }) => weekday === to)) return { odd: `It comes on a ${day(to)} already.` };
  if (rule.positions.length)
    return { odd: "By its rule it cannot be told which day is meant. Change it on its own page." };
  const weekdays = named
    .map((one) => (one.weekday === from ? { ...one, weekday: to } : one))
    .sort((a, b) => a.weekday - b.weekday);
  const changed = { ...rule, weekdays };
  // Counted from the week of its next date, so that every second week stays the same one.
  const week = addDays(first, -weekdayOf(first));
  const begins = firstFrom({ ...changed, count: null }, rule.freq === "WEEKLY" ? week : first, week);
  return begins ? { rule: changed, begins } : { odd: "It has no date from that day on." };
}
