import { Temporal } from "temporal-polyfill";
import { addDays, dateOf, type LocalDate } from "./dates";

/**
 * Local dates and times of day to epoch minutes and back: the only place where time zones are
 * converted. Epoch minutes are integers in UTC; dates are `YYYY-MM-DD`; a minute of day counts
 * from local midnight as a wall clock shows it (540 is nine o'clock, also on a daylight-saving day).
 */

const DAY = 1440;

/** Epoch minute at which the clocks in `zone` show `minuteOfDay` on `date`. A time skipped by daylight saving moves forward by the gap; a repeated one is its first occurrence. A minute beyond 1440 is of the day that follows. */
export function epochMinute(date: LocalDate, minuteOfDay: number, zone: string): number {
  if (minuteOfDay > DAY) return epochMinute(addDays(date, 1), minuteOfDay - DAY, zone);
  const day = dayIn(date, zone);
  if (day.length === DAY) return day.midnight + minuteOfDay;
  if (minuteOfDay === DAY) return day.midnight + day.length;
  const time = { hour: Math.floor(minuteOfDay / 60), minute: minuteOfDay % 60 };
  return minutes(Temporal.PlainDate.from(date).toPlainDateTime(time).toZonedDateTime(zone));
}

/** Local date and minute of day of an epoch minute. */
export function localOf(epoch: number, zone: string): { date: LocalDate; minute: number } {
  const utcDay = Math.floor(epoch / DAY);
  // No zone is further from UTC than a day.
  for (const number of [utcDay, utcDay + 1, utcDay - 1]) {
    const date = dateOf(number);
    const { midnight, length } = dayIn(date, zone);
    if (epoch >= midnight && epoch < midnight + length && length === DAY) return { date, minute: epoch - midnight };
  }
  const zoned = Temporal.Instant.fromEpochMilliseconds(epoch * 60_000).toZonedDateTimeISO(zone);
  return { date: zoned.toPlainDate().toString(), minute: zoned.hour * 60 + zoned.minute };
}

/** The minute that a moment has on a date: beyond 1440 in the night that follows. */
export function minuteOn(date: LocalDate, epoch: number, zone: string): number {
  const { date: on, minute } = localOf(epoch, zone);
  return on > date ? minute + DAY : minute;
}

export const localDate = (epoch: number, zone: string): LocalDate => localOf(epoch, zone).date;

/** Whether the IANA time zone is known. */
export const isTimeZone = (zone: string): boolean => {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
};

// Temporal is asked once for each day: a look at the windows of a month needs the same few dozen of them
// thousands of times.
const most = 20_000;
function remembered<K, V>(ask: (key: K) => V): (key: K) => V {
  const known = new Map<K, V>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined) {
      value = ask(key);
      if (known.size >= most) known.clear();
      known.set(key, value);
    }
    return value;
  };
}

const daysOf = remembered((zone: string) =>
  remembered((date: LocalDate): { midnight: number; length: number } => {
    const plain = Temporal.PlainDate.from(date);
    const midnight = minutes(plain.toZonedDateTime(zone));
    return { midnight, length: minutes(plain.add({ days: 1 }).toZonedDateTime(zone)) - midnight };
  }),
);
const dayIn = (date: LocalDate, zone: string) => daysOf(zone)(date);

const minutes = (zoned: Temporal.ZonedDateTime): number => Math.round(zoned.epochMilliseconds / 60_000);
