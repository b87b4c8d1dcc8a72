import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { addressAt } from "@/modules/place/addresses";
import { boundsOf } from "@/modules/place/zones";
import { zoneAt } from "@/core/place/zones";
import type { Rows } from "@/store/rows";
import { rezoneVisits } from "@/modules/jobs/visits";
import { rezoneSite } from "@/modules/customers/customers";
import { noteZonedTo } from "@/modules/place/zones";

/** Sites that are looked at in one transaction. */
const atOnce = 100;

/** After a change of zones: some more customers go to the zone that takes in their address now, with what lies ahead of them. What is over stays as it was. */
export const rezoneSites = defineOperation({
  name: "rezone-sites",
  access: "system",
  input: Nothing,
  run(context) {
    const { sql } = context;
    const from = sql<{ zoned_to: number | null }>("SELECT zoned_to FROM business").get()!.zoned_to;
    if (from === null) return { moved: 0 };
    const sites = sql<Rows["sites"]>("SELECT * FROM sites WHERE id > ? ORDER BY id LIMIT ?").all(from, atOnce);
    const zones = boundsOf(context);
    // Only where a zone is a town does it count, and it is looked up.
    const byTown = zones.some(({ towns }) => towns.length > 0);
    const townOf = (site: Rows["sites"]) => (byTown ? (addressAt(context, site)?.town ?? "") : "");
    let moved = 0;
    for (const site of sites) {
      const { postcode, lng, lat } = site;
      const zone = zoneAt(zones, { point: { lng, lat }, postcode, town: townOf(site) });
      // Who was in no zone and is in none now stays where the office has put them.
      const zoneId = zone?.id ?? null;
      if (zoneId === site.zone_id || zoneId === null) continue;
      rezoneSite(context, site.id, zoneId);
      rezoneVisits(context, site.id, zoneId);
      moved++;
    }
    noteZonedTo(context, sites.length < atOnce ? null : sites.at(-1)!.id);
    return { moved };
  },
});
