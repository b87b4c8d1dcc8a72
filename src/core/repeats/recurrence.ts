import { dateOf, type LocalDate, numberFrom, numberOf, partsAt, weekdayOf } from "../time/dates";

/**
 * Recurrence rules of RFC 5545 (3.3.10), as far as they are about dates: what comes back within a day is no visit.
 * A rule is read from its text, written as text, and asked for its dates.
 */
export interface Recurrence {
  freq: "DAILY" | "WEEKLY" | "MONTHLY" | "YEARLY";
  /** Every so many periods. */
  interval: number;
  /** So many dates, or the last day on which one may fall; at most one of them. */
  count: number | null;
  until: LocalDate | null;
  /** 1 to 12. */
  months: readonly number[];
  weeks: readonly number[];
  daysOfYear: readonly number[];
  /** Negative ones are counted from the end. */
  daysOfMonth: readonly number[];
  /** 0 is Monday; `nth` counts them within the month or the year, from the end where it is negative, and is null where all are meant. */
  weekdays: readonly { weekday: number; nth: number | null }[];
  /** Of all days of a period, these; negative ones are counted from the end. */
  positions: readonly number[];
  /** The weekday on which weeks begin, 0 is Monday. */
  weekStart: number;
}

/** A rule that cannot be used, with a sentence that says why. */
export class OddRule extends Error {}

const frequencies = ["DAILY", "WEEKLY", "MONTHLY", "YEARLY"] as const;
const dayCodes = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"] as const;

/** The rule of a text such as `FREQ=MONTHLY;BYDAY=2TU`, with or without `RRULE:` before it. Throws OddRule. */
export function readRule(text: string): Recurrence {
  const parts = new Map<string, string>();
  for (const part of text
    .trim()
    .replace(/^RRULE:/i, "")
    .split(";")
    .filter(Boolean)) {
    const [name = "", value = ""] = part.toUpperCase().split("=");
    if (!known.has(name)) throw new OddRule(unknownWords(name));
    if (parts.has(name)) throw new OddRule(`${name} is there twice.`);
    if (!value) throw new OddRule(`${name} has no value.`);
    parts.set(name, value);
  }
  const list = (name: string, most: number, { negative = true } = {}): number[] =>
    (parts.get(name)?.split(",") ?? []).map((value) => {
      const number = /^[+-]?\d{1,3}$/.test(value) ? Number(value) : NaN;
      if (!Number.isInteger(number) || number === 0 || Math.abs(number) > most || (number < 0 && !negative))
        throw new OddRule(
          `${name}: “${value}” is not between 1 and ${most}${negative ? ", or counted from the end" : ""}.`,
        );
      return number;
    });
  const whole = (name: string): number | null => {
    const value = parts.get(name);
    if (value === undefined) return null;
    if (!/^\d{1,6}$/.test(value) || Number(value) === 0) throw new OddRule(`${name} is a whole number above 0.`);
    return Number(value);
  };
  const freq = frequencies.find((f) => f === parts.get("FREQ"));
  if (!freq) throw new OddRule("A rule begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.");
  const rule: Recurrence = {
    freq,
    interval: whole("INTERVAL") ?? 1,
    count: whole("COUNT"),
    until: untilOf(parts.get("UNTIL")),
    months: list("BYMONTH", 12, { negative: false }),
    weeks: list("BYWEEKNO", 53),
    daysOfYear: list("BYYEARDAY", 366),
    daysOfMonth: list("BYMONTHDAY", 31),
    weekdays: (parts.get("BYDAY")?.split(",") ?? []).map(weekdayIn),
    positions: list("BYSETPOS", 366),
    weekStart: parts.has("WKST") ? weekdayIn(parts.get("WKST")!).weekday : 0,
  };
  refuseOddParts(rule);
  return rule;
}

const known = new Set("FREQ INTERVAL COUNT UNTIL BYMONTH BYWEEKNO BYYEARDAY BYMONTHDAY BYDAY BYSETPOS WKST".split(" "));

const unknownWords = (name: string): string =>
  /^BY(HOUR|MINUTE|SECOND)$/.test(name)
    ? `${name} is about times: a repeat has dates, and its window says when.`
    : `“${name}” is no part of a rule.`;

function weekdayIn(text: string): { weekday: number; nth: number | null } {
  const [, nth, code] = /^([+-]?\d{1,2})?([A-Z]{2})$/.exec(text) ?? [];
  const weekday = dayCodes.findIndex((day) => day === code);
  if (weekday < 0 || Number(nth) === 0 || Math.abs(Number(nth ?? 1)) > 53)
    throw new OddRule(`“${text}” is no day such as TU, 2TU or -1FR.`);
  return { weekday, nth: nth === undefined ? null : Number(nth) };
}

