import { Temporal } from "temporal-polyfill";

/**
 * Local dates and times of day to epoch minutes and back: the only place where time zones are
 * converted. Epoch minutes are integers in UTC; dates are `YYYY-MM-DD`; a minute of day counts
 * from local midnight as a wall clock shows it (540 is nine o'clock, also on a daylight-saving day).
 */
export type LocalDate = string;

const DAY = 1440;

/** Epoch minute at which the clocks in `zone` show `minuteOfDay` on `date`. A time skipped by daylight saving moves forward by the gap; a repeated one is its first occurrence. `minuteOfDay` may be 1440 (the end of the day). */
export function epochMinute(date: LocalDate, minuteOfDay: number, zone: string): number {
  const day = dayIn(date, zone);
  if (day.length === DAY) return day.midnight + minuteOfDay;
  if (minuteOfDay >= DAY) return day.midnight + day.length + (minuteOfDay - DAY);
  const time = { hour: Math.floor(minuteOfDay / 60), minute: minuteOfDay % 60 };
  return minutes(Temporal.PlainDate.from(date).toPlainDateTime(time).toZonedDateTime(zone));
}

/** Local date and minute of day of an epoch minute. */
export function localOf(epoch: number, zone: string): { date: LocalDate; minute: number } {
  const zoned = Temporal.Instant.fromEpochMilliseconds(epoch * 60_000).toZonedDateTimeISO(zone);
  return { date: zoned.toPlainDate().toString(), minute: zoned.hour * 60 + zoned.minute };
}

export const localDate = (epoch: number, zone: string): LocalDate => localOf(epoch, zone).date;

/** Calendar arithmetic on local dates. */
export const addDays = (date: LocalDate, days: number): LocalDate => Temporal.PlainDate.from(date).add({ days }).toString();

export const daysBetween = (from: LocalDate, to: LocalDate): number =>
  Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: "day" }).days;

/** Every date from `from` to `to`, both included. */
export const datesFrom = (from: LocalDate, to: LocalDate): LocalDate[] =>
  Array.from({ length: Math.max(0, daysBetween(from, to) + 1) }, (_, i) => addDays(from, i));

/** 0 is Monday, 6 is Sunday. */
export const weekdayOf = (date: LocalDate): number => Temporal.PlainDate.from(date).dayOfWeek - 1;

/** Whether a weekday is in a bit mask (bit 0 is Monday). */
export const servesWeekday = (mask: number, date: LocalDate): boolean => (mask & (1 << weekdayOf(date))) !== 0;

export const isDate = (text: string): boolean => {
  try {
    return Temporal.PlainDate.from(text).toString() === text;
  } catch {
    return false;
  }
};

/** Whether the IANA time zone is known. */
export const isTimeZone = (zone: string): boolean => {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
};

// A day's midnight and length hardly ever differ from its neighbour's plus 1440, but asking Temporal
// for it a hundred thousand times does cost; so each day is asked once.
const known = new Map<string, { midnight: number; length: number }>();

function dayIn(date: LocalDate, zone: string) {
  const key = zone + date;
  let day = known.get(key);
  if (!day) {
    const plain = Temporal.PlainDate.from(date);
    const midnight = minutes(plain.toZonedDateTime(zone));
    day = { midnight, length: minutes(plain.add({ days: 1 }).toZonedDateTime(zone)) - midnight };
    if (known.size > 20_000) known.clear();
    known.set(key, day);
  }
  return day;
}

const minutes = (zoned: Temporal.ZonedDateTime): number => Math.round(zoned.epochMilliseconds / 60_000);
