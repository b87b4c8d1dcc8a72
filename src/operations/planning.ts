import { groupBy } from "@/core/group";
import type { Point } from "@/core/place/points";
import { prepareDay, type PreparedDay } from "@/core/routes/insertion";
import { timeDay, work, type Day, type Stop, type Timing, type Travel } from "@/core/routes/timing";
import { epochMinute, weekdayOf, type LocalDate } from "@/core/time/local";
import { minutesIn, type Span } from "@/core/time/spans";
import type { CandidateTechnician, TechnicianDay } from "@/core/windows/offers";
import type { HeldSkill } from "@/core/windows/skills";
import type { ViewContext } from "./door";

/** A stop of the plan that still lies ahead, with the visit it belongs to. */
export interface PlannedStop extends Stop {
  visitId: number;
}

export interface PlannedDay {
  day: Day<PlannedStop>;
  /** Why there are no spans, where there are none. */
  absence: "off" | "outside-hours" | null;
  reason: string | null;
}

export interface PlanningTechnician {
  id: number;
  name: string;
  start: Point;
  end: Point;
  skills: HeldSkill[];
}

/** The plan of some dates as it stands: everything the engines need, read once. */
export interface Planning {
  technicians: PlanningTechnician[];
  dayOf: (technicianId: number, date: LocalDate) => PlannedDay;
  prepared: (technicianId: number, date: LocalDate) => TechnicianDay;
  timing: (technicianId: number, date: LocalDate) => Timing;
  /** Number of a place for the engines. */
  place: (point: Point) => number;
  travel: Travel;
  candidates: (goesThere?: (technicianId: number) => boolean) => CandidateTechnician[];
}

interface PlacementRow {
  visit_id: number;
  technician_id: number;
  date: string;
  state: string;
  window_from: number;
  window_to: number;
  meet_at: number | null;
  minutes: number;
  before_minutes: number;
  after_minutes: number;
  lng: number;
  lat: number;
  started_at: number | null;
  ended_at: number | null;
}

/** Reads the plan of the dates. `without` leaves a visit out, as if it were not placed. */
export function loadPlanning(context: ViewContext, dates: readonly LocalDate[], without?: number): Planning {
  const { sql, business } = context;
  const technicians = readTechnicians(context);
  const [first, last] = [dates[0] ?? context.today, dates.at(-1) ?? context.today];
  const rows = sql<PlacementRow>(
    `SELECT p.visit_id, p.technician_id, p.date, v.state, v.window_from, v.window_to, v.meet_at, v.minutes, v.before_minutes, v.after_minutes, v.lng, v.lat, v.started_at, v.ended_at
     FROM placements p JOIN visits v ON v.id = p.visit_id
     WHERE p.date BETWEEN ? AND ? AND p.visit_id IS NOT ? ORDER BY p.date, p.arrives`,
  ).all(first, last, without ?? null);
  const byDay = groupBy(rows, (row) => `${row.technician_id} ${row.date}`);
  const off = sql<{ technician_id: number; first_date: string; last_date: string; reason: string }>(
    "SELECT technician_id, first_date, last_date, reason FROM time_off WHERE last_date >= ? AND first_date <= ?",
  ).all(first, last);
  const spans = groupBy(
    sql<{ technician_id: number; weekday: number; opens: number; closes: number }>("SELECT * FROM working_spans ORDER BY opens").all(),
    (span) => `${span.technician_id} ${span.weekday}`,
  );
  const { place, travel } = travelOf(context);

  const dayOf = memo((technicianId: number, date: LocalDate): PlannedDay => {
    const technician = technicians.find((t) => t.id === technicianId)!;
    const away = off.find((o) => o.technician_id === technicianId && o.first_date <= date && date <= o.last_date);
    const hours = spans.get(`${technicianId} ${weekdayOf(date)}`) ?? [];
    const working = away ? [] : hours.map((s): Span => [epochMinute(date, s.opens, business.time_zone), epochMinute(date, s.closes, business.time_zone)]);
    const day = asItStands(byDay.get(`${technicianId} ${date}`) ?? [], { start: place(technician.start), end: place(technician.end), spans: working });
    return { day, absence: away ? "off" : working.length ? null : "outside-hours", reason: away?.reason ?? null };
  });

  /** What is over has happened: the day goes on from there. */
  function asItStands(placed: PlacementRow[], whole: { start: number; end: number; spans: Span[] }): Day<PlannedStop> {
    const behind = placed.filter((row) => row.state === "done" || row.state === "no access" || row.state === "on site");
    const last = behind.reduce<PlacementRow | null>((a, b) => (a && (a.started_at ?? 0) > (b.started_at ?? 0) ? a : b), null);
    const stops = placed.filter((row) => !behind.includes(row)).map((row) => toStop(row));
    if (!last) return { ...whole, stops };
    const onSite = last.state === "on site";
    const ended = onSite ? (last.started_at ?? 0) / 60_000 + last.minutes + last.after_minutes : (last.ended_at ?? 0) / 60_000;
    const free = Math.ceil(onSite ? Math.max(ended, context.minute) : ended);
    return { start: place(last), end: whole.end, spans: whole.spans.flatMap(([open, close]): Span[] => (close > free ? [[Math.max(open, free), close]] : [])), stops };
  }

  const toStop = (row: PlacementRow): PlannedStop => ({
    visitId: row.visit_id,
    place: place(row),
    earliest: row.meet_at ?? row.window_from,
    latest: row.meet_at ?? row.window_to,
    before: row.before_minutes,
    minutes: row.minutes,
    after: row.after_minutes,
  });

  const prepared = memo((technicianId: number, date: LocalDate): TechnicianDay => {
    const { day, absence } = dayOf(technicianId, date);
    if (absence) return { works: false, code: absence };
    const ready: PreparedDay | null = prepareDay(day, travel);
    if (!ready) return { works: false, code: "day-not-feasible" };
    return { works: true, day: ready, load: minutesIn(day.stops.map((s): Span => [0, work(s)])) };
  });

  return {
    technicians,
    dayOf,
    prepared,
    place,
    travel,
    timing: (technicianId, date) => timeDay(dayOf(technicianId, date).day, travel),
    candidates: (goesThere = () => true) =>
      technicians.map((t) => ({ id: String(t.id), skills: t.skills, goesThere: goesThere(t.id), day: (date) => prepared(t.id, date) })),
  };
}

