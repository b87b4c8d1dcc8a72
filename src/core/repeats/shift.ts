import { addDays, daysBetween, type LocalDate, partsAt, numberOf, weekdayOf } from "../time/dates";
import { leftFrom } from "./left";
import { datesOfRule, isDateOf, type Recurrence } from "./recurrence";
import { plainRule, type RepeatEvery, ruleFrom } from "./rule";

/** A rule and the day from which it counts. */
export interface Begun {
  rule: Recurrence;
  start: LocalDate;
}

/** Which of the dates to come move along with one: those on its day of the week or month, or all by as many days. */
export type Along = "its day" | "every day";
export const waysAlong: readonly Along[] = ["its day", "every day"];

/**
 * The rule from a date on, where that date is moved to another day for good: "every Wednesday" becomes "every Thursday", the
 * second Tuesday the second Wednesday of that month, the 15th the 16th. As many dates come after as would have come before,
 * one for each, and what is agreed for so many visits or until a day goes on for those that are left. Null where no rule says
 * that: it has to be asked what is meant.
 */
export function shiftedRule(
  rule: Recurrence,
  start: LocalDate,
  date: LocalDate,
  to: LocalDate,
  along: Along,
): Begun | null {
  if (date === to) return { rule: { ...rule, count: leftFrom(rule, start, date) }, start: date };
  const days = daysShifted(rule, start, date, to, along);
  if (!days) return null;
  const endless = { ...rule, ...days, count: null, until: null };
  const first = date < to ? date : to;
  const anchor = isPlain(endless) || isOneDay(endless) ? to : first;
  const begins = datesOfRule(endless, anchor, first, to, 1)[0];
  if (!begins || !isDateOf(endless, begins, to)) return null;
  return keepsDates({ rule, start }, first, { rule: endless, start: begins }, Math.abs(daysBetween(date, to)));
}

/** The ways in which the dates after one can move along with it: none where only this one can. */
export const waysToShift = (rule: Recurrence, start: LocalDate, date: LocalDate, to: LocalDate): Along[] => {
  const [one, all] = waysAlong.map((along) => shiftedRule(rule, start, date, to, along));
  if (one && all && JSON.stringify(one) === JSON.stringify(all)) return ["its day"];
  return waysAlong.filter((_, i) => [one, all][i]);
};

/** A rule that says only how often, and means the days of its first date. */
const isPlain = ({ months, weeks, daysOfYear, daysOfMonth, weekdays }: Recurrence): boolean =>
  ![months, weeks, daysOfYear, daysOfMonth, weekdays].some((list) => list.length > 0);

/** The last day that a month has of some: the 31st, or the last day of a shorter month. */
const isUpToLast = ({ daysOfMonth, weekdays, positions }: Recurrence): boolean =>
  positions.join() === "-1" && daysOfMonth[0] === 28 && !weekdays.length;

const isOneDay = (rule: Recurrence): boolean =>
  isUpToLast(rule) || (rule.weekdays.length + rule.daysOfMonth.length === 1 && !rule.positions.length);

const unitOf = { DAILY: "day", WEEKLY: "week", MONTHLY: "month", YEARLY: "year" } as const;

/** The parts of a rule that say its days, as they are after one of them has moved. */
function daysShifted(
  rule: Recurrence,
  start: LocalDate,
  date: LocalDate,
  to: LocalDate,
  along: Along,
): Partial<Recurrence> | null {
  const { freq, interval, weekdays, months, daysOfMonth, weeks, daysOfYear, positions } = rule;
  const often: RepeatEvery = { every: interval, unit: unitOf[freq] };
  if (weeks.length || daysOfYear.length) return null;
  const isWholeYear = freq === "YEARLY" && months.length === 1;
  if (isPlain(rule) || (isUpToLast(rule) && (!months.length || isWholeYear))) {
    const { daysOfMonth: days, months: in_, positions: among } = ruleFrom(often, to);
    return { daysOfMonth: days, months: in_, positions: among, weekdays: [] };
  }
  if (positions.length) return null;
  if (freq === "DAILY" && interval > 1) return null;
  if (freq === "WEEKLY" || (weekdays.length && weekdays.every(({ nth }) => nth === null))) {
    if (daysOfMonth.length) return null;
    const named = weekdays.length ? weekdays.map(({ weekday }) => weekday) : [weekdayOf(start)];
    const moved = movedAmong(
      named,
      weekdayOf(date),
      weekdayOf(to),
      along,
      (day, by) => (((day + by) % 7) + 7) % 7,
      daysBetween(date, to),
    );
    return moved && { weekdays: moved.map((weekday) => ({ weekday, nth: null })) };
  }
  if (weekdays.length && !daysOfMonth.length) return countedWeekdays(rule, date, to, along);
  if (!daysOfMonth.length || weekdays.length) return null;
  if (isWholeYear && daysOfMonth.length === 1) {
    const { month, day } = partsAt(numberOf(to));
    return month === 2 && day === 29
      ? { ...plainRule(often), ...ruleFrom(often, to), count: null }
      : { months: [month], daysOfMonth: [day] };
  }
  const last = daysInMonth(date);
  const own = daysOfMonth.find((day) => day === Number(date.slice(8)) || day === Number(date.slice(8)) - last - 1);
  if (own === undefined) return null;
  const into = Number(to.slice(8));
  if (daysOfMonth.length === 1) {
    if (own < 0 && date.slice(0, 7) === to.slice(0, 7)) return { daysOfMonth: [into - last - 1] };
    const { daysOfMonth: days, positions: among } = ruleFrom({ every: interval, unit: "month" }, to);
    return days.length ? { daysOfMonth: days, positions: among } : { daysOfMonth: [into] };
  }
  const moved = movedAmong(daysOfMonth, own, into, along, (day, by) => day + by, daysBetween(date, to));
  return moved?.every((day) => day >= 1 && day <= 28) ? { daysOfMonth: moved } : null;
}

