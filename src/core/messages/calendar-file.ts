import ICAL from "ical.js";
import { Temporal } from "temporal-polyfill";

/** A promised window for somebody's calendar. Epoch minutes. */
export interface CalendarEntry {
  uid: string;
  title: string;
  from: number;
  to: number;
  place: string;
  words: string;
  /** Grows when the window moves: calendars then move it too. */
  sequence: number;
  cancelled: boolean;
  /** When this was written. */
  now: number;
}

/** A calendar file (iCalendar, RFC 5545) with one event for each entry, times in UTC. */
export function calendarFile(entries: readonly CalendarEntry[], product: string): string {
  const calendar = new ICAL.Component("vcalendar");
  calendar.updatePropertyWithValue("version", "2.0");
  calendar.updatePropertyWithValue("prodid", `-//${product}//EN`);
  for (const entry of entries) {
    const event = new ICAL.Component("vevent");
    const values = {
      uid: entry.uid,
      dtstamp: utc(entry.now),
      dtstart: utc(entry.from),
      dtend: utc(Math.max(entry.to, entry.from + 1)),
      summary: entry.title,
      location: entry.place,
      description: entry.words,
      sequence: entry.sequence,
      status: entry.cancelled ? "CANCELLED" : "CONFIRMED",
    };
    for (const [name, value] of Object.entries(values)) event.updatePropertyWithValue(name, value);
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}

/** An epoch minute as calendar programs write it. */
export const utc = (minute: number): InstanceType<typeof ICAL.Time> => {
  const {
    year,
    month,
    day,
    hour,
    minute: min,
  } = Temporal.Instant.fromEpochMilliseconds(minute * 60_000).toZonedDateTimeISO("UTC");
  return new ICAL.Time({ year, month, day, hour, minute: min, second: 0, isDate: false }, ICAL.Timezone.utcTimezone);
};
