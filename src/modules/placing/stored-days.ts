import { groupBy } from "@/core/group";
import type { Pace, Point } from "@/core/place/points";
import type { Travel } from "@/core/routes/timing";
import { type LocalDate, weekdayOf } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { standsFor } from "@/core/visits/states";
import { joinSpans, type Span, subtractSpans } from "@/core/time/spans";
import type { TechnicianDay } from "@/core/windows/question";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import type { VisitRow } from "./visits";
import { zonedPlacesOf } from "./zoned-places";

/** A placed visit, with its place as the engines know it. */
export interface PlacementRow extends Pick<
  VisitRow,
  | "state"
  | "zone_id"
  | "date"
  | "window_from"
  | "window_to"
  | "meet_at"
  | "minutes"
  | "before_minutes"
  | "after_minutes"
  | "lng"
  | "lat"
  | "work_place"
  | "shared_id"
> {
  visit_id: number;
  /** Other visits that share this one's time: they are one stop. */
  along: readonly number[];
  technician_id: number;
  arrives: number;
  started_at: number | null;
  ended_at: number | null;
  place: number;
}

export type ErrandRow = Rows["errands"];

/** One technician's day as the database has it. */
export interface StoredDay {
  start: number;
  end: number;
  /** Hours at work, without time off and errands that have no place. */
  spans: Span[];
  placed: PlacementRow[];
  /** Errands that have a place, with its number; and all of them. */
  errands: (ErrandRow & { number: number })[];
  allErrands: ErrandRow[];
  /** Why there are no spans, where there are none, and what was said of it. */
  absence: "off" | "outside-hours" | null;
  reason: string | null;
  /** The day prepared for new stops, by what it is prepared for; filled when first asked for. */
  prepared: Map<string, TechnicianDay>;
}

export interface DayKey {
  technicianId: number;
  date: LocalDate;
}

/** Reads days from the database, with a handful of queries whatever their number. */
export function readDays(context: ViewContext, keys: readonly DayKey[]): Map<string, StoredDay> {
  const days = new Map<string, StoredDay>();
  if (keys.length === 0) return days;
  const { sql, business } = context;
  const { place } = placesOf(context);
  // The dates of a repeat lie far apart: what is between them is not read.
  const asked = [...new Set(keys.map((k) => k.date))].sort();
  const [first, last] = [asked[0]!, asked.at(-1)!];
  const dates = JSON.stringify(asked);
  const ofDates = "date IN (SELECT value FROM json_each(@dates))";
  const only = new Set(keys.map((k) => k.technicianId));
  // One technician's day is asked for alone after each change to it: then nobody else's is read.
  const whose = only.size === 1 ? [...only][0]! : null;

  const rows = sql<Omit<PlacementRow, "along" | "place">>(
    `SELECT p.visit_id, p.technician_id, p.date, p.arrives, v.state, v.window_from, v.window_to, v.meet_at,
        v.minutes, v.before_minutes, v.after_minutes, v.lng, v.lat, v.zone_id, v.work_place, v.shared_id, v.started_at, v.ended_at
      FROM placements p JOIN visits v ON v.id = p.visit_id
      WHERE p.${ofDates} ${whose === null ? "" : "AND p.technician_id = @whose"}
      ORDER BY p.date, p.arrives`,
  ).all({ dates, ...(whose !== null && { whose }) });
  const placed = groupBy(asStops(rows), keyOf);
  const errands = groupBy(
    sql<ErrandRow>(`SELECT * FROM errands WHERE ${ofDates} ORDER BY begins`).all({ dates }),
    keyOf,
  );
  const dayHours = groupBy(
    sql<{ technician_id: number; date: string; opens: number; closes: number }>(
      `SELECT * FROM day_hours WHERE ${ofDates} ORDER BY opens`,
    ).all({ dates }),
    keyOf,
  );
  const week = groupBy(
    sql<{ technician_id: number; weekday: number; opens: number; closes: number }>(
      "SELECT * FROM working_spans ORDER BY opens",
    ).all(),
    (s) => `${s.technician_id} ${s.weekday}`,
  );
  const off = groupBy(
    sql<{
      technician_id: number;
      first_date: string;
      last_date: string;
      reason: string;
      from_minute: number | null;
      to_minute: number | null;
    }>("SELECT * FROM time_off WHERE last_date >= ? AND first_date <= ?").all(first, last),
    (o) => o.technician_id,
  );
  const homes = new Map(
    sql<{ id: number; start_lng: number; start_lat: number; end_lng: number; end_lat: number }>(
      "SELECT * FROM technicians",
    )
      .all()
      .map((t) => [
        t.id,
        {
          start: place({ lng: t.start_lng, lat: t.start_lat }, null),
          end: place({ lng: t.end_lng, lat: t.end_lat }, null),
        },
      ]),
  );

  for (const { technicianId, date } of keys) {
    const key = `${technicianId} ${date}`;
    const at = (minute: number) => epochMinute(date, minute, business.time_zone);
    const hours = (dayHours.get(key) ?? week.get(`${technicianId} ${weekdayOf(date)}`) ?? []).map((s): Span => [
      at(s.opens),
      at(s.closes),
    ]);
    const away = (off.get(technicianId) ?? []).filter((o) => o.first_date <= date && date <= o.last_date);
    const wholeDay = away.find((o) => o.from_minute === null);
    const own = errands.get(key) ?? [];
    const somewhere = own.flatMap((e) =>
      e.lng === null ? [] : [{ ...e, number: place({ lng: e.lng, lat: e.lat! }, null) }],
    );
    const nowhere = own.filter((e) => e.lng === null).map((e): Span => [e.begins, e.ends]);
    const hoursOff = away.flatMap((o): Span[] =>
      o.from_minute === null ? [] : [[at(o.from_minute), at(o.to_minute!)]],
    );
    // Whoever has an errand at a place is at work then, whatever the usual hours.
    const working = wholeDay
      ? []
      : subtractSpans(joinSpans([...hours, ...somewhere.map((e): Span => [e.begins, e.ends])]), [
          ...hoursOff,
          ...nowhere,
        ]);
    days.set(key, {
      ...homes.get(technicianId)!,
      spans: working,
      placed: (placed.get(key) ?? []).map((row) => ({ ...row, place: place(row, row.zone_id) })),
      errands: wholeDay ? [] : somewhere,
      allErrands: own,
      absence: wholeDay ? "off" : working.length ? null : hours.length ? "off" : "outside-hours",
      reason: wholeDay?.reason ?? (working.length ? null : (away[0]?.reason ?? null)),
      prepared: new Map(),
    });
  }
  return days;
}

