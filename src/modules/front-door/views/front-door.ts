import type { Coupon } from "@/core/catalogue/coupons";
import { justOne } from "@/core/catalogue/items";
import type { OrderedService } from "@/core/catalogue/order";
import { priceRange } from "@/core/catalogue/price-range";
import { lookOf } from "@/core/look/front-door";
import { consentWords } from "@/core/messages/consents";
import { moneyTyped } from "@/core/money/amounts";
import { shortName } from "@/core/people/names";
import { phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { skillGap } from "@/core/windows/skills";
import { DateText, Id, input, Nothing, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { rehearse } from "@/kernel/rehearse";
import { defineView } from "@/kernel/view";
import { Booker } from "@/modules/booking/inputs";
import { findWanted } from "@/modules/booking/wanted";
import { orderedService, priceItems, type ServiceRow, termsOf, zoneThatCounts } from "@/modules/catalogue/catalogue";
import { couponFor } from "@/modules/catalogue/coupons";
import { fieldProblems } from "@/modules/catalogue/fields";
import { Answers, chosen, order, orderAbout } from "@/modules/catalogue/inputs";
import { takesCards } from "@/modules/money/cards";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { readBars } from "@/modules/placing/bars";
import { readOpening } from "@/modules/placing/opening-hours";
import { loadPlanning } from "@/modules/placing/planning";
import { pickable, soonestOffers } from "@/modules/placing/windows";
import { repeatsEveryColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { Type } from "@sinclair/typebox";
import { SaveFrontDoor } from "../inputs";
import { changeFrontDoor } from "../settings";

/** `from`: the date to begin with; absent: the soonest. */
const AskOffers = input({ addressId: chosen.addressId, ...order, from: Type.Optional(DateText) });
/** `slug`: the service whose link somebody came by. */
const ServicesAt = input({
  addressId: chosen.addressId,
  slug: Type.Optional(OrNull(Type.String({ maxLength: 80 }))),
});

/** Who books, and their answers to the owner's own fields, before all else is sent. */
const CheckBooker = input({ customer: Booker, fields: Type.Optional(Answers) });
const CheckCoupon = input({
  code: Type.String({ minLength: 1, maxLength: 40 }),
  serviceIds: Type.Array(Id, { minItems: 1, maxItems: 12 }),
});

/** The business as customers see it. */
export const frontDoor = defineView({ name: "front-door", access: "anybody", input: Nothing, read: doorOf });

/** The same as it would be with settings that are being typed. */
export const previewFrontDoor = defineView({
  name: "preview-front-door",
  access: "setup.change",
  input: SaveFrontDoor,
  read: (context, settings) => rehearse(context, (trial) => changeFrontDoor(trial, settings), doorOf),
});

function doorOf({ sql, hogar, today, business: b }: ViewContext) {
  const { welcome, picture, answers, fields, paysAtDoor, takesWishes, showsContact, doneAddress, ...door } =
    readFrontDoor(hogar.store);
  return {
    name: b.name,
    mark: b.mark,
    phone: b.phone,
    mail: b.mail,
    terms: b.terms,
    quoteText: b.quote_text,
    currency: b.currency,
    timeZone: b.time_zone,
    isDemo: b.demo_offset_ms !== null,
    today,
    holdMinutes: b.hold_minutes,
    moveHours: b.move_hours,
    lateMoves: b.late_moves,
    cancelHours: b.cancel_hours,
    onOurWayBp: b.on_our_way_bp,
    takesCards: hogar.gateways.cards !== null,
    takesRequests: b.outside === "request",
    takesCoupons: sql("SELECT 1 FROM coupons WHERE active = 1").get() !== undefined,
    look: lookOf(door),
    welcome,
    picture,
    answers,
    fields,
    paysAtDoor,
    takesWishes,
    showsContact,
    doneAddress,
    consents: consentWords(b.name),
  };
}

/** What search engines and directories are told: shown services only, prices with tax and where customers see them. */
export const businessForSearch = defineView({
  name: "business-for-search",
  access: "anybody",
  input: Nothing,
  read(context) {
    const { sql, hogar, business: b } = context;
    const amount = (minor: number) => moneyTyped(minor, b.currency);
    /** What it costs by what is answered; where the owner has a price only to begin from, that. */
    const priced = (service: ServiceRow) => {
      const { least, most } = priceRange(orderedService(context, service), b.prices_include_tax === 1);
      if (service.price_kind === "from") return { minPrice: amount(least) };
      return least === most ? { price: amount(least) } : { minPrice: amount(least), maxPrice: amount(most) };
    };
    return {
      name: b.name,
      phone: b.phone,
      mail: b.mail,
      site: b.site,
      address: b.address,
      point: { lng: b.lng, lat: b.lat },
      currency: b.currency,
      hours: [...readOpening(context).hours],
      listed: readFrontDoor(hogar.store).listed,
      publicUrl: hogar.publicUrl,
      services: sql<ServiceRow & { kind: string | null }>(
        `SELECT s.*, c.kind
          FROM services s LEFT JOIN categories c ON c.name = s.category WHERE s.active = 1 AND s.hidden = 0
          ORDER BY c.position, s.position, s.name`,
      )
        .all()
        .map((s) => ({
          name: s.name,
          description: s.description,
          category: s.category,
          kind: s.kind || null,
          slug: s.slug,
          price: s.shows_price === 1 && s.price_kind !== "quote" ? priced(s) : null,
        })),
    };
  },
});

/** What can be booked at an address: its zone's rules, and the services with their price there. No zone where it is outside of all. A hidden service is there for those who come by its link. */
export const servicesAt = defineView({
  name: "services-at",
  access: "anybody",
  input: ServicesAt,
  read(context, { addressId, slug = null }) {
    const zone = zoneOf(context, addressOf(context, addressId));
    const team = loadPlanning(context, []).technicians;
    const photos = new Map(
      context
        .sql<{ id: number; photo: string | null }>("SELECT id, photo FROM technicians")
        .all()
        .map((t) => [t.id, t.photo]),
    );
    const cards = takesCards(context);
    const bars = { site: readBars(context, zone?.id ?? null, false), elsewhere: readBars(context, null, false) };
    const services = context
      .sql<ServiceRow>(
        `SELECT s.*
          FROM services s LEFT JOIN categories c ON c.name = s.category
          WHERE s.active = 1 AND (s.hidden = 0 OR s.slug = ?)
          ORDER BY c.position, s.category, s.position, s.name`,
      )
      .all(slug)
      // Outside of all zones there is what is done at our place or from afar.
      .filter((service) => zone !== null || service.work_place !== "site")
      .map((service) => {
        const ordered = orderedService(context, service);
        const item = { ...justOne(service.id), service, ordered, pattern: null };
        const order = priceItems(context, [item], zoneThatCounts([item], zone));
        // A price that is not shown is told with the window that is kept, and to nobody before.
        const shows = service.shows_price === 1;
        return {
          id: service.id,
          code: service.code,
          name: service.name,
          category: service.category,
          description: service.description,
          hue: service.hue,
          minutes: service.minutes,
          days: service.days,
          seats: service.seats,
          workPlace: service.work_place,
          slug: service.slug,
          picture: service.picture,
          priceKind: service.price_kind,
          showsPrice: shows,
          showsMinutes: service.shows_minutes === 1,
          mayPayAll: service.may_pay_all === 1,
          terms: termsOf(service),
          wish: service.wish,
          repeats: repeatsEveryColumn.read(service.repeats),
          technicians:
            service.wish === "none" || service.crew > 1
              ? []
              : team
                  .filter(
                    (t) =>
                      !bars[service.work_place === "site" ? "site" : "elsewhere"].of(t.id, [service.id]) &&
                      !skillGap(t.skills, ordered.skills, context.today),
                  )
                  .map(({ id, name }) => ({ id, name: shortName(name), photo: photos.get(id) ?? null })),
          asksFirst: (service.capacity ?? context.business.capacity) === "ask",
          lines: shows ? order.lines.map((l) => ({ description: l.description, amountMinor: l.amountMinor })) : [],
          totalMinor: shows ? order.totalMinor : 0,
          depositMinor: shows && cards ? order.depositMinor : 0,
          /** What core needs to price it while it is being answered. What materials cost the business stays inside. */
          ordered: seenByCustomers(ordered, { shows, cards }),
        };
      });
    return {
      pricesIncludeTax: context.business.prices_include_tax === 1,
      zone: zone && {
        name: zone.name,
        weekdays: zone.weekdays,
        serveFrom: zone.serve_from,
        serveTo: zone.serve_to + zone.serve_past,
        surchargeMinor: zone.surcharge_minor,
        smallestOrderMinor: zone.smallest_order_minor,
        noticeMinutes: zone.notice_minutes,
      },
      services,
    };
  },
});

/** A service as its customers' browsers price it: without what materials cost us, and without any price where that is not shown. */
function seenByCustomers(
  ordered: OrderedService,
  { shows, cards }: { shows: boolean; cards: boolean },
): OrderedService {
  const seen = {
    ...ordered,
    ...(!cards && { deposit: { kind: "none" } as const }),
    extras: ordered.extras.map((x) => ({ ...x, costMinor: 0 })),
  };
  return shows ? seen : { ...withoutAmounts(seen), deposit: { kind: "none" } };
}

/** The same with every amount of money 0. */
const withoutAmounts = <T>(value: T): T =>
  JSON.parse(JSON.stringify(value, (key, entry: unknown) => (key.endsWith("Minor") ? 0 : entry))) as T;

/** Whether somebody can be reached as they say, and has answered what the owner asks of everybody: refused with the sentences that booking would say. */
export const checkBooker = defineView({
  name: "check-booker",
  access: "anybody",
  input: CheckBooker,
  read(context, { customer, fields = {} }) {
    const phone = phoneProblem(customer.phone, context.business.phone);
    const wrong = { ...(phone && { "/customer/phone": phone }), ...fieldProblems(context, fields) };
    if (Object.keys(wrong).length) throw new Refusal("invalid-input", { fields: wrong });
  },
});

/** What a code takes off, for the services that are being booked; refused with a sentence where it does not count. */
export const checkCoupon = defineView({
  name: "check-coupon",
  access: "anybody",
  about: { serviceIds: "shared" },
  input: CheckCoupon,
  read(context, { code: typed, serviceIds }): Coupon {
    const { code, kind, value, services } = couponFor(context, typed, serviceIds);
    return { code, kind, value, services };
  },
});

/** The windows of the soonest days that can be promised; those with little extra driving are marked as on our way. `next` is the date to go on with. */
export const offers = defineView({
  name: "offers",
  access: "anybody",
  about: orderAbout,
  input: AskOffers,
  read(context, { from, ...asked }) {
    const { visit } = findWanted(context, asked);
    const { offers, next } = soonestOffers(context, visit, from);
    return {
      windows: offers.map((offer) => pickable(context, visit, offer)),
      next,
    };
  },
});
