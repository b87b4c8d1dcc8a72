import { addDays, addMonths, daysBetween, isDate, type LocalDate } from "../time/dates";
import { dateWords } from "../time/words";

/**
 * When a repeat brings visits back: every N days, weeks, months or years from its first date on.
 * Dates are those of the same rule by RFC 5545, but for days that a month does not have.
 */
export interface RepeatRule {
  every: number;
  unit: "day" | "week" | "month" | "year";
  start: LocalDate;
  /** Last date on which a visit may fall. */
  until?: LocalDate | null;
}

/**
 * Dates of the rule after `after`, up to and including `to`, at most `limit`. A day of the month
 * that a month does not have falls on its last day, so that a yearly visit is never lost.
 */
export function datesOf(rule: RepeatRule, after: LocalDate, to: LocalDate, limit = 200): LocalDate[] {
  if (!isDate(rule.start)) throw new RangeError(`Not a date: ${rule.start}`);
  const last = rule.until && rule.until < to ? rule.until : to;
  const dates: LocalDate[] = [];
  for (let n = firstAfter(rule, after); dates.length < limit; n++) {
    const date = nth(rule, n);
    if (date > last) break;
    if (date > after) dates.push(date);
  }
  return dates;
}

function nth({ every, unit, start }: RepeatRule, n: number): LocalDate {
  if (unit === "day" || unit === "week") return addDays(start, n * every * (unit === "week" ? 7 : 1));
  return addMonths(start, n * every * (unit === "year" ? 12 : 1));
}

/** A number of the rule from which on no date lies at or before `after` but for the first few. */
function firstAfter({ every, unit, start }: RepeatRule, after: LocalDate): number {
  const longest = { day: 1, week: 7, month: 31, year: 366 }[unit] * every;
  return Math.max(0, Math.floor(daysBetween(start, after) / longest));
}

/** How far a visit may stand from its date. */
const furthestDays = 10;

/** The day of a visit whose date is one on which nobody comes: the nearest one on which somebody does, the later of two; null where there is none near. */
export function nearestDay(date: LocalDate, comes: (date: LocalDate) => boolean): LocalDate | null {
  for (let away = 0; away <= furthestDays; away++) {
    const day = [addDays(date, away), addDays(date, -away)].find(comes);
    if (day) return day;
  }
  return null;
}

/** How often, without from when. */
export type RepeatEvery = Pick<RepeatRule, "every" | "unit">;

/** What every one of the lists lets: how often services that are booked together may come again. */
export const commonRepeats = (lists: readonly (readonly RepeatEvery[])[]): RepeatEvery[] =>
  (lists[0] ?? []).filter((one) =>
    lists.every((list) => list.some((other) => other.every === one.every && other.unit === one.unit)),
  );

/** "every 4 weeks", "yearly until 3 May 2028". */
export function ruleWords(rule: Pick<RepeatRule, "every" | "unit" | "until">): string {
  const single = { day: "daily", week: "weekly", month: "monthly", year: "yearly" };
  const words = rule.every === 1 ? single[rule.unit] : `every ${rule.every} ${rule.unit}s`;
  return rule.until ? `${words} until ${dateWords(rule.until)}` : words;
}
