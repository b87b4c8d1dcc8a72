import ICAL from "ical.js";
import { utc } from "../messages/calendar-file";
import { addDays, type LocalDate } from "../time/dates";
import { epochMinute } from "../time/local";
import { tzlib_get_ical_block, tzlib_get_timezones } from "timezones-ical-library";

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
  /** By whose clock its hours are, as IANA names it. */
  timeZone: string;
  series: readonly Series[];
}

/**
 * A calendar file (iCalendar, RFC 5545) of a repeat: RRULE with EXDATE for what does not take place, and RECURRENCE-ID
 * for what does elsewhere. Times are those of the clock at the site, with its zone (VTIMEZONE): nine o'clock stays nine
 * o'clock on both sides of daylight saving, and a phone elsewhere shows the same hours as for the visits themselves.
 */
export function repeatCalendar(repeat: CalendarOfRepeat, product: string): string {
  const calendar = new ICAL.Component("vcalendar");
  calendar.updatePropertyWithValue("version", "2.0");
  calendar.updatePropertyWithValue("prodid", `-//${product}//EN`);
  const zone = zoneNamed(repeat.timeZone);
  if (zone) calendar.addSubcomponent(zone);
  const put = (event: Event, name: string, date: LocalDate, minute: number) => {
    const property = new ICAL.Property(name, event);
    property.setValue(wallTime(date, minute));
    if (zone) property.setParameter("tzid", repeat.timeZone);
    event.addProperty(property);
  };
  for (const series of repeat.series) {
    const [from] = series.window;
    const event = eventAt(series.uid, series.start, series.window);
    event.updatePropertyWithValue("rrule", ICAL.Recur.fromString(ruleUntil(series, repeat.timeZone)));
    for (const date of series.leftOut) put(event, "exdate", date, from);
    calendar.addSubcomponent(event);
    for (const { date, day, window } of series.moved) {
      const one = eventAt(series.uid, day, window);
      put(one, "recurrence-id", date, from);
      calendar.addSubcomponent(one);
    }
  }
  return `${calendar.toString()}\r\n`;

  function eventAt(uid: string, day: LocalDate, [begins, ends]: Window): Event {
    const { title, place, words, tentative, now } = repeat;
    const event = new ICAL.Component("vevent");
    const values = {
      uid,
      dtstamp: utc(now),
      summary: title,
      location: place,
      description: words,
      status: tentative ? "TENTATIVE" : "CONFIRMED",
    };
    for (const [name, value] of Object.entries(values)) event.updatePropertyWithValue(name, value);
    put(event, "dtstart", day, begins);
    put(event, "dtend", day, Math.max(ends, begins + 1));
    return event;
  }
}

type Event = InstanceType<typeof ICAL.Component>;

/** A zone as calendar programs read it; null where it is not known by that name: then hours are those of whichever clock shows them. */
function zoneNamed(timeZone: string): Event | null {
  if (!tzlib_get_timezones().includes(timeZone)) return null;
  const [text] = [tzlib_get_ical_block(timeZone)].flat();
  return text ? new ICAL.Component(ICAL.parse(text) as unknown[]) : null;
}

/** A rule ends by its count or on a day: cut off on a day, it ends then. */
function ruleUntil({ rule, until, window }: Series, timeZone: string): string {
  const parts = rule.split(";").filter((part) => !/^UNTIL=/.test(part) && !(until && /^COUNT=/.test(part)));
  const ownUntil = /UNTIL=(\d{8})/.exec(rule)?.[1];
  const day = [until?.replaceAll("-", ""), ownUntil].filter((one) => one !== undefined).sort()[0];
  if (!day) return parts.join(";");
  // In UTC, as the RFC has it where the beginning is in a zone.
  const last = epochMinute(`${day.slice(0, 4)}-${day.slice(4, 6)}-${day.slice(6)}`, window[0], timeZone);
  return [...parts, `UNTIL=${utc(last).toICALString()}`].join(";");
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
