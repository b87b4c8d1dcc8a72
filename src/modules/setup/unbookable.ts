import { justOne } from "@/core/catalogue/items";
import { answersTowards } from "@/core/catalogue/price-range";
import type { Answers } from "@/core/catalogue/questions";
import type { Area } from "@/core/place/zones";
import type { Point } from "@/core/place/points";
import { type Size, type Unbookable, whatStands } from "@/core/setup/unbookable";
import { explainWindows, firstOffers } from "@/core/windows/offers";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { boundsOf } from "@/modules/place/zones";
import { bookableDates, questionFor } from "@/modules/placing/windows";

/** How a service is asked for, by its answers. */
export interface Sized {
  size: Size;
  visit: (zone: { id: number; point: Point } | null) => VisitToPlace;
}

/** A service as every customer asks for it, and with the answers that make most of it, where there are such. */
export function sizesOf(context: ViewContext, serviceId: number): Sized[] {
  const item = readItem(context, justOne(serviceId));
  const { questions } = item.ordered;
  const orderOf = (answers: Answers) => priceItems(context, [{ ...item, answers }], null);
  const measures: Record<Exclude<Size, "always">, (answers: Answers) => number> = {
    longest: (answers) => orderOf(answers).minutes,
    "most people": (answers) => orderOf(answers).crew,
    // A level counts too, and least: one skill more asks for more than any level.
    "most skills": (answers) => orderOf(answers).skills.reduce((sum, { level = 1 }) => sum + 100 + level, 0),
  };
  // People count before skills, and skills before time.
  const all = (answers: Answers) =>
    1e9 * measures["most people"](answers) + 1e5 * measures["most skills"](answers) + measures.longest(answers);
  const least = answersTowards(questions, all, -1);
  const sized = (size: Size, answers: Answers): Sized => ({ size, visit: visitOf(context, item, answers) });
  return [
    sized("always", least),
    ...(Object.keys(measures) as (keyof typeof measures)[]).flatMap((size) => {
      const most = answersTowards(questions, measures[size], 1);
      return measures[size](most) > measures[size](least) ? [sized(size, most)] : [];
    }),
  ];
}

const visitOf =
  (context: ViewContext, item: ItemRow, answers: Answers) =>
  (zone: { id: number; point: Point } | null): VisitToPlace => {
    const items = [{ ...item, answers }];
    return toPlace(context, items, zone?.point ?? context.business, zone?.id ?? null, priceItems(context, items, null));
  };

/** Whether anything can be booked for as long as bookings are taken, though nothing were booked yet: the engine's own answer. Null where it can, or what stands against it. */
function standsAgainst(context: ViewContext, visit: VisitToPlace): Unbookable["against"] | null {
  const question = questionFor(context, visit, bookableDates(context), { without: "all" });
  if (firstOffers(question, 1).length > 0) return null;
  return whatStands(explainWindows(question), visit.crew);
}

/** What of a service can be booked nowhere, or not in some zones, or not with some answers. */
export function unbookable(context: ViewContext, serviceId: number): Unbookable[] {
  const { service } = readItem(context, justOne(serviceId));
  // Whoever agrees times with a person has no windows.
  if ((service.capacity ?? context.business.capacity) === "ask") return [];
  const zones =
    service.work_place === "site" ? boundsOf(context).map((z) => ({ ...z, point: pointIn(context, z) })) : [null];
  return zones.flatMap((zone): Unbookable[] => {
    for (const { size, visit } of sizesOf(context, serviceId)) {
      const against = standsAgainst(context, visit(zone));
      // What nobody can book at all need not be said of its answers too.
      if (against) return [{ zone: zone && { id: zone.id, name: zone.name }, size, against }];
    }
    return [];
  });
}

/** Somewhere in a zone: where a customer lives, else the middle of its area, else with us. */
function pointIn({ sql, business }: ViewContext, { id, area }: { id: number; area: Area | null }): Point {
  const site = sql<Point>("SELECT lng, lat FROM sites WHERE zone_id = ? LIMIT 1").get(id);
  if (site) return site;
  const ring = area?.type === "MultiPolygon" ? area.coordinates[0]?.[0] : area?.coordinates[0];
  if (!ring?.length) return { lng: business.lng, lat: business.lat };
  const middle = (axis: 0 | 1) => ring.reduce((sum, at) => sum + at[axis]!, 0) / ring.length;
  return { lng: middle(0), lat: middle(1) };
}
