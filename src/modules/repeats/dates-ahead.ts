import type { ComingDate } from "@/core/repeats/coming";
import { addDays, type LocalDate } from "@/core/time/dates";
import { localOf, minuteOn } from "@/core/time/local";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import { datesOfRepeat, horizonOf } from "./dates";
import { needsOf } from "./work";
import type { RepeatRow } from "./terms";

type MinutesOfDay = readonly [from: number, to: number];

/** A visit of a repeat as it stands, with the date of the rule that it is for. */
export interface VisitOfRepeat {
  id: number;
  state: VisitState;
  repeatDate: LocalDate;
  day: LocalDate;
  window: MinutesOfDay;
  technician: string | null;
}

/** A date of a repeat and what becomes of it; `day` is where it stands, null where nobody comes. */
export interface DateAhead {
  date: LocalDate;
  becomes: ComingDate["state"];
  day: LocalDate | null;
  window: MinutesOfDay;
  visitId: number | null;
  state: VisitState | null;
  technician: string | null;
}

/** All its visits, in the order of their days. */
export const visitsOfRepeat = ({ sql, business }: ViewContext, repeatId: number): VisitOfRepeat[] =>
  sql<{
    id: number;
    state: VisitState;
    repeat_date: LocalDate;
    date: LocalDate;
    window_from: number;
    window_to: number;
    technician: string | null;
  }>(
    `SELECT v.id, v.state, v.repeat_date, v.date, v.window_from, v.window_to,
        (SELECT group_concat(t.name, ', ') FROM placements p JOIN technicians t ON t.id = p.technician_id
          WHERE p.visit_id = v.id) AS technician
      FROM visits v WHERE v.repeat_id = ? ORDER BY v.date`,
  )
    .all(repeatId)
    .map(({ repeat_date, date, window_from, window_to, ...visit }) => ({
      ...visit,
      repeatDate: repeat_date,
      day: date,
      window: [localOf(window_from, business.time_zone).minute, minuteOn(date, window_to, business.time_zone)],
    }));

/** Each date from tomorrow to the horizon: by the rule with all that was agreed, and as its visit stands. */
export function datesAhead(
  context: ViewContext,
  repeat: RepeatRow,
  visits: readonly VisitOfRepeat[] = visitsOfRepeat(context, repeat.id),
): DateAhead[] {
  const { today } = context;
  const byDate = new Map(visits.map((visit) => [visit.repeatDate, visit]));
  const { comes } = needsOf(context, repeat);
  const coming =
    repeat.state === "active" ? datesOfRepeat(context, repeat, comes, addDays(today, 1), horizonOf(context)) : [];
  const dates = new Set(coming.map(({ date }) => date));
  const byRule = coming.map((date): DateAhead => {
    const visit = byDate.get(date.date);
    return {
      date: date.date,
      becomes: date.state,
      // A visit stands where it stands, whatever the rule says of its date by now.
      day: visit && visit.state !== "cancelled" ? visit.day : "day" in date ? date.day : null,
      window: visit?.window ?? date.window,
      visitId: visit?.id ?? null,
      state: visit?.state ?? null,
      technician: visit?.technician ?? null,
    };
  });
  // What was promised by earlier terms, or moved by hand, stands beside the dates of the rule.
  const beside = visits
    .filter(
      ({ repeatDate, day, state }) => day > today && visitStates.allows("cancel", state) && !dates.has(repeatDate),
    )
    .map(({ id, repeatDate, ...visit }): DateAhead => ({
      ...visit,
      date: repeatDate,
      becomes: "planned",
      visitId: id,
    }));
  return [...byRule, ...beside].sort((a, b) => a.date.localeCompare(b.date));
}
