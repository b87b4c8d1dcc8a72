import { groupBy } from "@/core/group";
import type { Area } from "@/core/place/zones";
import type { ViewContext } from "@/kernel/operation";
import { limitsBy, namedBy, promisedBy } from "@/kernel/reading";

interface ZoneRow {
  id: number;
  name: string;
  weekdays: number;
  serve_from: number;
  serve_to: number;
  notice_minutes: number;
  surcharge_minor: number;
  smallest_order_minor: number;
  winding_percent: number | null;
  kmh: number | null;
  priority: number;
  area: string | null;
  towns: string;
  extra_minutes: number;
}

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
        towns: JSON.parse(z.towns) as string[],
        area: z.area ? (JSON.parse(z.area) as Area) : null,
        priority: z.priority,
        extraMinutes: z.extra_minutes,
        weekdays: z.weekdays,
        serveFrom: z.serve_from,
        serveTo: z.serve_to,
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
