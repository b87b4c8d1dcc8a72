import { patternProblem } from "@/core/place/postcodes";
import { areaProblem } from "@/core/place/zones";
import { Refusal } from "@/core/problems";
import { OneZone, SaveZone, TakeZones } from "@/schemas/setup";
import { defineOperation, type OperationContext } from "../door";
import { saveLimits, saveNamed, saveRow } from "./rows";

/** Set-up changes nothing that was promised or priced: visits and jobs carry their own copy. */
export const saveZone = defineOperation({
  name: "save-zone",
  access: "setup.change",
  input: SaveZone,
  run(context, zone) {
    const fields = problemsOf(zone);
    if (zone.serveTo <= zone.serveFrom) fields["/serveTo"] = "The zone is served from an earlier to a later time.";
    if (!zone.postcodes.length && !zone.towns?.length && !zone.area)
      fields["/postcodes"] = "Say where the zone is: postcodes, towns or an area on the map.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    const id = saveRow(context, "zones", zone.id ?? setAsideBefore(context, zone.name), {
      name: zone.name.trim(),
      weekdays: zone.weekdays,
      serve_from: zone.serveFrom,
      serve_to: zone.serveTo,
      notice_minutes: zone.noticeMinutes,
      surcharge_minor: zone.surchargeMinor,
      smallest_order_minor: zone.smallestOrderMinor,
      active: 1,
      ...(zone.windingPercent !== undefined && { winding_percent: zone.windingPercent }),
      ...(zone.kmh !== undefined && { kmh: zone.kmh }),
      ...(zone.extraMinutes !== undefined && { extra_minutes: zone.extraMinutes }),
      ...boundsOf(zone),
    });
    savePostcodes(context, id, zone.postcodes);
    if (zone.technicians) saveNamed(context, "zone_technicians", id, zone.technicians);
    if (zone.limits) saveLimits(context, "zone", id, zone.limits);
    return { id };
  },
});

/** Zones of a file: new ones served on weekdays without terms of their own, known ones with other bounds. */
export const takeZones = defineOperation({
  name: "take-zones",
  access: "setup.change",
  input: TakeZones,
  run(context, { zones }) {
    const fields: Record<string, string> = {};
    for (const [i, zone] of zones.entries())
      for (const [at, sentence] of Object.entries(problemsOf(zone))) fields[`/zones/${i}${at}`] = sentence;
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    let made = 0;
    for (const zone of zones) {
      const known = context.sql<{ id: number }>("SELECT id FROM zones WHERE name = ?").get(zone.name.trim());
      if (!known) made++;
      const id = saveRow(context, "zones", known?.id ?? null, {
        ...(!known && {
          name: zone.name.trim(),
          weekdays: 31,
          serve_from: 0,
          serve_to: 1440,
          notice_minutes: 0,
          surcharge_minor: 0,
          smallest_order_minor: 0,
        }),
        active: 1,
        ...boundsOf(zone),
      });
      if (zone.postcodes) savePostcodes(context, id, zone.postcodes);
    }
    return { made, changed: zones.length - made };
  },
});

/** Nobody goes there any more. What is promised there stays; the zone comes back by saving one of its name. */
export const setZoneAside = defineOperation({
  name: "set-zone-aside",
  access: "setup.change",
  input: OneZone,
  run({ sql }, { id }) {
    if (sql("UPDATE zones SET active = 0 WHERE id = ?").run(id).changes === 0) throw new Refusal("not-found");
  },
});

function problemsOf({ postcodes = [], area }: Pick<Partial<SaveZone>, "postcodes" | "area">): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const [i, pattern] of postcodes.entries()) {
    const problem = patternProblem(pattern);
    if (problem) fields[`/postcodes/${i}`] = fields["/postcodes"] ??= problem;
  }
  const odd = area && areaProblem(area);
  if (odd) fields["/area"] = odd;
  return fields;
}

const boundsOf = ({ towns, area, priority }: Pick<SaveZone, "towns" | "area" | "priority">) => ({
  ...(towns && { towns: JSON.stringify(towns.map((t) => t.trim())) }),
  ...(area !== undefined && { area: area && JSON.stringify(area) }),
  ...(priority !== undefined && { priority }),
});

function savePostcodes({ sql }: OperationContext, id: number, postcodes: readonly string[]): void {
  sql("DELETE FROM zone_postcodes WHERE zone_id = ?").run(id);
  for (const [i, pattern] of postcodes.entries())
    sql("INSERT INTO zone_postcodes VALUES (?, ?, ?)").run(id, i, pattern.trim());
}

const setAsideBefore = ({ sql }: OperationContext, name: string): number | null =>
  sql<{ id: number }>("SELECT id FROM zones WHERE name = ? AND active = 0").get(name.trim())?.id ?? null;
