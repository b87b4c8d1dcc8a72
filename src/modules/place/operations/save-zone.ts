import { patternProblem } from "@/core/place/postcodes";
import { areaProblem } from "@/core/place/zones";
import { Refusal } from "@/core/problems";
import { EndMinute, Id, input, Limits, MinuteOfDay, Money, Name, OrNull, Technicians, Weekdays } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { saveLimits, saveNamed, saveRow } from "@/kernel/rows";
import { insertRow } from "@/store/insert";
import { type Static, Type } from "@sinclair/typebox";
import { noteZonedTo } from "../zones";

const Position = Type.Array(Type.Number(), { minItems: 2, maxItems: 3 });
const Rings = Type.Array(Type.Array(Position, { minItems: 4, maxItems: 5000 }), { minItems: 1, maxItems: 100 });
/** Geometry as GeoJSON has it (RFC 7946). */
const AreaSchema = Type.Union([
  input({ type: Type.Literal("Polygon"), coordinates: Rings }),
  input({ type: Type.Literal("MultiPolygon"), coordinates: Type.Array(Rings, { minItems: 1, maxItems: 100 }) }),
]);

/** What set-up saves. An `id` of null makes a new one; what is left out stays as it is. */
export const SaveZone = input({
  id: OrNull(Id),
  name: Name,
  postcodes: Type.Array(Type.String({ minLength: 1, maxLength: 30 }), { maxItems: 500 }),
  towns: Type.Optional(Type.Array(Name, { maxItems: 200 })),
  area: Type.Optional(OrNull(AreaSchema)),
  /** Of zones that overlap, the one with the highest. */
  priority: Type.Optional(Type.Integer({ minimum: -100, maximum: 100 })),
  /** Minutes on top of the drive into the zone and out of it. */
  extraMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: 240 })),
  weekdays: Weekdays,
  serveFrom: MinuteOfDay,
  serveTo: EndMinute,
  noticeMinutes: Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 }),
  surchargeMinor: Money,
  smallestOrderMinor: Money,
  technicians: Type.Optional(Technicians),
  limits: Type.Optional(Limits),
  /** How one drives there, where it differs from the business's: for estimates from coordinates. */
  windingPercent: Type.Optional(OrNull(Type.Integer({ minimum: 100, maximum: 400 }))),
  kmh: Type.Optional(OrNull(Type.Integer({ minimum: 5, maximum: 130 }))),
});
export type SaveZone = Static<typeof SaveZone>;

/** Zones from a file: made where the name is new, otherwise what the file says of them is changed. */
const TakeZones = input({
  zones: Type.Array(
    input({
      name: Name,
      postcodes: Type.Optional(SaveZone.properties.postcodes),
      towns: SaveZone.properties.towns,
      area: SaveZone.properties.area,
      priority: SaveZone.properties.priority,
    }),
    { minItems: 1, maxItems: 1000 },
  ),
});
const OneZone = input({ id: Id });

/** Set-up changes nothing that was promised or priced: visits and jobs carry their own copy. */
export const saveZone = defineOperation({
  name: "save-zone",
  access: "setup.change",
  input: SaveZone,
  run(context, zone) {
    const fields = problemsOf(zone);
    if (zone.serveTo <= zone.serveFrom) fields["/serveTo"] = "The zone is served from an earlier to a later time.";
    else if (zone.serveTo > zone.serveFrom + 1440) fields["/serveTo"] = "A zone is served for a day at the most.";
    if (!zone.postcodes.length && !zone.towns?.length && !zone.area)
      fields["/postcodes"] = "Say where the zone is: postcodes, towns or an area on the map.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    const id = saveRow(context, "zones", zone.id ?? setAsideBefore(context, zone.name), {
      name: zone.name.trim(),
      weekdays: zone.weekdays,
      serve_from: zone.serveFrom,
      serve_to: Math.min(zone.serveTo, 1440),
      serve_past: Math.max(zone.serveTo - 1440, 0),
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
    lookAtCustomers(context);
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
    lookAtCustomers(context);
    return { made, changed: zones.length - made };
  },
});

/** Nobody goes there any more. What is promised there stays; the zone comes back by saving one of its name. */
export const setZoneAside = defineOperation({
  name: "set-zone-aside",
  access: "setup.change",
  input: OneZone,
  run(context, { id }) {
    if (context.sql("UPDATE zones SET active = 0 WHERE id = ?").run(id).changes === 0) throw new Refusal("not-found");
    lookAtCustomers(context);
  },
});

/** Whose customers they are is looked at anew, by and by. */
const lookAtCustomers = (context: OperationContext) => noteZonedTo(context, 0);

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
    insertRow(sql, "zone_postcodes", { zone_id: id, position: i, pattern: pattern.trim() });
}

const setAsideBefore = ({ sql }: OperationContext, name: string): number | null =>
  sql<{ id: number }>("SELECT id FROM zones WHERE name = ? AND active = 0").get(name.trim())?.id ?? null;
