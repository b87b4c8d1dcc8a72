import { dateWords, listWords, weekdayNames } from "../time/words";
import { addDays, type LocalDate, weekdayOf } from "../time/dates";
import { ordinal } from "../words";
import { datesOfRule, readRule, type Recurrence } from "./recurrence";

const units = { DAILY: "day", WEEKLY: "week", MONTHLY: "month", YEARLY: "year" } as const;
export const monthNames = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;

/** A kept rule as people say it. */
export const repeatWords = ({ rule, start_date }: { rule: string; start_date: LocalDate }): string =>
  recurrenceWords(readRule(rule), start_date);

/** A rule as people say it: "every month on the second Tuesday", "every 4 weeks on Thursday, until 3 May 2028". */
export function recurrenceWords(rule: Recurrence, start: LocalDate): string {
  const { interval, freq, count, until } = rule;
  if (count === 1) return `once, on ${dateWords(datesOfRule(rule, start, start, addDays(start, 3660), 1)[0] ?? start)}`;
  const unit = units[freq];
  const every = interval === 1 ? `every ${unit}` : `every ${interval} ${unit}s`;
  const ends = until ? `, until ${dateWords(until)}` : count ? `, ${count} times` : "";
  return [every, ...whenWords(rule, start)].join(" ") + ends;
}

function whenWords(rule: Recurrence, start: LocalDate): string[] {
  const { freq, months, weeks, daysOfYear, daysOfMonth, weekdays, positions } = rule;
  const inMonths = months.length ? `in ${listWords(sorted(months).map((month) => monthNames[month - 1]!))}` : null;
  const plainly = nameOfSet(rule);
  if (plainly) return [plainly, ...(inMonths ? [inMonths] : [])];
  const said = [
    weeks.length ? `in ${weeks.length === 1 ? "week" : "weeks"} ${listWords(sorted(weeks).map(fromEnd))}` : null,
    daysOfYear.length ? `on the ${listWords(sorted(daysOfYear).map(nthWords))} day of the year` : null,
    daysOfMonth.length ? `on the ${listWords(sorted(daysOfMonth).map(dayOfMonthWords))}` : null,
    weekdays.length ? `on ${weekdaysIn(rule)}` : null,
    !weekdays.length && !daysOfMonth.length && !daysOfYear.length ? ofItself(rule, start) : null,
    inMonths && !isOneDay(rule) ? inMonths : null,
    positions.length ? `(the ${listWords(sorted(positions).map(nthWords))} of these days)` : null,
  ];
  if (isOneDay(rule))
    return [
      `on ${listWords(sorted(months).flatMap((month) => daysOfMonth.map((day) => `${day} ${monthNames[month - 1]}`)))}`,
    ];
  return said.filter((words) => words !== null && words !== "").map(String);

  function weekdaysIn({ weekdays: named }: Recurrence): string {
    const counted = named.some(({ nth }) => nth !== null);
    const scope = freq === "YEARLY" && !months.length && counted ? " of the year" : "";
    return (
      listWords(
        named.map(({ weekday, nth }) =>
          nth === null ? weekdayNames[weekday]! : `the ${nthWords(nth)} ${weekdayNames[weekday]}`,
        ),
      ) + scope
    );
  }
}

const isOneDay = ({ freq, months, daysOfMonth, weekdays, weeks, daysOfYear, positions }: Recurrence): boolean =>
  freq === "YEARLY" &&
  months.length > 0 &&
  daysOfMonth.length > 0 &&
  daysOfMonth.every((day) => day > 0) &&
  !weekdays.length &&
  !weeks.length &&
  !daysOfYear.length &&
  !positions.length;

/** Sets that have a name: working days, and the last day of a month that is too short. */
function nameOfSet({ freq, weekdays, daysOfMonth, positions, weeks, daysOfYear }: Recurrence): string | null {
  if (weeks.length || daysOfYear.length) return null;
  const days = weekdays.map((day) => day.weekday).sort((a, b) => a - b);
  const plain = weekdays.every(({ nth }) => nth === null);
  const isWorkingDays = plain && days.join() === "0,1,2,3,4";
  if (isWorkingDays && !positions.length && !daysOfMonth.length) return "on working days";
  if (isWorkingDays && positions.length === 1 && !daysOfMonth.length && freq === "MONTHLY")
    return `on the ${nthWords(positions[0]!)} working day`;
  const [first] = sorted(daysOfMonth);
  const last = Math.max(...daysOfMonth);
  const isRun = first === 28 && last > 28 && daysOfMonth.length === last - 27;
  if (isRun && positions.join() === "-1" && !weekdays.length)
    return `on the ${ordinal(last)}, or the last day of a shorter month`;
  return null;
}

/** What the first date says where the rule says nothing. */
function ofItself({ freq, weeks, months }: Recurrence, start: LocalDate): string {
  const [, month, day] = start.split("-").map(Number) as [number, number, number];
  const weekday = weekdayNames[weekdayOf(start)]!;
  switch (freq) {
    case "DAILY":
      return "";
    case "WEEKLY":
      return `on ${weekday}`;
    case "MONTHLY":
      return `on the ${ordinal(day)}`;
    case "YEARLY":
      return weeks.length
        ? `on ${weekday}`
        : months.length
          ? `on the ${ordinal(day)}`
          : `on ${day} ${monthNames[month - 1]}`;
  }
}

const sorted = (numbers: readonly number[]): number[] =>
  [...numbers].sort((a, b) => Math.sign(b) - Math.sign(a) || a - b);

const words = ["", "first", "second", "third", "fourth", "fifth"];
const nthWords = (n: number): string => (n === -1 ? "last" : n < 0 ? `${ordinal(-n)}-last` : (words[n] ?? ordinal(n)));
const dayOfMonthWords = (day: number): string =>
  day === -1 ? "last day" : day < 0 ? `${ordinal(-day)}-last day` : ordinal(day);
const fromEnd = (n: number): string => (n === -1 ? "the last one" : n < 0 ? `the ${ordinal(-n)}-last one` : String(n));
