import ICAL from "ical.js";
import { addDays, type LocalDate } from "./dates";
import type { SpecialDay } from "./opening";

/**
 * Whole days of a calendar file (iCalendar, RFC 5545), as days on which a business is closed. What
 * has hours is left out: it is an appointment, not a holiday. Throws a RangeError with a sentence
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
    const rule = component.getFirstPropertyValue("rrule");
    return [
      {
        name: event.summary.trim().slice(0, 80),
        first,
        last,
        yearly: rule instanceof ICAL.Recur && rule.freq === "YEARLY",
        spans: [],
      },
    ];
  });
  return days.sort((a, b) => (a.first < b.first ? -1 : 1));
}

const dateOf = (time: InstanceType<typeof ICAL.Time>): LocalDate =>
  [String(time.year).padStart(4, "0"), String(time.month).padStart(2, "0"), String(time.day).padStart(2, "0")].join(
    "-",
  );
