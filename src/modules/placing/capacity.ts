import { groupBy } from "@/core/group";
import { addDays } from "@/core/time/dates";
import { type Booking, type Limit, mondayOf, takenOf } from "@/core/windows/limits";
import type { Capacity } from "@/core/windows/question";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import type { Without } from "./planning";

interface LimitRow {
  scope: Limit["of"];
  subject_id: number;
  per: Limit["per"];
  most: number;
}

interface BookingRow extends Booking {
  zone_id: number | null;
  service_id: number;
  also: string;
}

export interface Limits {
  capacity: Capacity;
  /** Of the business, the visit's zone and its services. */
  limits: Limit[];
  ofTechnician: (id: string) => Limit[];
}

/** How many visits may still be taken, with what is booked counted where a limit asks for it. */
export function readLimits(
  context: ViewContext,
  visit: VisitToPlace,
  mode: Capacity["mode"],
  without: Without,
): Limits {
  const { sql, business } = context;
  const rows = sql<LimitRow>("SELECT * FROM limits").all();
  const about = rows.filter(
    (row) =>
      row.scope === "business" ||
      (row.scope === "zone" && row.subject_id === visit.zoneId) ||
      (row.scope === "service" && visit.serviceIds.includes(row.subject_id)),
  );
  const ofTechnicians = rows.filter((row) => row.scope === "technician");
  const states = business.forecast_room === "none" ? "('cancelled', 'forecast')" : "('cancelled')";
  // Weeks are counted whole: from the Monday of this one.
  const since = mondayOf(context.today);
  const until = addDays(since, business.horizon_days + 21);
  const left = JSON.stringify(without);

  const bookings =
    about.length === 0 || without === "all"
      ? []
      : sql<BookingRow>(
          `SELECT date, window_from AS "from", zone_id, service_id, also
            FROM visits
            WHERE date BETWEEN ? AND ? AND state NOT IN ${states} AND id NOT IN (SELECT value FROM json_each(?))
            GROUP BY coalesce(shared_id, -id)`,
        ).all(since, until, left);
  const takenBy = { business: takenOf(bookings), zone: takenOf(bookings.filter((b) => b.zone_id === visit.zoneId)) };
  const has = (booking: BookingRow, serviceId: number) =>
    booking.service_id === serviceId || (booking.also !== "[]" && idsColumn.read(booking.also).includes(serviceId));
  const taken = ({ scope, subject_id }: LimitRow) =>
    scope === "service" ? takenOf(bookings.filter((b) => has(b, subject_id))) : takenBy[scope as keyof typeof takenBy];

  const placed = groupBy(
    ofTechnicians.length === 0 || without === "all"
      ? []
      : sql<Booking & { technician_id: number }>(
          `SELECT v.date, v.window_from AS "from", p.technician_id
            FROM placements p JOIN visits v ON v.id = p.visit_id
            WHERE p.date BETWEEN ? AND ? AND v.state NOT IN ${states}
              AND v.id NOT IN (SELECT value FROM json_each(?))
            GROUP BY coalesce(v.shared_id, -v.id), p.technician_id`,
        ).all(since, until, left),
    (row) => row.technician_id,
  );
  const technicianLimits = groupBy(
    ofTechnicians.map((row) => ({
      id: String(row.subject_id),
      limit: { of: row.scope, per: row.per, most: row.most, taken: takenOf(placed.get(row.subject_id) ?? []) },
    })),
    (row) => row.id,
  );

  const byCount = mode === "count" ? about.find((row) => row.scope === "business" && row.per === "window") : undefined;
  return {
    capacity: mode === "count" ? { mode, most: byCount?.most ?? 0, taken: takenBy.business } : { mode },
    limits: about
      .filter((row) => row !== byCount)
      .map((row) => ({ of: row.scope, per: row.per, most: row.most, taken: taken(row) })),
    ofTechnician: (id) => (technicianLimits.get(id) ?? []).map((row) => row.limit),
  };
}
