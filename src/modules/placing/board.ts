import { groupBy } from "@/core/group";
import { askedToConfirm } from "@/modules/messages/reminders";
import { standsFor, type VisitState } from "@/core/visits/states";

export interface BoardVisit {
  id: number;
  state: VisitState;
  code: string;
  service: string;
  hue: number;
  customer: string;
  site: string;
  minutes: number;
  /** Minutes of the day. */
  windowFrom: number;
  windowTo: number;
  crew: number;
  /** How many bookings share its time. */
  bookings: number;
  /** The repeat that brings it and those after it, as long as that goes on. */
  repeatId: number | null;
  /** Whether its customer has said yes; "asked" where they were asked and have not answered. */
  confirmed: "yes" | "asked" | null;
  /** Whether nothing that we send reaches its customer. */
  unreached: boolean;
}

export interface BoardStop extends BoardVisit {
  driveFrom: number;
  /** Minutes, without a break in between. */
  driving: number;
  arrives: number;
  leaves: number;
}

export const visitColumns = `v.id, v.state, s.code, iif(v.shared_id IS NULL, v.title, s.name) AS service, s.hue, v.minutes, v.crew, v.date, v.window_from, v.window_to, v.shared_id, v.seats,
  CASE WHEN v.confirmed_at IS NOT NULL THEN 'yes' WHEN ${askedToConfirm("v")} THEN 'asked' END AS confirmed,
  iif(r.state = 'active', r.id, NULL) AS coming_repeat_id,
  coalesce(c.name, rc.name, 'A customer is booking') AS customer, CASE v.work_place WHEN 'ours' THEN 'At our place' WHEN 'afar' THEN 'By phone' ELSE coalesce(t.line, rt.line, '') END AS site`;
export const visitTables = `visits v JOIN services s ON s.id = v.service_id
  LEFT JOIN jobs j ON j.id = v.job_id LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN sites t ON t.id = j.site_id
  LEFT JOIN repeats r ON r.id = v.repeat_id LEFT JOIN customers rc ON rc.id = r.customer_id LEFT JOIN sites rt ON rt.id = r.site_id`;

export interface BoardRow {
  id: number;
  state: VisitState;
  code: string;
  service: string;
  hue: number;
  minutes: number;
  crew: number;
  date: string;
  window_from: number;
  window_to: number;
  customer: string;
  site: string;
  shared_id: number | null;
  seats: number;
  coming_repeat_id: number | null;
  confirmed: "yes" | "asked" | null;
}

/** Visits that share a time as one card: that of the first which is not over, named by how many come. */
export function asCards<R extends BoardRow & { technician_id?: number }>(
  rows: readonly R[],
): (R & { bookings: number })[] {
  const cards = groupBy(rows, (row) => `${row.technician_id ?? ""} ${row.shared_id ?? `visit ${row.id}`}`);
  return [...cards.values()].map((together) => {
    const first = standsFor(together);
    const seats = together.reduce((sum, row) => sum + row.seats, 0);
    return {
      ...first,
      bookings: together.length,
      ...(together.length > 1 && { customer: `${together.length} customers, ${seats} seats` }),
    };
  });
}
