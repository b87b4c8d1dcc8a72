import { Refusal } from "@/core/problems";
import { bestInsertion, prepareDay } from "@/core/routes/insertion";
import { type Day, timeDay, type Travel } from "@/core/routes/timing";
import type { LocalDate } from "@/core/time/dates";
import { clockIn } from "@/core/time/local-words";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { loadPlanning, type PlannedStop, type Planning } from "./planning";
import { readVisit } from "./visits";

/**
 * Places a visit on technicians, at the position with the least extra driving in each one's day,
 * and rewrites those days. Where only a forecast stands in the way and forecasts give way here, it
 * is placed elsewhere in that day or waits unplaced. Refuses with the reason where a day cannot be
 * kept. A crew of several must have its common start in `meet_at`.
 */
export function placeVisit(context: OperationContext, visitId: number, technicianIds: readonly number[]): void {
  takeOut(context, visitId);
  const visit = readVisit(context, visitId);
  for (const technicianId of technicianIds) {
    const planning = loadPlanning(context, [visit.date]);
    const stop: PlannedStop = {
      visitId,
      errandId: null,
      forecast: visit.state === "forecast",
      place: planning.place(visit, visit.zone_id),
      earliest: visit.meet_at ?? visit.window_from,
      latest: visit.meet_at ?? visit.window_to,
      before: visit.before_minutes,
      minutes: visit.minutes,
      after: visit.after_minutes,
    };
    const { day, absence } = planning.dayOf(technicianId, visit.date);
    const whole = absence ? null : withStop(day, stop, planning.travel);
    if (whole) writeDay(context, technicianId, visit.date, whole, planning);
    else if (absence || stop.forecast || !displaceForecasts(context, technicianId, visit.date, stop, planning))
      throw new Refusal("cannot-be-kept", {
        sentence: `${nameOf(planning, technicianId)} cannot keep this: ${absence ? "off that day" : "no room between what is promised already"}.`,
      });
  }
}

/** Takes a visit off everybody's day. The days stay as they are, with a gap. */
export function takeOut({ sql }: OperationContext, visitId: number): void {
  sql("DELETE FROM placements WHERE visit_id = ?").run(visitId);
}

/** The day with the stop at its best position, or null where it does not fit. */
export function withStop(day: Day<PlannedStop>, stop: PlannedStop, travel: Travel): Day<PlannedStop> | null {
  const prepared = prepareDay(day, travel);
  const best = prepared && bestInsertion(prepared, stop, travel);
  return best && { ...day, stops: [...day.stops.slice(0, best.position), stop, ...day.stops.slice(best.position)] };
}

/** Puts a promise where forecasts are that give way here; each of them goes back in where there is still room, or waits unplaced. */
function displaceForecasts(
  context: OperationContext,
  technicianId: number,
  date: LocalDate,
  stop: PlannedStop,
  planning: Planning,
): boolean {
  const prepared = planning.prepared(technicianId, date, context.business.forecast_room);
  const { day } = planning.dayOf(technicianId, date);
  if (!prepared.works) return false;
  const kept = new Set(prepared.day.stops.map((s) => (s as PlannedStop).visitId));
  const yielding = day.stops.filter((s) => s.visitId !== null && !kept.has(s.visitId));
  let fitted = withStop({ ...day, stops: day.stops.filter((s) => !yielding.includes(s)) }, stop, planning.travel);
  if (!fitted) return false;
  for (const forecast of yielding) {
    const back = withStop(fitted, forecast, planning.travel);
    if (back) fitted = back;
    else takeOut(context, forecast.visitId!);
  }
  writeDay(context, technicianId, date, fitted, planning);
  return true;
}

/** Writes a technician's day as timed by core: whole, so that the rule against overlaps sees it as it will stand. */
export function writeDay(
  { sql, business }: OperationContext,
  technicianId: number,
  date: LocalDate,
  day: Day<PlannedStop>,
  planning: Planning,
): void {
  const timing = timeDay(day, planning.travel);
  if (!timing.ok) {
    const stop = day.stops[timing.at];
    const where = stop ? `the visit promised until ${clockIn(stop.latest, business.time_zone)}` : "the way home";
    throw new Refusal("cannot-be-kept", {
      sentence: `${nameOf(planning, technicianId)} cannot keep ${where}: ${timing.shortBy} min short.`,
    });
  }
  const visits = day.stops.flatMap((stop, i) =>
    stop.visitId === null ? [] : [{ id: stop.visitId, timed: timing.stops[i]! }],
  );
  for (const { id } of visits)
    sql("DELETE FROM placements WHERE visit_id = ? AND technician_id = ?").run(id, technicianId);
  for (const {
    id,
    timed: { driveFrom, driving, arrive, leave },
  } of visits)
    insertRow(sql, "placements", {
      visit_id: id,
      technician_id: technicianId,
      date,
      drive_from: driveFrom,
      driving,
      arrives: arrive,
      leaves: leave,
      settled: 0,
    });
}

const nameOf = (planning: Planning, technicianId: number): string =>
  planning.technicians.find((t) => t.id === technicianId)?.name ?? "This technician";
