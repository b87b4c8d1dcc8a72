import type { Point } from "@/core/place/points";
import { insertions, type PreparedDay } from "@/core/routes/insertion";
import { timeDay, type Day, type Stop } from "@/core/routes/timing";
import { addDays, datesFrom, localOf, servesWeekday, type LocalDate } from "@/core/time/local";
import { clockIn } from "@/core/time/words";
import { answerWindows, type PromiseWindow, type Reason, type WindowAnswer } from "@/core/windows/offers";
import { windowsOn, type PatternWindow } from "@/core/windows/patterns";
import { reasonWords } from "@/core/windows/words";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "./door";
import { loadPlanning, type PlannedStop, type Planning } from "./planning";

/** What has to be known of a visit to find room for it. */
export interface VisitToPlace {
  point: Point;
  zoneId: number | null;
  serviceId: number;
  minutes: number;
  before: number;
  after: number;
  crew: number;
}

export interface ZoneRules {
  id: number;
  name: string;
  weekdays: number;
  serve_from: number;
  serve_to: number;
  notice_minutes: number;
  surcharge_minor: number;
  smallest_order_minor: number;
}

/** Answers for all windows of the pattern on the dates; `without` is a visit to be left out of the plan. */
export function answersFor(context: ViewContext, visit: VisitToPlace, dates: readonly LocalDate[], without?: number): WindowAnswer[] {
  return answersWithin(context, loadPlanning(context, dates, without), visit, windowsOn(readPattern(context), dates, context.business.time_zone));
}

/** Answers for the windows given, on a plan that has been read. `strict: false` leaves out notice, horizon and zone days, as a person in the office may. */
export function answersWithin(context: ViewContext, planning: Planning, visit: VisitToPlace, windows: readonly PromiseWindow[], strict = true): WindowAnswer[] {
  const { sql, business } = context;
  const zone = visit.zoneId === null ? undefined : sql<ZoneRules>("SELECT * FROM zones WHERE id = ? AND active = 1").get(visit.zoneId);
  const closed = new Set(sql<{ date: string }>("SELECT date FROM closed_days").all().map((row) => row.date));
  const needs = sql<{ skill_id: number }>("SELECT skill_id FROM service_skills WHERE service_id = ? ORDER BY skill_id").all(visit.serviceId);

  const refusal = (window: PromiseWindow): Reason | null => {
    if (!strict) return null;
    if (!zone) return { code: "outside-zones" };
    if (closed.has(window.date)) return { code: "closed" };
    if (!servesWeekday(zone.weekdays, window.date)) return { code: "zone-not-served" };
    const opens = localOf(window.from, business.time_zone).minute;
    if (opens < zone.serve_from || opens + window.to - window.from > zone.serve_to) return { code: "outside-zone-hours" };
    return null;
  };
  return answerWindows({
    now: context.minute,
    today: context.today,
    rules: strict ? { notice: Math.max(business.notice_minutes, zone?.notice_minutes ?? 0), furthestDays: business.horizon_days } : { notice: -1e9, furthestDays: 1e9 },
    visit: { place: planning.place(visit.point), minutes: visit.minutes, before: visit.before, after: visit.after, crew: visit.crew, skills: needs.map((n) => ({ skill: String(n.skill_id) })) },
    windows,
    refusal,
    technicians: planning.candidates(),
    travel: planning.travel,
  });
}

export function readPattern({ sql }: ViewContext): PatternWindow[] {
  return sql<PatternWindow>("SELECT weekdays, from_minute AS \"from\", to_minute AS \"to\" FROM windows ORDER BY from_minute, to_minute").all();
}

/** The dates on which bookings are taken. */
export const bookableDates = ({ today, business }: ViewContext): LocalDate[] => datesFrom(today, addDays(today, business.horizon_days));

/** The nearest offers to a window, for somebody who has just lost it. */
export function nearestOffers(answers: readonly WindowAnswer[], from: number, count = 6): WindowAnswer[] {
  return answers.filter((a) => a.offered).sort((a, b) => Math.abs(a.from - from) - Math.abs(b.from - from) || a.from - b.from).slice(0, count);
}

