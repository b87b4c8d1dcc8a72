import type { LocalDate } from "../time/dates";

/** A window somebody could come in on a day: minutes of the day, and who could, each with what it would cost. */
export interface PlaceOnDay {
  from: number;
  to: number;
  technicians: readonly { id: string; extraDriving: number; load: number }[];
}

/** A day of the week, a window and a technician for all dates of a new repeat, with what they come to. */
export interface PlaceOfRepeat {
  /** So many days after the dates of the rule as it was asked. */
  shift: number;
  from: number;
  to: number;
  technicianId: string;
  /** Of so many dates, that many have room there. */
  kept: number;
  of: number;
  /** Minutes of driving it adds, on average of the dates that have room. */
  driving: number;
  /** Minutes of work those days hold already, on average. */
  load: number;
}

/** A date without room weighs as much as an hour of driving; work in the day as for every flexible visit. */
const withoutRoom = 60;
const workPerDriving = 12;

const costOf = ({ kept, of, driving, load }: PlaceOfRepeat): number =>
  driving + load / workPerDriving + ((of - kept) / of) * withoutRoom;

/**
 * The best places for a repeat over its next dates: which day (as days after those of the rule), which window and which
 * technician add least driving, spare full days and leave no date without room. One for each day and window, best first.
 * `placesOn(date, shift)` are the windows on the day so many days after a date.
 */
export function bestPlaces(
  dates: readonly LocalDate[],
  shifts: readonly number[],
  placesOn: (date: LocalDate, shift: number) => readonly PlaceOnDay[],
  most = 3,
): PlaceOfRepeat[] {
  const sums = new Map<string, PlaceOfRepeat>();
  for (const shift of shifts)
    for (const date of dates)
      for (const { from, to, technicians } of placesOn(date, shift))
        for (const { id, extraDriving, load } of technicians) {
          const key = `${shift} ${from} ${to} ${id}`;
          const sum = sums.get(key) ?? {
            shift,
            from,
            to,
            technicianId: id,
            kept: 0,
            of: dates.length,
            driving: 0,
            load: 0,
          };
          sums.set(key, { ...sum, kept: sum.kept + 1, driving: sum.driving + extraDriving, load: sum.load + load });
        }
  const places = [...sums.values()]
    .map((sum) => ({ ...sum, driving: sum.driving / sum.kept, load: sum.load / sum.kept }))
    .sort((a, b) => costOf(a) - costOf(b) || a.shift - b.shift || a.from - b.from);
  const seen = new Set<string>();
  return places
    .filter(({ shift, from, to }) => {
      const key = `${shift} ${from} ${to}`;
      return !seen.has(key) && seen.add(key);
    })
    .slice(0, most);
}
