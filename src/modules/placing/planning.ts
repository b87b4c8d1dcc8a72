import type { Actor } from "@/core/people/permissions";
import { groupBy } from "@/core/group";
import type { Point } from "@/core/place/points";
import { withCalls, withoutCall } from "@/core/routes/calls";
import { prepareDay } from "@/core/routes/insertion";
import { asLateAsItIs } from "@/core/routes/lateness";
import { type Day, type Stop, timeDay, type Timing, type Travel, work } from "@/core/routes/timing";
import { addDays, datesFrom, type LocalDate } from "@/core/time/dates";
import { type Span, subtractSpans } from "@/core/time/spans";
import { visitStates } from "@/core/visits/states";
import { type ForecastRoom, keepingRoom } from "@/core/windows/forecasts";
import type { CandidateTechnician, TechnicianDay } from "@/core/windows/question";
import type { HeldSkill } from "@/core/windows/skills";
import type { Hogar } from "@/kernel/hogar";
import { viewContext, type ViewContext } from "@/kernel/operation";
import { readBusiness } from "@/store/business";
import { dayCacheOf } from "./day-cache";
import { type ErrandRow, type PlacementRow, placesOf, type StoredDay } from "./stored-days";

/** A stop of the plan that still lies ahead, with the visit or the errand it belongs to. */
export interface PlannedStop extends Stop {
  visitId: number | null;
  /** Who shares the time of that visit. */
  along: readonly number[];
  errandId: number | null;
  forecast: boolean;
}

/** Work from afar that still lies ahead, and when it is done: its span is no longer among those of the day. */
export interface PlannedCall extends Omit<PlannedStop, "place"> {
  at: number;
}

/** A day with its stops and its calls. */
export interface DayPlan extends Day<PlannedStop> {
  calls: readonly PlannedCall[];
}

export const spanOf = (call: PlannedCall): Span => [call.at, call.at + work(call)];

interface PlannedDay {
  /** The day as it goes on from now, with the windows that were promised and the hours that are worked. */
  promised: DayPlan;
  /** The same where something is late already: as late as it is. */
  day: DayPlan;
  /** The hours worked that day, all of it. */
  hours: readonly Span[];
  /** Why there are no spans, where there are none. */
  absence: StoredDay["absence"];
  reason: string | null;
  errands: ErrandRow[];
}

interface PlanningTechnician {
  id: number;
  name: string;
  start: Point;
  end: Point;
  skills: HeldSkill[];
}

/** The plan of some dates as it stands: everything the engines need. */
export interface Planning {
  technicians: PlanningTechnician[];
  dayOf: (technicianId: number, date: LocalDate) => PlannedDay;
  /** The day prepared for new stops; forecasts keep their room in full, or as `room` says. */
  prepared: (technicianId: number, date: LocalDate, room?: ForecastRoom) => TechnicianDay;
  timing: (technicianId: number, date: LocalDate) => Timing;
  /** Number of a place for the engines. */
  place: (point: Point, zoneId: number | null) => number;
  travel: Travel;
  candidates: (room: ForecastRoom) => CandidateTechnician[];
}

/** Visits that are left out of a plan, as if they were not there. */
export type Without = readonly number[] | "all";

/** Reads the plan of the dates. `without` leaves visits out, as if they were not placed. */
export function loadPlanning(context: ViewContext, dates: readonly LocalDate[], without: Without = []): Planning {
  const technicians = readTechnicians(context);
  const stored = dayCacheOf(context.hogar).look(
    context,
    technicians.map((t) => t.id),
    dates,
  );
  const { place, travel } = placesOf(context);
  // What depends on this minute, or on visits left out, is worked out here and not kept.
  const isPlain = (day: StoredDay, date: LocalDate) =>
    date !== context.today && (without.length === 0 || !day.placed.some((row) => isWithout(row, without)));

  const dayOf = memo((technicianId: number, date: LocalDate): PlannedDay => {
    const day = stored(technicianId, date);
    const promised = asItStands(context, day, date, without);
    return {
      promised,
      day: { ...asLateAsItIs(promised, travel), calls: promised.calls },
      absence: day.absence,
      reason: day.reason,
      hours: day.spans,
      errands: day.allErrands,
    };
  });
  const prepared = (technicianId: number, date: LocalDate, room: ForecastRoom = "full"): TechnicianDay => {
    const day = stored(technicianId, date);
    if (!isPlain(day, date)) return prepare(dayOf(technicianId, date), room, travel);
    let ready = day.prepared.get(room);
    if (!ready) day.prepared.set(room, (ready = prepare(dayOf(technicianId, date), room, travel)));
    return ready;
  };

  return {
    technicians,
    dayOf,
    prepared,
    place,
    travel,
    timing: (technicianId, date) => timeDay(dayOf(technicianId, date).day, travel),
    candidates: (room) =>
      technicians.map((t) => ({ id: String(t.id), skills: t.skills, day: (date) => prepared(t.id, date, room) })),
  };
}

/** Reads and prepares the days that can be booked, one after the other, so that the first customer does not wait for it, and nobody waits behind it either. */
export async function readAhead(hogar: Hogar): Promise<void> {
  const business = readBusiness(hogar.store);
  if (!business) return;
  const { today } = viewContext(hogar, ahead);
  for (const date of datesFrom(today, addDays(today, business.horizon_days))) {
    // Whoever has asked meanwhile is answered first; and the application may have been told to stop.
    await new Promise(setImmediate);
    if (!hogar.store.db.open) return;
    const { technicians, prepared } = loadPlanning(viewContext(hogar, ahead), [date]);
    for (const { id } of technicians) prepared(id, date, business.forecast_room);
  }
}
const ahead: Actor = { kind: "system", name: "start" };