function readTechnicians({ sql }: ViewContext): PlanningTechnician[] {
  const held = groupBy(
    sql<{ technician_id: number; skill_id: number; level: number; valid_until: string | null }>("SELECT * FROM technician_skills").all(),
    (row) => row.technician_id,
  );
  return sql<{ id: number; name: string; start_lng: number; start_lat: number; end_lng: number; end_lat: number }>(
    "SELECT id, name, start_lng, start_lat, end_lng, end_lat FROM technicians WHERE active = 1 ORDER BY position, id",
  )
    .all()
    .map((t) => ({
      id: t.id,
      name: t.name,
      start: { lng: t.start_lng, lat: t.start_lat },
      end: { lng: t.end_lng, lat: t.end_lat },
      skills: (held.get(t.id) ?? []).map((s) => ({ skill: String(s.skill_id), level: s.level, until: s.valid_until })),
    }));
}

/** Numbers for places, and driving minutes between them with the business's safety margin. */
function travelOf({ hogar, business }: ViewContext): { place: (point: Point) => number; travel: Travel } {
  const points: Point[] = [];
  const numbers = new Map<string, number>();
  const known = new Map<number, number>();
  return {
    place({ lng, lat }) {
      const key = `${lng},${lat}`;
      let number = numbers.get(key);
      if (number === undefined) numbers.set(key, (number = points.push({ lng, lat }) - 1));
      return number;
    },
    travel(from, to) {
      const key = from * 100_000 + to;
      let minutes = known.get(key);
      if (minutes === undefined) {
        const driven = hogar.gateways.roads.minutes(points[from]!, points[to]!);
        minutes = driven === 0 ? 0 : Math.ceil(driven * (1 + business.travel_margin_percent / 100)) + business.travel_margin_minutes;
        known.set(key, minutes);
      }
      return minutes;
    },
  };
}

function memo<R>(compute: (id: number, date: string) => R): (id: number, date: string) => R {
  const known = new Map<string, R>();
  return (id, date) => {
    const key = `${id} ${date}`;
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = compute(id, date)));
    return value;
  };
}
