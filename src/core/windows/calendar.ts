import { type LocalDate, servesWeekday, weekdayOf } from "../time/dates";
import { localOf } from "../time/local";
import { isOpen, type Opening, openOn } from "../time/opening";
import type { PromiseWindow } from "./promise-window";
import type { RuleReason } from "./reasons";

/** What the calendar says of a visit: opening hours and special days, when its zone is served, and the service's own hours. Minutes of the day. */
export interface Calendar {
  timeZone: string;
  opening: Opening;
  /** Null outside all zones; "anywhere" where nobody goes to the customer, and zones say nothing. */
  zone: { weekdays: number; from: number; to: number } | "anywhere" | null;
  /** Where the address is outside all zones: the nearest one. */
  nearest?: { name: string; km: number } | null;
  /** By service: the hours at which it is done; none where that is at all hours. */
  serviceHours: readonly (readonly { weekday: number; opens: number; closes: number }[])[];
}

/** What the calendar has against a window, all of it. */
export const calendarRefusal =
  (calendar: Calendar) =>
  (window: PromiseWindow): RuleReason[] => {
    const { timeZone, opening, zone, nearest, serviceHours } = calendar;
    const reasons: RuleReason[] = [];
    const opens = localOf(window.from, timeZone).minute;
    const closes = opens + window.to - window.from;
    const weekday = weekdayOf(window.date);
    const { spans, name } = openOn(opening, window.date);
    if (spans.length === 0) reasons.push({ code: "closed", date: window.date, ...(name && { name }) });
    else if (!spans.some(([from, to]) => from <= opens && closes <= to))
      reasons.push({ code: "outside-opening-hours", ...(name && { name }) });
    if (!zone) reasons.push({ code: "outside-zones", ...(nearest && { nearest: nearest.name, km: nearest.km }) });
    else if (zone === "anywhere") {
      // Where the customer lives is of no account.
    } else if (!servesWeekday(zone.weekdays, window.date)) reasons.push({ code: "zone-not-served", weekday });
    else if (opens < zone.from || closes > zone.to) reasons.push({ code: "outside-zone-hours" });
    if (
      serviceHours.some(
        (hours) => hours.length && !hours.some((h) => h.weekday === weekday && h.opens <= opens && closes <= h.closes),
      )
    )
      reasons.push({ code: "outside-service-hours" });
    return reasons;
  };

/** A day on which work that goes on from the day before is done. */
export const isWorkingDay = ({ opening, zone }: Calendar, date: LocalDate): boolean =>
  isOpen(opening, date) && (!zone || zone === "anywhere" || servesWeekday(zone.weekdays, date));