function prepare({ day: whole, absence, hours }: PlannedDay, room: ForecastRoom, travel: Travel): TechnicianDay {
  if (absence) return { works: false, code: absence };
  const day = asForecastsKeep(whole, room, hours);
  const ready = prepareDay(day, travel);
  return ready
    ? { works: true, day: ready, load: minutesOf(day.stops) + minutesOf(day.calls) }
    : { works: false, code: "day-not-feasible" };
}

const minutesOf = (stops: readonly Omit<Stop, "place">[]): number => stops.reduce((sum, stop) => sum + work(stop), 0);

/** The day without the forecasts that keep no room. */
export function asForecastsKeep(day: DayPlan, room: ForecastRoom, hours: readonly Span[]): DayPlan {
  const calls = keepingRoom(day.calls, room);
  const given = day.calls.filter((call) => !calls.includes(call));
  return {
    ...day,
    stops: keepingRoom(day.stops, room),
    calls,
    spans: given.reduce((spans, call) => withoutCall(spans, spanOf(call), hours), day.spans),
  };
}

/** A day as it goes on from now: what is over has happened, what is under way is waited for, and nobody drives off in the past. */
function asItStands(
  { today, minute }: ViewContext,
  { start, end, spans, placed, errands }: StoredDay,
  date: LocalDate,
  without: Without,
): DayPlan {
  const rows = placed.filter((row) => !isWithout(row, without));
  const begun =
    date !== today
      ? []
      : [
          ...rows
            .filter((row) => !visitStates.allows("plan", row.state))
            .map((row) => ({ of: row as object, place: isCall(row) ? null : row.place, free: freeAfter(row, minute) })),
          ...errands.filter((e) => e.begins < minute).map((e) => ({ of: e as object, place: e.number, free: e.ends })),
        ];
  const lastOf = (some: typeof begun) =>
    some.reduce<(typeof begun)[number] | null>((a, b) => (a && a.free > b.free ? a : b), null);
  const ahead = (of: object) => !begun.some((b) => b.of === of);
  const stops = [
    ...rows
      .filter((row) => ahead(row) && !isCall(row))
      .map((row) => ({ at: row.arrives, stop: { ...plannedOf(row), place: row.place } })),
    ...errands.filter(ahead).map((e) => ({ at: e.begins, stop: errandStop(e) })),
  ]
    .sort((a, b) => a.at - b.at)
    .map(({ stop }) => stop);
  const free = date === today ? Math.max(lastOf(begun)?.free ?? minute, minute) : -Infinity;
  // A call that is overdue is made as soon as somebody is free.
  let at = free;
  const calls = rows
    .filter((row) => ahead(row) && isCall(row))
    .map((row): PlannedCall => {
      const call = { ...plannedOf(row), at: Math.max(row.arrives, at) };
      at = call.at + work(call);
      return call;
    });
  return {
    // After a call they are where they were before it.
    start: lastOf(begun.filter((b) => b.place !== null))?.place ?? start,
    end,
    spans: withCalls(subtractSpans(spans, [[-Infinity, free]]), calls.map(spanOf)),
    stops,
    calls,
  };
}

/** A time that is shared is there as long as one of its visits is. */
const isWithout = (row: PlacementRow, without: Without): boolean =>
  without === "all" || [row.visit_id, ...row.along].every((id) => without.includes(id));

const isCall = (row: PlacementRow): boolean => row.work_place === "afar";

/** When a technician is free after a visit that has begun: when it ended, or when it will. */
function freeAfter(row: PlacementRow, now: number): number {
  if (row.state === "on the way") return Math.max(now, row.arrives) + workOf(row);
  if (row.state === "on site")
    return Math.max(now, Math.ceil((row.started_at ?? 0) / 60_000) + row.minutes + row.after_minutes);
  return Math.ceil((row.ended_at ?? 0) / 60_000);
}

const workOf = (row: PlacementRow): number => row.before_minutes + row.minutes + row.after_minutes;

const plannedOf = (row: PlacementRow): Omit<PlannedStop, "place"> => ({
  visitId: row.visit_id,
  along: row.along,
  errandId: null,
  forecast: row.state === "forecast",
  earliest: row.meet_at ?? row.window_from,
  latest: row.meet_at ?? row.window_to,
  before: row.before_minutes,
  minutes: row.minutes,
  after: row.after_minutes,
});

const errandStop = (e: StoredDay["errands"][number]): PlannedStop => ({
  visitId: null,
  along: [],
  errandId: e.id,
  forecast: false,
  place: e.number,
  earliest: e.begins,
  latest: e.begins,
  before: 0,
  minutes: e.ends - e.begins,
  after: 0,
});

function readTechnicians({ sql }: ViewContext): PlanningTechnician[] {
  const held = groupBy(
    sql<{ technician_id: number; skill_id: number; level: number; valid_until: string | null }>(
      "SELECT * FROM technician_skills",
    ).all(),
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

function memo<R>(compute: (id: number, date: string) => R): (id: number, date: string) => R {
  const known = new Map<string, R>();
  return (id, date) => {
    const key = `${id} ${date}`;
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = compute(id, date)));
    return value;
  };
}
