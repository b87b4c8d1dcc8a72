import type { Coupon } from "@/core/catalogue/coupons";
import type { PricedOrder } from "@/core/catalogue/order";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, priceItems, toPlace, zoneThatCounts } from "@/modules/catalogue/catalogue";
import type { ZoneRules } from "@/modules/place/zones";

/** What an order needs at a site that we know, and what it costs there. */
export function workAtSite(
  context: ViewContext,
  siteId: number,
  items: readonly ItemRow[],
  reduced: { coupon?: Coupon | null; onOurWayBp?: number } = {},
): { needs: VisitToPlace; price: PricedOrder } {
  const { sql } = context;
  const site = sql<{ lng: number; lat: number; zone_id: number | null }>(
    "SELECT lng, lat, zone_id FROM sites WHERE id = ?",
  ).get(siteId)!;
  const zone = sql<ZoneRules>("SELECT * FROM zones WHERE id = ?").get(site.zone_id) ?? null;
  const price = priceItems(context, items, zoneThatCounts(items, zone), reduced);
  return { needs: toPlace(context, items, site, site.zone_id, price), price };
}