function untilOf(text: string | undefined): LocalDate | null {
  if (text === undefined) return null;
  const [, year, month, day] = /^(\d{4})-?(\d{2})-?(\d{2})$/.exec(text) ?? [];
  const date = `${year}-${month}-${day}`;
  if (!year || dateOf(numberOf(date)) !== date) throw new OddRule(`UNTIL: “${text}” is no date such as 20271231.`);
  return date;
}

/** What RFC 5545 rules out. */
function refuseOddParts(rule: Recurrence): void {
  const { freq, weekdays, weeks, daysOfYear, daysOfMonth, positions, months } = rule;
  const counted = weekdays.some(({ nth }) => nth !== null);
  const odd =
    rule.count !== null && rule.until !== null
      ? "A rule ends by COUNT or by UNTIL, not by both."
      : counted && freq !== "MONTHLY" && freq !== "YEARLY"
        ? "A counted weekday such as 2TU needs FREQ=MONTHLY or YEARLY."
        : counted && weeks.length
          ? "A counted weekday such as 2TU does not go with BYWEEKNO."
          : weeks.length && freq !== "YEARLY"
            ? "BYWEEKNO needs FREQ=YEARLY."
            : daysOfYear.length && freq !== "YEARLY"
              ? "BYYEARDAY needs FREQ=YEARLY."
              : daysOfMonth.length && freq === "WEEKLY"
                ? "BYMONTHDAY does not go with FREQ=WEEKLY."
                : positions.length &&
                    ![months, weeks, daysOfYear, daysOfMonth, weekdays].some((list) => list.length > 0)
                  ? "BYSETPOS chooses among the days of another part: add BYDAY or BYMONTHDAY."
                  : null;
  if (odd) throw new OddRule(odd);
}

/** The rule as text, its parts in the order of the RFC. */
export function ruleText(rule: Recurrence): string {
  const part = (name: string, values: readonly (string | number)[]) =>
    values.length ? [`${name}=${values.join(",")}`] : [];
  return [
    `FREQ=${rule.freq}`,
    ...part("UNTIL", rule.until ? [rule.until.replaceAll("-", "")] : []),
    ...part("COUNT", rule.count ? [rule.count] : []),
    ...part("INTERVAL", rule.interval > 1 ? [rule.interval] : []),
    ...part("BYMONTH", rule.months),
    ...part("BYWEEKNO", rule.weeks),
    ...part("BYYEARDAY", rule.daysOfYear),
    ...part("BYMONTHDAY", rule.daysOfMonth),
    ...part(
      "BYDAY",
      rule.weekdays.map(({ weekday, nth }) => `${nth ?? ""}${dayCodes[weekday]}`),
    ),
    ...part("BYSETPOS", rule.positions),
    ...part("WKST", rule.weekStart ? [dayCodes[rule.weekStart]!] : []),
  ].join(";");
}

// ---------------------------------------------------------------- the dates of a rule

/**
 * The dates of a rule that begins on `start`, from `from` to `to`, both included, at most `limit`. `start` is counted
 * as the first of them where it is a date of the rule.
 */
export function datesOfRule(
  rule: Recurrence,
  start: LocalDate,
  from: LocalDate,
  to: LocalDate,
  limit = Infinity,
): LocalDate[] {
  const whole = withDefaults(rule, start);
  const [first, after] = [numberOf(start), numberOf(from)];
  const last = Math.min(numberOf(to), rule.until ? numberOf(rule.until) : Infinity);
  const dates: LocalDate[] = [];
  let counted = 0;
  // What is counted is counted from the start; otherwise one begins where one looks.
  const ahead = rule.count === null && after > first ? periodsBefore(rule, start, from) : 0;
  for (let n = ahead; ; n++) {
    const [opens, closes] = period(rule, start, n * rule.interval);
    if (opens > last) return dates;
    for (const day of daysOf(whole, opens, closes)) {
      if (day < first) continue;
      counted++;
      if (day > last || counted > (rule.count ?? Infinity)) return dates;
      if (day >= after) dates.push(dateOf(day));
      if (dates.length >= limit) return dates;
    }
  }
}

/** Whether a date is one of the rule's. */
export const isDateOf = (rule: Recurrence, start: LocalDate, date: LocalDate): boolean =>
  datesOfRule(rule, start, date, date).length > 0;

