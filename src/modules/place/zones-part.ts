import { groupBy } from "@/core/group";
import type { ViewContext } from "@/kernel/operation";
import { limitsBy, namedBy, promisedBy } from "@/kernel/reading";
import { areaColumn, wordsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

type ZoneRow = Rows["zones"];

/** Where the business goes, and on what terms. */
export function readZones(context: ViewContext) {
  const { sql } = context;
  const [limitsOf, techniciansOf, promised] = [
    limitsBy(context, "zone"),
    namedBy(context, "zone", "technician"),
    promisedBy(context, "zone_id"),
  ];
  const postcodes = groupBy(
    sql<{ zone_id: number; pattern: string }>(
      "SELECT zone_id, pattern FROM zone_postcodes ORDER BY zone_id, position",
    ).all(),
    (p) => p.zone_id,
  );
  return {
    zones: sql<ZoneRow>("SELECT * FROM zones WHERE active = 1 ORDER BY priority DESC, name")
      .all()
      .map((z) => ({
        id: z.id,
        name: z.name,
        postcodes: (postcodes.get(z.id) ?? []).map((p) => p.pattern),
        towns: wordsColumn.read(z.towns),
        area: z.area ? areaColumn.read(z.area) : null,
        priority: z.priority,
        extraMinutes: z.extra_minutes,
        weekdays: z.weekdays,
        serveFrom: z.serve_from,
        serveTo: z.serve_to + z.serve_past,
        noticeMinutes: z.notice_minutes,
        surchargeMinor: z.surcharge_minor,
        smallestOrderMinor: z.smallest_order_minor,
        technicians: techniciansOf(z.id),
        limits: limitsOf(z.id),
        windingPercent: z.winding_percent,
        kmh: z.kmh,
        promised: promised(z.id),
      })),
  };
}
