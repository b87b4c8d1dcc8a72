import { Refusal } from "@/core/problems";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { idsColumn, skillNeedsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

export type VisitRow = Rows["visits"];

/** Refuses where there is no such visit, or where it is not one that this person sees. */
export function readVisit(context: ViewContext, id: number): VisitRow {
  const visit = context.sql<VisitRow>("SELECT * FROM visits WHERE id = ?").get(id);
  if (!visit) throw new Refusal("not-found");
  return visit;
}

/** The days of work that a visit belongs to, from the first one on; a visit alone is a list of one. */
export const daysOfWork = ({ sql }: ViewContext, visit: VisitRow): VisitRow[] =>
  sql<VisitRow>(
    `SELECT *
      FROM visits WHERE (id = @first OR first_visit_id = @first) AND state <> 'cancelled' ORDER BY window_from`,
  ).all({ first: visit.first_visit_id ?? visit.id });

/** A visit to be placed anew, as it was agreed: a later change of its service does not touch it. */
export const placingOf = (visit: VisitRow, days = 1, seats = visit.seats): VisitToPlace => ({
  workPlace: visit.work_place,
  skills: skillNeedsColumn.read(visit.skills),
  point: { lng: visit.lng, lat: visit.lat },
  zoneId: visit.zone_id,
  serviceIds: [visit.service_id, ...idsColumn.read(visit.also)],
  title: visit.title,
  minutes: visit.minutes,
  before: visit.before_minutes,
  after: visit.after_minutes,
  crew: visit.crew,
  seats,
  days,
});
