import ICAL from "ical.js";
import { utc } from "../messages/calendar-file";
import { addDays, type LocalDate } from "../time/dates";

/** Minutes of the day. */
type Window = readonly [from: number, to: number];

/** Dates by one rule, as a calendar program repeats them. */
export interface Series {
  /** Tells it from all other events; the same each time it is written. */
  uid: string;
  /** RFC 5545, without the end that `until` says. */
  rule: string;
  start: LocalDate;
  window: Window;
  /** The last day up to which it counts, where it was changed or ended since. */
  until: LocalDate | null;
  /** Dates of the rule on which nobody comes. */
  leftOut: readonly LocalDate[];
  /** Dates that take place on another day or in another window. */
  moved: readonly { date: LocalDate; day: LocalDate; window: Window }[];
}

export interface CalendarOfRepeat {
  title: string;
  place: string;
  words: string;
  /** Nothing is promised before somebody has said yes. */
  tentative: boolean;
  /** Epoch minute at which this was written. */
  now: number;
  series: readonly Series[];
}

/**
 * A calendar file (iCalendar, RFC 5545) of a repeat: RRULE with EXDATE for what does not take place, and RECURRENCE-ID
 * for what does elsewhere. Times are those of the clock on the wall at the site (floating), so that nine o'clock stays
 * nine o'clock on both sides of daylight saving.
 */
export function repeatCalendar(repeat: CalendarOfRepeat, product: string): string {
  const calendar = new ICAL.Component("vcalendar");
  calendar.updatePropertyWithValue("version", "2.0");
  calendar.updatePropertyWithValue("prodid", `-//${product}//EN`);
  for (const series of repeat.series) {
    const event = eventAt(repeat, series.uid, series.start, series.window);
    event.updatePropertyWithValue("rrule", ICAL.Recur.fromString(ruleUntil(series)));
    for (const date of series.leftOut) event.addPropertyWithValue("exdate", wallTime(date, series.window[0]));
    calendar.addSubcomponent(event);
    for (const { date, day, window } of series.moved) {
      const one = eventAt(repeat, series.uid, day, window);
      one.updatePropertyWithValue("recurrence-id", wallTime(date, series.window[0]));
      calendar.addSubcomponent(one);
    }
  }
  return `${calendar.toString()}\r\n`;
}

function eventAt(
  { title, place, words, tentative, now }: CalendarOfRepeat,
  uid: string,
  day: LocalDate,
  [from, to]: Window,
): InstanceType<typeof ICAL.Component> {
  const event = new ICAL.Component("vevent");
  const values = {
    uid,
    dtstamp: utc(now),
    dtstart: wallTime(day, from),
    dtend: wallTime(day, Math.max(to, from + 1)),
    summary: title,
    location: place,
    description: words,
    status: tentative ? "TENTATIVE" : "CONFIRMED",
  };
  for (const [name, value] of Object.entries(values)) event.updatePropertyWithValue(name, value);
  return event;
}

/** A rule ends by its count or on a day: cut off on a day, it ends then. */
function ruleUntil({ rule, until, window }: Series): string {
  const parts = rule.split(";").filter((part) => !/^UNTIL=/.test(part) && !(until && /^COUNT=/.test(part)));
  const ownUntil = /UNTIL=(\d{8})/.exec(rule)?.[1];
  const day = [until?.replaceAll("-", ""), ownUntil].filter((one) => one !== undefined).sort()[0];
  const time = `${String(Math.floor(window[0] / 60)).padStart(2, "0")}${String(window[0] % 60).padStart(2, "0")}00`;
  return day ? [...parts, `UNTIL=${day}T${time}`].join(";") : parts.join(";");
}

function wallTime(date: LocalDate, minute: number): InstanceType<typeof ICAL.Time> {
  const day = minute >= 1440 ? addDays(date, 1) : date;
  const [year, month, dayOfMonth] = day.split("-").map(Number) as [number, number, number];
  const [hour, min] = [Math.floor((minute % 1440) / 60), minute % 60];
  return new ICAL.Time(
    { year, month, day: dayOfMonth, hour, minute: min, second: 0, isDate: false },
    ICAL.Timezone.localTimezone,
  );
}
