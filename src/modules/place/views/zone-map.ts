import { matchWords, zoneAt } from "@/core/place/zones";
import { Refusal } from "@/core/problems";
import { addDays } from "@/core/time/dates";
import { input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { AddressId } from "../inputs";
import { boundsOf, zonesOf } from "../zones";

const OneAddress = input({ addressId: AddressId });

// Each is a shape in the page.
const mostSites = 2500;

/** The ground of every map: where the business is, the town and its roads. */
const townOf = ({ hogar, business }: ViewContext) => ({
  home: { lng: business.lng, lat: business.lat },
  town: hogar.town?.features ?? null,
  roads: hogar.town
    ? hogar.town.edges.map(([a, b]) =>
        [hogar.town!.nodes[a]!, hogar.town!.nodes[b]!].map(({ lng, lat }) => [lng, lat] as [number, number]),
      )
    : [],
});

export const townMap = defineView({ name: "town-map", access: "customers.see", input: Nothing, read: townOf });

/** What lies under the zones on the map: the town, the customers, how busy each zone is, and who lies outside of all. */
export const zoneMap = defineView({
  name: "zone-map",
  access: "setup.change of all",
  input: Nothing,
  read(context) {
    const { sql, today } = context;
    const zones = boundsOf(context);
    const load = new Map(
      sql<{ zone_id: number; visits: number }>(
        `SELECT zone_id, count(*) AS visits
          FROM visits WHERE state = 'promised' AND date BETWEEN ? AND ? GROUP BY zone_id`,
      )
        .all(today, addDays(today, 13))
        .map((row) => [row.zone_id, row.visits]),
    );
    const sites = sql<{ lng: number; lat: number; postcode: string; line: string; name: string; customer: number }>(
      `SELECT s.lng, s.lat, s.postcode, s.line, c.name, c.id AS customer
        FROM sites s JOIN customers c ON c.id = s.customer_id ORDER BY s.id DESC LIMIT ?`,
    ).all(mostSites);
    return {
      ...townOf(context),
      load: zones.map(({ id, name }) => ({ id, name, visits: load.get(id) ?? 0 })),
      customers: sites.map(({ lng, lat, postcode, name, line, customer }) => ({
        lng,
        lat,
        name,
        line,
        customer,
        zoneId: zoneAt(zones, { point: { lng, lat }, postcode, town: line.split(", ").at(-1) })?.id ?? null,
      })),
      requests: sql<{ id: number; lng: number; lat: number; name: string; address: string }>(
        "SELECT id, lng, lat, name, address FROM requests WHERE lng IS NOT NULL ORDER BY id DESC LIMIT 200",
      ).all(),
    };
  },
});

/** Which zone an address is in, and why. */
export const whichZone = defineView({
  name: "which-zone",
  access: "office.see",
  input: OneAddress,
  read(context, { addressId }) {
    const address = context.hogar.gateways.places.find(addressId);
    if (!address) throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
    return {
      point: { lng: address.lng, lat: address.lat },
      zones: zonesOf(context, address).map((match) => ({
        id: match.zone.id,
        name: match.zone.name,
        priority: match.zone.priority,
        why: matchWords(match),
      })),
    };
  },
});
