import type { LocalDate } from "@/core/time/dates";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { visitingDays } from "@/modules/placing/windows";
import { itemsColumn } from "@/store/columns";
import type { RepeatRow } from "./terms";

/** What a visit of a repeat needs, and the days on which somebody could come for it. */
export function needsOf(
  context: ViewContext,
  repeat: Pick<RepeatRow, "items" | "site_id">,
): { needs: VisitToPlace; comes: (day: LocalDate) => boolean } {
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const needs = needsAtSite(context, items, repeat.site_id);
  return { needs, comes: visitingDays(context, needs) };
}

/** What a service needs at a site, before anything is agreed. */
export const needsAt = (context: ViewContext, siteId: number, serviceId: number): VisitToPlace =>
  needsAtSite(context, [readItem(context, { serviceId, quantity: 1, answers: {}, extras: [] })], siteId);

function needsAtSite(context: ViewContext, items: readonly ItemRow[], siteId: number): VisitToPlace {
  const site = context
    .sql<{ lng: number; lat: number; zone_id: number | null }>("SELECT lng, lat, zone_id FROM sites WHERE id = ?")
    .get(siteId)!;
  return toPlace(context, items, site, site.zone_id, priceItems(context, items, null));
}
