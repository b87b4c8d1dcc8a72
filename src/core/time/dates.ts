/**
 * Local dates (`YYYY-MM-DD`, proleptic Gregorian) and arithmetic on them. No time zone and no library: this is what
 * pages, forms and rules reckon with, so it has to be small and quick. `local.ts` knows time zones.
 */
export type LocalDate = string;

/** Calendar arithmetic on local dates. */
export const addDays = (date: LocalDate, days: number): LocalDate => dateOf(numberOf(date) + days);

export const daysBetween = (from: LocalDate, to: LocalDate): number => numberOf(to) - numberOf(from);

/** So many months later; a day of the month that the month does not have becomes its last one. */
export function addMonths(date: LocalDate, months: number): LocalDate {
  const { year, month, day } = partsOf(date);
  const count = year * 12 + (month - 1) + months;
  const there = { year: Math.floor(count / 12), month: (((count % 12) + 12) % 12) + 1 };
  return dateFrom({ ...there, day: Math.min(day, daysInMonth(there.year, there.month)) });
}

/** Every date from `from` to `to`, both included. */
export const datesFrom = (from: LocalDate, to: LocalDate): LocalDate[] =>
  Array.from({ length: Math.max(0, daysBetween(from, to) + 1) }, (_, i) => addDays(from, i));

/** 0 is Monday, 6 is Sunday. */
export const weekdayOf = (date: LocalDate): number => (((numberOf(date) + 3) % 7) + 7) % 7;

/** Whether a weekday is in a bit mask (bit 0 is Monday). */
export const servesWeekday = (mask: number, date: LocalDate): boolean => (mask & (1 << weekdayOf(date))) !== 0;

export function isDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const { year, month, day } = partsOf(text);
  return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
}

export interface DateParts {
  year: number;
  /** 1 to 12. */
  month: number;
  day: number;
}

const partsOf = (date: LocalDate): DateParts => ({
  year: Number(date.slice(0, 4)),
  month: Number(date.slice(5, 7)),
  day: Number(date.slice(8, 10)),
});

const daysInMonth = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;

const isLeap = (year: number): boolean => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);

/**
 * Days since 1 January 1970, and the date of such a number, by Hinnant's `days_from_civil` and `civil_from_days`
 * (H. Hinnant, "chrono-Compatible Low-Level Date Algorithms", 2013): years are counted from March, so that the leap
 * day is the last of its year, in eras of 400 years.
 */
export const numberOf = (date: LocalDate): number => numberFrom(partsOf(date));

export const dateOf = (number: number): LocalDate => dateFrom(partsAt(number));

export function numberFrom({ year, month, day }: DateParts): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const yearOfEra = y - era * 400;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146_097 + dayOfEra - 719_468;
}

export function partsAt(number: number): DateParts {
  const z = number + 719_468;
  const era = Math.floor(z / 146_097);
  const dayOfEra = z - era * 146_097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shifted = Math.floor((5 * dayOfYear + 2) / 153);
  const month = shifted < 10 ? shifted + 3 : shifted - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * shifted + 2) / 5) + 1,
  };
}

const dateFrom = ({ year, month, day }: DateParts): LocalDate =>
  `${String(year).padStart(4, "0")}-${month < 10 ? "0" : ""}${month}-${day < 10 ? "0" : ""}${day}`;
