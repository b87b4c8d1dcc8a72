import { daysBetween, type LocalDate, weekdayOf } from "./dates";

/** When a business is open: weekly hours, and days that are different. Minutes of the day. */
export interface Opening {
  /** Empty: whenever somebody works. */
  hours: readonly { weekday: number; opens: number; closes: number }[];
  special: readonly SpecialDay[];
}

export interface SpecialDay {
  name: string;
  first: LocalDate;
  last: LocalDate;
  /** The same days every year, whatever the year of `first` and `last`. */
  yearly: boolean;
  /** Empty: closed. */
  spans: readonly OpenSpan[];
}

export type OpenSpan = readonly [opens: number, closes: number];

const allDay: readonly OpenSpan[] = [[0, 1440]];

/** The spans in which the business is open on a date, and the name of the special day where it is one. Of several special days the shortest counts, then the one named last. */
export function openOn(
  { hours, special }: Opening,
  date: LocalDate,
): { spans: readonly OpenSpan[]; name: string | null } {
  const day = special.reduce<SpecialDay | null>(
    (best, next) => (falls(next, date) && (!best || lengthOf(next) <= lengthOf(best)) ? next : best),
    null,
  );
  if (day) return { spans: day.spans, name: day.name };
  if (hours.length === 0) return { spans: allDay, name: null };
  const weekday = weekdayOf(date);
  return { spans: hours.filter((h) => h.weekday === weekday).map((h) => [h.opens, h.closes] as const), name: null };
}

export const isOpen = (opening: Opening, date: LocalDate): boolean => openOn(opening, date).spans.length > 0;

/** Those of some dates that are among a special day's. */
export const fallingOn = (
  day: Pick<SpecialDay, "first" | "last" | "yearly">,
  dates: readonly LocalDate[],
): LocalDate[] => dates.filter((date) => falls(day, date));

/** Whether a date is one of a special day's. A yearly span may run over the turn of the year. */
function falls({ first, last, yearly }: Pick<SpecialDay, "first" | "last" | "yearly">, date: LocalDate): boolean {
  if (!yearly) return first <= date && date <= last;
  const [from, to, day] = [first.slice(5), last.slice(5), date.slice(5)];
  return from <= to && first.slice(0, 4) === last.slice(0, 4) ? from <= day && day <= to : day >= from || day <= to;
}

/** How many days one of its spans takes. */
const lengthOf = ({ first, last }: SpecialDay): number => daysBetween(first, last);