/** Visits that share a time are one stop: as that of them stands which is not over yet. */
function asStops<R extends Omit<PlacementRow, "along" | "place">>(rows: readonly R[]): (R & { along: number[] })[] {
  const stops = new Map<string, R[]>();
  for (const row of rows) {
    const key = `${row.technician_id} ${row.date} ${row.shared_id === null ? `visit ${row.visit_id}` : row.shared_id}`;
    stops.set(key, [...(stops.get(key) ?? []), row]);
  }
  return [...stops.values()].map((together) => {
    const first = standsFor(together);
    return { ...first, along: together.filter((row) => row !== first).map((row) => row.visit_id) };
  });
}

const keyOf = (row: { technician_id: number; date: string }): string => `${row.technician_id} ${row.date}`;

/**
 * Numbers for places, and driving minutes between them with the business's safety margin. Whoever
 * crosses into a zone or out of it drives its extra minutes too: a ferry, a gate, a mountain road.
 */
export function placesOf({ hogar, business, sql }: ViewContext): {
  place: (point: Point, zoneId: number | null) => number;
  travel: Travel;
} {
  const { roads } = hogar.gateways;
  const places = zonedPlacesOf(hogar);
  const usual: Pace = { windingFactor: business.winding_percent / 100, kmh: business.kmh };
  const zones = sql<{ id: number; winding_percent: number | null; kmh: number | null; extra_minutes: number }>(
    `SELECT id, winding_percent, kmh, extra_minutes
      FROM zones WHERE winding_percent IS NOT NULL OR kmh IS NOT NULL OR extra_minutes > 0`,
  ).all();
  const paces = new Map(
    zones.map((z) => [
      z.id,
      { windingFactor: (z.winding_percent ?? business.winding_percent) / 100, kmh: z.kmh ?? business.kmh },
    ]),
  );
  const extra = new Map(zones.filter((z) => z.extra_minutes > 0).map((z) => [z.id, z.extra_minutes]));
  const factor = 1 + business.travel_margin_percent / 100;
  const crossing = (from: number | null, to: number | null): number =>
    from === to ? 0 : (from === null ? 0 : (extra.get(from) ?? 0)) + (to === null ? 0 : (extra.get(to) ?? 0));
  return {
    place: ({ lng, lat }, zoneId) =>
      places.number(roads.place({ lng, lat }, (zoneId !== null && paces.get(zoneId)) || usual), zoneId),
    travel(from, to) {
      const driven = roads.minutes(places.road(from), places.road(to));
      const across = extra.size ? crossing(places.zone(from), places.zone(to)) : 0;
      return driven + across === 0 ? 0 : Math.ceil(driven * factor) + across + business.travel_margin_minutes;
    },
  };
}