/** Days of a week or month of which one has moved, or all by as many days; null where two would fall together. */
function movedAmong(
  days: readonly number[],
  from: number,
  to: number,
  along: Along,
  shift: (day: number, by: number) => number,
  by: number,
): number[] | null {
  const moved = days.map((day) => (along === "every day" ? shift(day, by) : day === from ? to : day));
  return new Set(moved).size === moved.length ? moved.sort((a, b) => a - b) : null;
}

/** Counted weekdays of a month or year, such as 2TU, of which one has moved, or all by as many days. */
function countedWeekdays(
  { weekdays, freq, months }: Recurrence,
  date: LocalDate,
  to: LocalDate,
  along: Along,
): Partial<Recurrence> | null {
  if (freq === "YEARLY" && months.length !== 1) return null;
  const ownWeekday = weekdayOf(date);
  const own = weekdays.find(({ weekday, nth }) => weekday === ownWeekday && nth !== null && isNth(date, nth));
  if (!own) return null;
  const inSame = date.slice(0, 7) === to.slice(0, 7);
  const into = { weekday: weekdayOf(to), nth: own.nth! < 0 && inSame ? nthFromEnd(to) : nthOf(to) };
  const by = daysBetween(date, to);
  const moved = weekdays.map((one) =>
    one === own ? into : along === "its day" ? one : { ...one, weekday: (((one.weekday + by) % 7) + 7) % 7 },
  );
  if (new Set(moved.map((one) => JSON.stringify(one))).size < moved.length) return null;
  return { weekdays: moved, ...(freq === "YEARLY" && { months: [Number(to.slice(5, 7))] }) };
}

const daysInMonth = (date: LocalDate): number => {
  const { year, month } = partsAt(numberOf(date));
  const next = month === 12 ? `${year + 1}-01-01` : `${year}-${String(month + 1).padStart(2, "0")}-01`;
  return Number(addDays(next, -1).slice(8));
};
/** Which of its weekday a day is within its month; there is not always a fifth, so that one is the last. */
const nthOf = (date: LocalDate): number => {
  const nth = Math.ceil(Number(date.slice(8)) / 7);
  return nth === 5 ? -1 : nth;
};
const nthFromEnd = (date: LocalDate): number => -Math.ceil((daysInMonth(date) - Number(date.slice(8)) + 1) / 7);
const isNth = (date: LocalDate, nth: number): boolean =>
  nth > 0 ? Math.ceil(Number(date.slice(8)) / 7) === nth : nthFromEnd(date) === nth;

/** So many dates are compared at the most, and those of so many years: the days of February differ every fourth. */
const [mostCompared, yearsCompared] = [100, 9];

/** The new terms with the end of the old ones, where each date that was to come from a day on has one of its own in them; null where that is not so. `by`: so many days one was moved. */
function keepsDates(old: Begun, from: LocalDate, anew: Begun, by: number): Begun | null {
  const far = addDays(from, 366 * yearsCompared);
  const before = datesOfRule({ ...old.rule, count: null, until: null }, old.start, from, far, mostCompared);
  const after = datesOfRule(anew.rule, anew.start, anew.start, addDays(far, 400), before.length);
  // The dates of a month shift against each other by a week at the most, beyond the days by which one was moved.
  const apart = by + 7;
  const isOneEach = before.every((day, i) => after[i] && Math.abs(daysBetween(day, after[i])) <= apart);
  if (!isOneEach && !(isOfSeason(old.rule) && isAsOftenInEachYear(before, after))) return null;
  const { until } = old.rule;
  const count = leftFrom(old.rule, old.start, from);
  if (until === null) return { ...anew, rule: { ...anew.rule, count } };
  const left = datesOfRule(old.rule, old.start, from, until).length;
  const kept = datesOfRule(anew.rule, anew.start, anew.start, addDays(until, 400), left + 1);
  const last = kept[left - 1]!;
  const isTheSame = last <= until && !(kept[left] && kept[left] <= until);
  return { ...anew, rule: { ...anew.rule, until: isTheSame ? until : last } };
}

/** Weekdays within some months of the year: there is one more or less of another weekday in a season. */
const isOfSeason = ({ months, weekdays, freq }: Recurrence): boolean =>
  months.length > 0 && (freq === "WEEKLY" || (weekdays.length > 0 && weekdays.every(({ nth }) => nth === null)));

function isAsOftenInEachYear(before: readonly LocalDate[], after: readonly LocalDate[]): boolean {
  const inYear = (dates: readonly LocalDate[], year: string) => dates.filter((date) => date.startsWith(year)).length;
  const lastYear = before.at(-1)!.slice(0, 4);
  const years = [...new Set(before.map((date) => date.slice(0, 4)))].filter((year) => year < lastYear);
  return years.every((year) => Math.abs(inYear(before, year) - inYear(after, year)) <= 1);
}
