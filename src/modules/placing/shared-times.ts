import type { LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import type { SharedTime } from "@/core/windows/question";
import type { PromiseWindow } from "@/core/windows/promise-window";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { VisitRow } from "./visits";
import type { Without } from "./planning";

/**
 * Times that several customers share: each has a visit of their own, placed on the same technician at the same minute. They
 * are told apart from all else by `shared_id`.
 */
interface StoredTime extends PromiseWindow, SharedTime {}

/** The times of a service on some dates that are still to come; `without` leaves visits out, as if they were not there. */
export function sharedTimes(
  { sql }: ViewContext,
  serviceId: number,
  dates: readonly LocalDate[],
  without: Without = [],
): StoredTime[] {
  if (dates.length === 0 || without === "all") return [];
  return sql<PromiseWindow & { id: number; taken: number; begun: number; begins: number | null; technicians: string }>(
    `SELECT v.shared_id AS id, v.date, v.window_from AS "from", v.window_to AS "to", sum(v.seats) AS taken,
        max(v.state NOT IN ${visitStates.sql("plan")}) AS begun,
        (SELECT min(p.arrives) FROM placements p JOIN visits w ON w.id = p.visit_id WHERE w.shared_id = v.shared_id) AS begins,
        (SELECT json_group_array(DISTINCT p.technician_id) FROM placements p JOIN visits w ON w.id = p.visit_id WHERE w.shared_id = v.shared_id) AS technicians
      FROM visits v
      WHERE v.service_id = @serviceId AND v.shared_id IS NOT NULL AND v.date BETWEEN @first AND @last AND v.state <> 'cancelled'
        AND v.id NOT IN (SELECT value FROM json_each(@without))
      GROUP BY v.shared_id, v.date, v.window_from, v.window_to ORDER BY v.window_from`,
  )
    .all({ serviceId, first: dates[0]!, last: dates.at(-1)!, without: JSON.stringify(without) })
    .map(({ id, date, from, to, taken, begun, begins, technicians }) => ({
      id: String(id),
      date,
      from,
      to,
      // Nobody joins what has begun.
      taken: begun ? Infinity : taken,
      begins: begins ?? from,
      technicians: idsColumn.read(technicians).map(String),
    }));
}

/** A new time for a service, with nobody in it yet: its number. */
export const openTime = ({ sql }: OperationContext, serviceId: number): number =>
  insertRow(sql, "shared_times", { service_id: serviceId });

/** All who come at the same time as this visit, itself among them and in the order they booked; a visit alone is a list of one. */
export const togetherWith = ({ sql }: ViewContext, visit: VisitRow): VisitRow[] =>
  visit.shared_id === null
    ? [visit]
    : sql<VisitRow>("SELECT * FROM visits WHERE shared_id = ? AND (state <> 'cancelled' OR id = ?) ORDER BY id").all(
        visit.shared_id,
        visit.id,
      );
