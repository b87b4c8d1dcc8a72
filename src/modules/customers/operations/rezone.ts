import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { addressAt } from "@/modules/place/addresses";
import { boundsOf } from "@/modules/place/zones";
import { zoneAt } from "@/core/place/zones";
import type { Rows } from "@/store/rows";

/** Sites that are looked at in one transaction. */
const atOnce = 100;

/** After a change of zones: some more customers go to the zone that takes in their address now, with what lies ahead of them. What is over stays as it was. */
export const rezoneSites = defineOperation({
  name: "rezone-sites",
  access: "system",
  input: Nothing,
  run(context) {
    const { sql, today } = context;
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
      sql("UPDATE sites SET zone_id = ? WHERE id = ?").run(zoneId, site.id);
      sql(
        `UPDATE visits SET zone_id = @zoneId
          WHERE date >= @today AND state IN ('promised', 'forecast') AND work_place = 'site'
            AND (job_id IN (SELECT id FROM jobs WHERE site_id = @siteId) OR repeat_id IN (SELECT id FROM repeats WHERE site_id = @siteId))`,
      ).run({ zoneId, today, siteId: site.id });
      moved++;
    }
    sql("UPDATE business SET zoned_to = ?").run(sites.length < atOnce ? null : sites.at(-1)!.id);
    return { moved };
  },
});
