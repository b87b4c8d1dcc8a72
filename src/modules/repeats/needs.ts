import type { LocalDate } from "@/core/time/dates";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { visitingDays } from "@/modules/placing/windows";
import { itemsColumn } from "@/store/columns";
import type { RepeatRow } from "./terms";

/** What a visit of a repeat needs, and the days on which somebody could come for it. */
export function needsOf(
  context: ViewContext,
  repeat: RepeatRow,
): { needs: VisitToPlace; comes: (day: LocalDate) => boolean } {
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const site = context
    .sql<{ lng: number; lat: number; zone_id: number | null }>("SELECT lng, lat, zone_id FROM sites WHERE id = ?")
    .get(repeat.site_id)!;
  const needs = toPlace(context, items, site, site.zone_id, priceItems(context, items, null));
  return { needs, comes: visitingDays(context, needs) };
}
