import { Refusal } from "@/core/problems";
import { withCalls } from "@/core/routes/calls";
import { bestInsertion, prepareDay, type StopOrCall } from "@/core/routes/insertion";
import { timeDay, type Travel } from "@/core/routes/timing";
import type { LocalDate } from "@/core/time/dates";
import { clockIn } from "@/core/time/local-words";
import { visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { asForecastsKeep, type DayPlan, loadPlanning, type PlannedStop, type Planning, spanOf } from "./planning";
import { readVisit, type VisitRow } from "./visits";

/**
 * Places a visit on technicians, at the position with the least extra driving in each one's day,
 * and rewrites those days. Where only a forecast stands in the way and forecasts give way here, it
 * is placed elsewhere in that day or waits unplaced. Refuses with the reason where a day cannot be
 * kept. A crew of several must have its common start in `meet_at`.
 */
export function placeVisit(context: OperationContext, visitId: number, technicianIds: readonly number[]): void {
  takeOut(context, visitId);
  const visit = readVisit(context, visitId);
  if (visit.shared_id !== null && joins(context, visit)) return;
  for (const technicianId of technicianIds) {
    const planning = loadPlanning(context, [visit.date]);
    const stop: ToPutIn = {
      visitId,
      along: [],
      errandId: null,
      forecast: visit.state === "forecast",
      place: visit.work_place === "afar" ? null : planning.place(visit, visit.zone_id),
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

/** Puts a visit where those are with whom it shares its time; false where nobody is placed yet. */
const joins = ({ sql }: OperationContext, { id, shared_id, window_from }: VisitRow): boolean =>
  sql(
    `INSERT INTO placements (visit_id, technician_id, date, drive_from, driving, arrives, leaves, settled)
      SELECT ?, p.technician_id, p.date, p.drive_from, p.driving, p.arrives, p.leaves, 0
      FROM placements p
      WHERE p.settled = 0 AND p.visit_id = (SELECT v.id FROM visits v
        WHERE v.shared_id = ? AND v.window_from = ? AND v.state IN ${visitStates.sql("plan")}
          AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) LIMIT 1)`,
  ).run(id, shared_id, window_from).changes > 0;

/** Takes a visit off everybody's day. The days stay as they are, with a gap. */
export function takeOut({ sql }: OperationContext, visitId: number): void {
  sql("DELETE FROM placements WHERE visit_id = ?").run(visitId);
}

/** Takes all dates of a repeat that are not promised off everybody's day. */
export function takeOutForecasts({ sql }: OperationContext, repeatId: number): void {
  sql(
    "DELETE FROM placements WHERE visit_id IN (SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast')",
  ).run(repeatId);
}

/** A visit or an errand without its place in the order. */
export type ToPutIn = Omit<PlannedStop, "place"> & StopOrCall;

/** The day with the stop at its best position, or the call at its first minute; null where it does not fit. */
export function withStop(day: DayPlan, stop: ToPutIn, travel: Travel): DayPlan | null {
  const prepared = prepareDay(day, travel);
  if (!prepared) return null;
  const { place } = stop;
  const best = bestInsertion(prepared, stop, travel);
  if (!best) return null;
  if (place !== null)
    return {
      ...day,
      stops: [...day.stops.slice(0, best.position), { ...stop, place }, ...day.stops.slice(best.position)],
    };
  const call = { ...stop, at: best.arrive };
  return { ...day, spans: withCalls(day.spans, [spanOf(call)]), calls: [...day.calls, call] };
}

/** Puts a promise where forecasts are that give way here; each of them goes back in where there is still room, or waits unplaced. */
function displaceForecasts(
  context: OperationContext,
  technicianId: number,
  date: LocalDate,
  stop: ToPutIn,
  planning: Planning,
): boolean {
  const { day, hours } = planning.dayOf(technicianId, date);
  const kept = asForecastsKeep(day, context.business.forecast_room, hours);
  let fitted = withStop(kept, stop, planning.travel);
  if (!fitted) return false;
  for (const forecast of toPutIn(day).filter(({ visitId }) => !toPutIn(kept).some((s) => s.visitId === visitId))) {
    const back = withStop(fitted, forecast, planning.travel);
    if (back) fitted = back;
    else for (const id of visitsAt(forecast)) takeOut(context, id);
  }
  writeDay(context, technicianId, date, fitted, planning);
  return true;
}

/** Everything of a day that is somebody's visit or an errand, to be put in again. */
export const toPutIn = ({ stops, calls }: DayPlan): ToPutIn[] => [
  ...stops,
  ...calls.map((call) => ({ ...call, place: null })),
];

/** Writes a technician's day as timed by core: whole, so that the rule against overlaps sees it as it will stand. */
export function writeDay(
  { sql, business }: OperationContext,
  technicianId: number,
  date: LocalDate,
  day: DayPlan,
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
  const visits = [
    ...day.stops.map((stop, i) => ({ of: stop, timed: timing.stops[i]! })),
    ...day.calls.map((call) => {
      const [arrive, leave] = spanOf(call);
      return { of: call, timed: { driveFrom: arrive, driving: 0, arrive, leave } };
    }),
  ].flatMap(({ of, timed }) => visitsAt(of).map((id) => ({ id, timed })));
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

/** The visits of a stop: several where customers share a time, none where it is an errand. */
export const visitsAt = ({ visitId, along }: Pick<PlannedStop, "visitId" | "along">): number[] =>
  visitId === null ? [] : [visitId, ...along];

const nameOf = (planning: Planning, technicianId: number): string =>
  planning.technicians.find((t) => t.id === technicianId)?.name ?? "This technician";

/** Writes where a visit stands in the days of those who are sent: as it is, whatever was planned there. */
export function settlePlacement(
  { sql }: OperationContext,
  visitId: number,
  when: (placed: { driving: number }) => { arrives: number; leaves: number },
): void {
  const placed = sql<{ technician_id: number; date: string; drive_from: number; driving: number }>(
    "SELECT technician_id, date, drive_from, driving FROM placements WHERE visit_id = ?",
  ).all(visitId);
  sql("DELETE FROM placements WHERE visit_id = ?").run(visitId);
  for (const p of placed) {
    const { arrives, leaves } = when(p);
    insertRow(sql, "placements", {
      visit_id: visitId,
      technician_id: p.technician_id,
      date: p.date,
      drive_from: Math.min(p.drive_from, arrives),
      driving: p.driving,
      arrives,
      leaves: Math.max(leaves, arrives + 1),
      settled: 1,
    });
  }
}