/** Sentences for why a window is refused. */
export function reasonsInWords(context: ViewContext, reasons: readonly Reason[]): string[] {
  const technicians = new Map(context.sql<{ id: number; name: string }>("SELECT id, name FROM technicians").all().map((t) => [String(t.id), t.name]));
  const skills = new Map(context.sql<{ id: number; name: string }>("SELECT id, name FROM skills").all().map((s) => [String(s.id), s.name]));
  const names = { technician: (id: string) => technicians.get(id) ?? "Somebody", skill: (id: string) => skills.get(id) ?? "a skill" };
  return reasons.map((reason) => reasonWords(reason, names));
}

interface VisitRow {
  id: number;
  date: string;
  window_from: number;
  window_to: number;
  meet_at: number | null;
  minutes: number;
  before_minutes: number;
  after_minutes: number;
  lng: number;
  lat: number;
}

/**
 * Places a visit on technicians, at the position with the least extra driving in each one's day,
 * and rewrites those days. Refuses with the reason where a day cannot be kept. A crew of several
 * must have its common start in `meet_at`.
 */
export function placeVisit(context: OperationContext, visitId: number, technicianIds: readonly number[]): void {
  takeOut(context, visitId);
  const visit = context.sql<VisitRow>("SELECT * FROM visits WHERE id = ?").get(visitId)!;
  const planning = loadPlanning(context, [visit.date]);
  for (const technicianId of technicianIds) {
    const { day, absence } = planning.dayOf(technicianId, visit.date);
    const stop: PlannedStop = {
      visitId,
      place: planning.place(visit),
      earliest: visit.meet_at ?? visit.window_from,
      latest: visit.meet_at ?? visit.window_to,
      before: visit.before_minutes,
      minutes: visit.minutes,
      after: visit.after_minutes,
    };
    const prepared = planning.prepared(technicianId, visit.date);
    const position = prepared.works ? best(prepared.day, stop, planning) : null;
    if (absence || position === null) throw new Refusal("cannot-be-kept", { sentence: `${nameOf(planning, technicianId)} cannot keep this: ${absence ? "off that day" : "no room between what is promised already"}.` });
    const stops = [...day.stops.slice(0, position), stop, ...day.stops.slice(position)];
    writeDay(context, technicianId, visit.date, { ...day, stops }, planning);
  }
}

/** Takes a visit off everybody's day. The days stay as they are, with a gap. */
export function takeOut({ sql }: OperationContext, visitId: number): void {
  sql("DELETE FROM placements WHERE visit_id = ?").run(visitId);
}

function best(day: PreparedDay, stop: Stop, planning: Planning): number | null {
  const found = insertions(day, stop, planning.travel);
  return found.length ? found.reduce((a, b) => (b.extraDriving < a.extraDriving ? b : a)).position : null;
}

/** Writes a technician's day as timed by core: whole, so that the rule against overlaps sees it as it will stand. */
function writeDay({ sql, business }: OperationContext, technicianId: number, date: LocalDate, day: Day<PlannedStop>, planning: Planning): void {
  const timing = timeDay(day, planning.travel);
  if (!timing.ok) {
    const stop = day.stops[timing.at];
    const where = stop ? `the visit promised until ${clockIn(stop.latest, business.time_zone)}` : "the way home";
    throw new Refusal("cannot-be-kept", { sentence: `${nameOf(planning, technicianId)} cannot keep ${where}: ${timing.shortBy} min short.` });
  }
  for (const stop of day.stops) sql("DELETE FROM placements WHERE visit_id = ? AND technician_id = ?").run(stop.visitId, technicianId);
  for (const [i, stop] of day.stops.entries()) {
    const { driveFrom, driving, arrive, leave } = timing.stops[i]!;
    sql("INSERT INTO placements (visit_id, technician_id, date, drive_from, driving, arrives, leaves, settled) VALUES (?, ?, ?, ?, ?, ?, ?, 0)").run(stop.visitId, technicianId, date, driveFrom, driving, arrive, leave);
  }
}

const nameOf = (planning: Planning, technicianId: number): string => planning.technicians.find((t) => t.id === technicianId)?.name ?? "This technician";
