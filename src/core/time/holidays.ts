import ICAL from "ical.js";
import { addDays, daysBetween, type LocalDate } from "./dates";
import type { SpecialDay } from "./opening";

/**
 * Whole days of a calendar file (iCalendar, RFC 5545), as days on which a business is closed. What
 * has hours is left out: it is an appointment, not a holiday. What comes by a rule, such as the last Monday of August, is written
 * down for ten years. Throws a RangeError with a sentence
 * where the file cannot be read.
 */
export function readHolidays(text: string): SpecialDay[] {
  let calendar: InstanceType<typeof ICAL.Component>;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  } catch {
    throw new RangeError("This is not a calendar file. Choose one that ends in .ics.");
  }
  const days = calendar.getAllSubcomponents("vevent").flatMap((component): SpecialDay[] => {
    const event = new ICAL.Event(component);
    if (!event.startDate?.isDate || !event.summary?.trim()) return [];
    const first = dateOf(event.startDate);
    // The end of a whole day is the day after it; left out, it is one day.
    const last = event.endDate?.isDate && dateOf(event.endDate) > first ? addDays(dateOf(event.endDate), -1) : first;
    const name = event.summary.trim().slice(0, 80);
    if (!event.isRecurring()) return [{ name, first, last, yearly: false, spans: [] }];
    if (isOnTheSameDay(component)) return [{ name, first, last, yearly: true, spans: [] }];
    return datesOf(event).map((date) => ({
      name,
      first: date,
      last: addDays(date, daysBetween(first, last)),
      yearly: false,
      spans: [],
    }));
  });
  return days.sort((a, b) => (a.first < b.first ? -1 : 1));
}

/** Whether it comes every year on the day on which it begins, for ever and without exceptions: such a day is kept as one. */
function isOnTheSameDay(event: InstanceType<typeof ICAL.Component>): boolean {
  const rules = event.getAllProperties("rrule");
  const rule = rules[0]?.getFirstValue();
  return (
    rules.length === 1 &&
    rule instanceof ICAL.Recur &&
    /^FREQ=YEARLY(;INTERVAL=1)?$/.test(rule.toString()) &&
    !["rdate", "exdate"].some((name) => event.hasProperty(name))
  );
}

/** How far such days as "the last Monday of August" are written down, each for itself. */
const [yearsAhead, mostDays] = [10, 120];

function datesOf(event: InstanceType<typeof ICAL.Event>): LocalDate[] {
  const dates: LocalDate[] = [];
  const iterator = event.iterator();
  for (let next = iterator.next(); next && dates.length < mostDays; next = iterator.next()) {
    if (next.year > event.startDate.year + yearsAhead) break;
    dates.push(dateOf(next));
  }
  return dates;
}

const dateOf = (time: InstanceType<typeof ICAL.Time>): LocalDate =>
  [String(time.year).padStart(4, "0"), String(time.month).padStart(2, "0"), String(time.day).padStart(2, "0")].join(
    "-",
  );
