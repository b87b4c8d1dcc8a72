import { Temporal } from "temporal-polyfill";
import { RRuleTemporal } from "rrule-temporal";
import { addDays, isDate, type LocalDate } from "../time/local";
import { dateWords } from "../time/words";

/**
 * When a repeat brings visits back: every N days, weeks, months or years from its first date on.
 * Dates are computed and stored as an RFC 5545 recurrence rule.
 */
export interface RepeatRule {
  every: number;
  unit: "day" | "week" | "month" | "year";
  start: LocalDate;
  /** Last date on which a visit may fall. */
  until?: LocalDate | null;
}

const frequencies = { day: "DAILY", week: "WEEKLY", month: "MONTHLY", year: "YEARLY" } as const;

/** The rule as RFC 5545 text: `RRULE:FREQ=WEEKLY;INTERVAL=4`. */
export function toRRule(rule: RepeatRule): string {
  const until = rule.until ? `;UNTIL=${rule.until.replaceAll("-", "")}T235959Z` : "";
  return `FREQ=${frequencies[rule.unit]};INTERVAL=${rule.every}${until}`;
}

/**
 * Dates of the rule after `after`, up to and including `to`, at most `limit`. A day of the month
 * that a month does not have falls on its last day, so that a yearly visit is never lost.
 */
export function datesOf(rule: RepeatRule, after: LocalDate, to: LocalDate, limit = 200): LocalDate[] {
  if (!isDate(rule.start)) throw new RangeError(`Not a date: ${rule.start}`);
  const last = rule.until && rule.until < to ? rule.until : to;
  const start = Temporal.PlainDate.from(rule.start);
  const monthly = rule.unit === "month" || rule.unit === "year";
  if (monthly && start.day > 28) return clampedDates(rule, start, after, last, limit);
  const recurrence = new RRuleTemporal({
    freq: frequencies[rule.unit],
    interval: rule.every,
    dtstart: start.toZonedDateTime("UTC") as never,
    tzid: "UTC",
  });
  const from = after < rule.start ? start.subtract({ days: 1 }) : Temporal.PlainDate.from(after);
  if (last < rule.start) return [];
  return recurrence
    .between(noon(from), noon(Temporal.PlainDate.from(last)), true)
    .map((zoned) => zoned.toPlainDate().toString())
    .filter((date) => date > after && date <= last)
    .slice(0, limit);
}

function clampedDates(
  rule: RepeatRule,
  start: Temporal.PlainDate,
  after: LocalDate,
  last: LocalDate,
  limit: number,
): LocalDate[] {
  const dates: LocalDate[] = [];
  for (let n = 0; dates.length < limit; n++) {
    const date = start.add(rule.unit === "month" ? { months: n * rule.every } : { years: n * rule.every }).toString();
    if (date > last) break;
    if (date > after) dates.push(date);
  }
  return dates;
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

const noon = (date: Temporal.PlainDate): Date =>
  new globalThis.Date(date.toZonedDateTime("UTC").epochMilliseconds + 12 * 3_600_000);

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
