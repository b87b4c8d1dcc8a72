import { type LocalDate, weekdayOf } from "../time/dates";
import type { Recurrence } from "./recurrence";

/** How often, without from when: what a service lets customers choose. */
export interface RepeatEvery {
  every: number;
  unit: "day" | "week" | "month" | "year";
}

/** How often most work comes back: what is offered first where one agrees by word of mouth. */
export const usualRepeats: readonly RepeatEvery[] = [
  { every: 1, unit: "week" },
  { every: 2, unit: "week" },
  { every: 4, unit: "week" },
  { every: 1, unit: "month" },
  { every: 3, unit: "month" },
  { every: 6, unit: "month" },
  { every: 1, unit: "year" },
];

/** What every one of the lists lets: how often services that are booked together may come again. */
export const commonRepeats = (lists: readonly (readonly RepeatEvery[])[]): RepeatEvery[] =>
  (lists[0] ?? []).filter((one) =>
    lists.every((list) => list.some((other) => other.every === one.every && other.unit === one.unit)),
  );

/** "every 4 weeks", "yearly". */
export function everyWords({ every, unit }: RepeatEvery): string {
  const single = { day: "daily", week: "weekly", month: "monthly", year: "yearly" };
  return every === 1 ? single[unit] : `every ${every} ${unit}s`;
}

const frequencies = { day: "DAILY", week: "WEEKLY", month: "MONTHLY", year: "YEARLY" } as const;

/** A rule that says nothing yet but how often. */
export const plainRule = ({ every, unit }: RepeatEvery): Recurrence => ({
  freq: frequencies[unit],
  interval: every,
  count: null,
  until: null,
  months: [],
  weeks: [],
  daysOfYear: [],
  daysOfMonth: [],
  weekdays: [],
  positions: [],
  weekStart: 0,
});

/** The rule by which a visit comes back so often: on the last day of a month that has no such day, so that none is lost. */
export function ruleFrom(often: RepeatEvery, start: LocalDate): Recurrence {
  const rule = plainRule(often);
  const day = Number(start.slice(8));
  if (often.unit === "month" && day > 28) return { ...rule, ...orLastDay(day) };
  if (often.unit === "year" && start.endsWith("-02-29")) return { ...rule, months: [2], ...orLastDay(29) };
  return rule;
}

/** The days of a month of which the last one there is is meant: the 31st, or the last day of a shorter month. */
const orLastDay = (day: number): Pick<Recurrence, "daysOfMonth" | "positions"> => ({
  daysOfMonth: Array.from({ length: day - 27 }, (_, i) => 28 + i),
  positions: [-1],
});

/** What of a month is meant, of all that a first date can mean: its number, its weekday counted, a working day, the last day. */
export type DaysOfMonth = Pick<Recurrence, "daysOfMonth" | "weekdays" | "positions">;

const workingDays = [0, 1, 2, 3, 4].map((n) => ({ weekday: n, nth: null }));

/** The nth working day of each month, from Monday to Friday; −1 is the last one. */
export const nthWorkingDay = (nth: number): DaysOfMonth => ({
  daysOfMonth: [],
  weekdays: workingDays,
  positions: [nth],
});

/** Which working day of the month a rule means, null where it means something else. */
export const workingDayOf = ({ daysOfMonth, weekdays, positions }: DaysOfMonth): number | null =>
  !daysOfMonth.length &&
  positions.length === 1 &&
  weekdays.length === 5 &&
  weekdays.every(({ weekday, nth }) => weekday < 5 && nth === null)
    ? positions[0]!
    : null;

export function waysOfMonth(start: LocalDate): DaysOfMonth[] {
  const day = Number(start.slice(8));
  const weekday = weekdayOf(start);
  const none = { daysOfMonth: [], weekdays: [], positions: [] };
  return [
    day > 28 ? { ...none, ...orLastDay(day) } : { ...none, daysOfMonth: [day] },
    { ...none, weekdays: [{ weekday, nth: Math.min(Math.ceil(day / 7), 4) }] },
    { ...none, weekdays: [{ weekday, nth: -1 }] },
    nthWorkingDay(1),
    nthWorkingDay(-1),
    { ...none, daysOfMonth: [-1] },
  ];
}
