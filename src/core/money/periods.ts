import { addDays, addMonths, daysBetween, type LocalDate } from "../time/dates";
import { dateWords, monthWords } from "../time/words";

/** For what a flat price is paid. */
export type Per = "month" | "year";

export const nextPeriod = (start: LocalDate, per: Per): LocalDate => addMonths(start, per === "month" ? 1 : 12);

/** The last day of a period. */
export const endOfPeriod = (start: LocalDate, per: Per): LocalDate => addDays(nextPeriod(start, per), -1);

/** The first period of a price that counts from a day: a month begins with its first day, a year on that day. */
export const firstPeriod = (day: LocalDate, per: Per): LocalDate => (per === "month" ? `${day.slice(0, 7)}-01` : day);

/** The period in which a day lies: its month, or the year of the agreement, of which one begins on `begins`. */
export function periodOf(day: LocalDate, per: Per, begins: LocalDate): LocalDate {
  if (per === "month") return firstPeriod(day, per);
  let start = addMonths(begins, 12 * (Number(day.slice(0, 4)) - Number(begins.slice(0, 4))));
  if (start > day) start = addMonths(start, -12);
  return start;
}

/** The periods that begin from one on until a day: a flat price is billed when its month or year begins. */
export function periodsUntil(from: LocalDate, per: Per, until: LocalDate): LocalDate[] {
  const starts: LocalDate[] = [];
  for (let start = from; start <= until; start = nextPeriod(start, per)) starts.push(start);
  return starts;
}

/** How much of a month is agreed: so many of its days, from the first to the last that count; all of it where neither lies within. */
export function daysOfMonth(
  start: LocalDate,
  { since, until }: { since: LocalDate | null; until: LocalDate | null },
): { days: number; of: number } {
  const end = endOfPeriod(start, "month");
  const from = since !== null && since > start ? since : start;
  const to = until !== null && until < end ? until : end;
  return { days: Math.max(0, daysBetween(from, to) + 1), of: daysBetween(start, end) + 1 };
}

/** "November 2026"; "9 March 2026 to 8 March 2027". */
export const periodWords = (start: LocalDate, per: Per): string =>
  per === "month" ? monthWords(start) : `${dateWords(start)} to ${dateWords(endOfPeriod(start, per))}`;
