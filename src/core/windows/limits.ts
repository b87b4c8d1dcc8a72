import { addDays, type LocalDate, weekdayOf } from "../time/dates";
import type { PromiseWindow } from "./promise-window";
import type { ReachedLimit } from "./reasons";

/** At most so many bookings per window, day or week: of the business, a zone, a service or a technician. */
export interface Limit {
  of: ReachedLimit["of"];
  per: ReachedLimit["per"];
  most: number;
  taken: Taken;
}

/** How many bookings there are in the window itself, on its day, or in its week. */
export type Taken = (window: PromiseWindow, per: Limit["per"]) => number;

/** The beginning of a booking's promised window, epoch minute, and its date. */
export interface Booking {
  date: LocalDate;
  from: number;
}

/** Whether a window would go over a limit: how, or null. `earlier` days of the same work are taken in their week too. */
export function reached(
  { of, per, most, taken }: Limit,
  window: PromiseWindow,
  earlier: readonly PromiseWindow[] = [],
): ReachedLimit | null {
  const sameWeek = (day: PromiseWindow) => mondayOf(day.date) === mondayOf(window.date);
  const now = taken(window, per) + (per === "week" ? earlier.filter(sameWeek).length : 0);
  return now < most ? null : { of, per, most, taken: now };
}

/** The Monday of a date's week. */
export const mondayOf = (date: LocalDate): LocalDate => addDays(date, -weekdayOf(date));

/** Counts bookings. A booking is in a window where its own window begins in it: the end belongs to the next one. */
export function takenOf(bookings: readonly Booking[]): Taken {
  const starts = new Map<LocalDate, number[]>();
  const weeks = new Map<LocalDate, number>();
  for (const { date, from } of bookings) {
    const day = starts.get(date);
    if (day) day.push(from);
    else starts.set(date, [from]);
  }
  const inWeek = (monday: LocalDate) => {
    let count = weeks.get(monday);
    if (count === undefined)
      weeks.set(
        monday,
        (count = Array.from({ length: 7 }, (_, i) => starts.get(addDays(monday, i))?.length ?? 0).reduce(
          (a, b) => a + b,
          0,
        )),
      );
    return count;
  };
  return (window, per) => {
    if (per === "week") return inWeek(mondayOf(window.date));
    const day = starts.get(window.date) ?? [];
    if (per === "day") return day.length;
    return day.filter((from) => from >= window.from && (from < window.to || from === window.from)).length;
  };
}
