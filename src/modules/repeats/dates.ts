import { type ComingDate, comingDates, type OnClosed } from "@/core/repeats/coming";
import { readRule } from "@/core/repeats/recurrence";
import { addDays, addMonths, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { allTerms, farthest, type RepeatRow } from "./terms";

/** What is agreed for a date: its window (minutes of the day), who comes if they can, whether day or window were agreed for it alone, and where it moves otherwise. */
export interface WishOfDate {
  window: readonly [from: number, to: number];
  technicianId: number | null;
  isFixed: boolean;
  onClosed: OnClosed;
}

/** A date with the day on which it is to stand. */
export type DatedForecast = WishOfDate & { date: LocalDate; day: LocalDate };

/** A window of a day, minutes of the day, as it is kept: epoch minutes. */
export const windowOn = (
  { business }: ViewContext,
  day: LocalDate,
  [from, to]: readonly [number, number],
): readonly [number, number] => [epochMinute(day, from, business.time_zone), epochMinute(day, to, business.time_zone)];

/** A date of a repeat, and what becomes of it. */
export type DateOfRepeat = ComingDate & WishOfDate;

/** The dates of a repeat from `from` to `to` and what becomes of each, by all that was agreed; `comes`: whether somebody comes on a day at all. */
export function datesOfRepeat(
  context: ViewContext,
  repeat: RepeatRow,
  comes: (day: LocalDate) => boolean,
  from: LocalDate,
  to: LocalDate,
): DateOfRepeat[] {
  const { sql } = context;
  const exceptions = sql<Rows["repeat_exceptions"]>("SELECT * FROM repeat_exceptions WHERE repeat_id = ?")
    .all(repeat.id)
    .map(({ date, skip, to_date, from_minute, to_minute, technician_id }) => ({
      date,
      skip: skip === 1,
      ...(to_date !== null && { to: to_date }),
      ...(from_minute !== null && { window: [from_minute, to_minute!] as const }),
      technicianId: technician_id,
    }));
  const fixed = new Set(exceptions.filter(({ to, window }) => to ?? window).map(({ date }) => date));
  const technicians = new Map(exceptions.map(({ date, technicianId }) => [date, technicianId]));
  const pauses = sql<Rows["repeat_pauses"]>("SELECT * FROM repeat_pauses WHERE repeat_id = ?")
    .all(repeat.id)
    .map(({ first_date, last_date }) => [first_date, last_date] as const);
  const terms = allTerms(context, repeat);
  return terms.flatMap(({ rule, start_date: start, until_date: until, on_closed: onClosed, ...term }, i) => {
    // Counted from a visit, its dates begin after it.
    const after = repeat.counted === "done" && until === farthest ? latest(from, addDays(start, 1)) : from;
    const opens = i === 0 ? after : latest(after, addDays(terms[i - 1]!.until_date, 1));
    const ends = earliest(to, until);
    const coming = { rule: readRule(rule), start, exceptions, pauses, comes, onClosed };
    return opens > ends
      ? []
      : comingDates(coming, opens, ends).map((date) => ({
          ...date,
          window: ("window" in date && date.window) || ([term.from_minute, term.to_minute] as const),
          technicianId: technicians.get(date.date) ?? term.technician_id,
          onClosed,
          isFixed: fixed.has(date.date),
        }));
  });
}

const latest = (a: LocalDate, b: LocalDate): LocalDate => (a > b ? a : b);
const earliest = (a: LocalDate, b: LocalDate): LocalDate => (a < b ? a : b);

/** The last day up to which a repeat is laid out. */
export const horizonOf = ({ today, business }: ViewContext): LocalDate => addMonths(today, business.repeat_months);