/** What a rule does not say, its first date says. */
function withDefaults(rule: Recurrence, start: LocalDate): Recurrence {
  const { freq, months, weeks, daysOfYear, daysOfMonth, weekdays } = rule;
  if (weekdays.length || daysOfMonth.length || daysOfYear.length) return rule;
  const weekday = [{ weekday: weekdayOf(start), nth: null }];
  const { month, day } = partsAt(numberOf(start));
  switch (freq) {
    case "DAILY":
      return rule;
    case "WEEKLY":
      return { ...rule, weekdays: weekday };
    case "MONTHLY":
      return { ...rule, daysOfMonth: [day] };
    case "YEARLY":
      return weeks.length
        ? { ...rule, weekdays: weekday }
        : { ...rule, months: months.length ? months : [month], daysOfMonth: [day] };
  }
}

/** The nth period from that of the start: its first and last day. */
function period({ freq, weekStart }: Recurrence, start: LocalDate, n: number): [number, number] {
  const first = numberOf(start);
  const { year, month } = partsAt(first);
  switch (freq) {
    case "DAILY":
      return [first + n, first + n];
    case "WEEKLY": {
      const opens = first - ((weekdayOf(start) - weekStart + 7) % 7) + 7 * n;
      return [opens, opens + 6];
    }
    case "MONTHLY":
      return [monthBegins(year, month + n), monthBegins(year, month + n + 1) - 1];
    case "YEARLY":
      return [monthBegins(year + n, 1), monthBegins(year + n + 1, 1) - 1];
  }
}

/** A number of the rule's periods that lie before a date for certain. */
function periodsBefore({ freq, interval }: Recurrence, start: LocalDate, date: LocalDate): number {
  const longest = { DAILY: 1, WEEKLY: 7, MONTHLY: 31, YEARLY: 366 }[freq] * interval;
  return Math.max(0, Math.floor((numberOf(date) - numberOf(start)) / longest) - 1);
}

/** The days of a period that every part of the rule lets be, in order; then the positions among them. */
function daysOf(rule: Recurrence, opens: number, closes: number): number[] {
  const days: number[] = [];
  for (let day = opens; day <= closes; day++) if (fits(rule, day)) days.push(day);
  const { positions } = rule;
  if (!positions.length) return days;
  const chosen = positions.map((at) => days.at(at > 0 ? at - 1 : at));
  return [...new Set(chosen)].filter((day) => day !== undefined).sort((a, b) => a - b);
}

function fits(rule: Recurrence, number: number): boolean {
  const { months, weeks, daysOfYear, daysOfMonth, weekdays } = rule;
  const { year, month, day } = partsAt(number);
  if (months.length && !months.includes(month)) return false;
  if (daysOfMonth.length && !counts(daysOfMonth, day, monthBegins(year, month + 1) - monthBegins(year, month)))
    return false;
  const yearBegins = monthBegins(year, 1);
  const yearEnds = monthBegins(year + 1, 1);
  if (daysOfYear.length && !counts(daysOfYear, number - yearBegins + 1, yearEnds - yearBegins)) return false;
  if (weeks.length && !isInWeeks(weeks, number, rule.weekStart)) return false;
  if (!weekdays.length) return true;
  const weekday = (((number + 3) % 7) + 7) % 7;
  const [opens, ends] =
    rule.freq === "MONTHLY" || months.length
      ? [monthBegins(year, month), monthBegins(year, month + 1)]
      : [yearBegins, yearEnds];
  return weekdays.some(
    (wanted) =>
      wanted.weekday === weekday &&
      (wanted.nth === null ||
        (wanted.nth > 0
          ? Math.floor((number - opens) / 7) + 1 === wanted.nth
          : Math.floor((ends - 1 - number) / 7) + 1 === -wanted.nth)),
  );
}

/** Whether the nth of so many is named, from the beginning or from the end. */
const counts = (named: readonly number[], nth: number, of: number): boolean =>
  named.includes(nth) || named.includes(nth - of - 1);

/** Weeks are those of ISO 8601, but may begin on another weekday: the first one has at least four days in its year. */
function isInWeeks(weeks: readonly number[], number: number, weekStart: number): boolean {
  const opens = number - ((((number + 3 - weekStart) % 7) + 7) % 7);
  // The year to which a week belongs is that of its fourth day.
  const { year } = partsAt(opens + 3);
  const first = firstWeek(year, weekStart);
  return counts(weeks, (opens - first) / 7 + 1, (firstWeek(year + 1, weekStart) - first) / 7);
}

function firstWeek(year: number, weekStart: number): number {
  const fourth = monthBegins(year, 1) + 3;
  return fourth - ((((fourth + 3 - weekStart) % 7) + 7) % 7);
}

/** The day on which a month begins; months beyond 12 lie in later years. */
const monthBegins = (year: number, month: number): number =>
  numberFrom({ year: year + Math.floor((month - 1) / 12), month: ((month - 1) % 12) + 1, day: 1 });
