import { groupBy } from "@/core/group";
import { type ZoneBounds, type ZoneMatch, zonesAt } from "@/core/place/zones";
import type { Address } from "@/gateways/types";
import type { ViewContext } from "@/kernel/operation";
import { areaColumn, wordsColumn } from "@/store/columns";
import { saveSettings } from "@/kernel/settings";

/** The zone an address lies in; null where it is in none. */
export const zoneOf = (context: ViewContext, address: Address): ZoneRules | null =>
  zonesOf(context, address)[0]?.zone ?? null;

/** Every zone that holds an address, with why; the one that counts first. */
export const zonesOf = (context: ViewContext, address: Address): ZoneMatch<ZoneRules & ZoneBounds>[] =>
  zonesAt(boundsOf(context), { point: address, postcode: address.postcode, town: address.town });

/** All zones, with what makes them. */
export function boundsOf({ sql }: ViewContext): (ZoneRules & ZoneBounds)[] {
  const patterns = groupBy(
    sql<{ zone_id: number; pattern: string }>("SELECT zone_id, pattern FROM zone_postcodes").all(),
    (p) => p.zone_id,
  );
  return sql<ZoneRules & { priority: number; area: string | null; towns: string }>(
    "SELECT * FROM zones WHERE active = 1",
  )
    .all()
    .map((zone) => ({
      ...zone,
      patterns: (patterns.get(zone.id) ?? []).map((p) => p.pattern),
      towns: wordsColumn.read(zone.towns),
      area: zone.area ? areaColumn.read(zone.area) : null,
    }));
}

export interface ZoneRules {
  id: number;
  name: string;
  weekdays: number;
  serve_from: number;
  serve_to: number;
  /** Minutes after midnight up to which it is still served; serve_to is the end of the day then. */
  serve_past: number;
  notice_minutes: number;
  surcharge_minor: number;
  smallest_order_minor: number;
}

/** Up to which of their places customers were looked at since zones changed; null: all. */
export const noteZonedTo = (context: Parameters<typeof saveSettings>[0], siteId: number | null): void =>
  saveSettings(context, { zoned_to: siteId });
