import { AskOffers, FindAddress, OneAddress } from "@/schemas/booking";
import { Nothing } from "@/schemas/money";
import { findWanted, zoneOf } from "@/operations/booking";
import { nothingChosen, orderedService, priceService, type ServiceRow } from "@/operations/catalogue";
import { answersFor, bookableDates } from "@/operations/placing";
import { Refusal } from "@/core/problems";
import { isOnOurWay } from "@/core/windows/offers";
import { defineView } from "./view";

/** The business as customers see it. */
export const frontDoor = defineView({
  name: "front-door",
  access: "anybody",
  input: Nothing,
  read: ({ business: b }) => ({ name: b.name, phone: b.phone, mail: b.mail, currency: b.currency, timeZone: b.time_zone, isDemo: b.demo_offset_ms !== null, holdMinutes: b.hold_minutes }),
});

export const findAddress = defineView({
  name: "find-address",
  access: "anybody",
  input: FindAddress,
  read: ({ hogar }, { text }) => hogar.gateways.places.suggest(text, 8).map(({ id, line, postcode }) => ({ id, line, postcode })),
});

/** What can be booked at an address: its zone's rules, and the services with their price there. No zone where it is outside of all. */
export const servicesAt = defineView({
  name: "services-at",
  access: "anybody",
  input: OneAddress,
  read(context, { addressId }) {
    const address = context.hogar.gateways.places.find(addressId);
    if (!address) throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
    const zone = zoneOf(context, address);
    if (!zone) return { zone: null, pricesIncludeTax: true, services: [] };
    const services = context.sql<ServiceRow & { category: string; description: string; hue: number; capacity: string | null }>("SELECT * FROM services WHERE active = 1 ORDER BY category, price_minor").all().map((service) => {
      const ordered = orderedService(context, service);
      const order = priceService(context, service, zone, nothingChosen, ordered);
      return {
        id: service.id, code: service.code, name: service.name, category: service.category, description: service.description, hue: service.hue, minutes: service.minutes, days: service.days,
        asksFirst: (service.capacity ?? context.business.capacity) === "ask",
        lines: order.lines.map((l) => ({ description: l.description, amountMinor: l.amountMinor })), totalMinor: order.totalMinor, depositMinor: order.depositMinor,
        /** What core needs to price it while it is being answered. What materials cost the business stays inside. */
        ordered: { ...ordered, extras: ordered.extras.map((x) => ({ ...x, costMinor: 0 })) },
      };
    });
    return {
      pricesIncludeTax: context.business.prices_include_tax === 1,
      zone: { name: zone.name, weekdays: zone.weekdays, serveFrom: zone.serve_from, serveTo: zone.serve_to, surchargeMinor: zone.surcharge_minor, smallestOrderMinor: zone.smallest_order_minor, noticeMinutes: zone.notice_minutes },
      services,
    };
  },
});

/** The windows that can be promised, soonest first; those with little extra driving are marked as on our way. */
export const offers = defineView({
  name: "offers",
  access: "anybody",
  input: AskOffers,
  read(context, asked) {
    const { visit } = findWanted(context, asked);
    return answersFor(context, visit, bookableDates(context)).flatMap((a) => (a.offered ? [{ date: a.date, from: a.from, to: a.to, then: a.then.map((day) => day.date), onOurWay: isOnOurWay(a) }] : []));
  },
});
