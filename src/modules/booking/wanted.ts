import { wishThatCounts } from "@/core/catalogue/baskets";
import { type Item } from "@/core/catalogue/items";
import { type PricedOrder, priceOfLines } from "@/core/catalogue/order";
import type { Answers } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { Address } from "@/gateways/types";
import type { ViewContext } from "@/kernel/operation";
import {
  type ItemRow,
  priceItems,
  questionsOf,
  readItem,
  type ServiceRow,
  toPlace,
} from "@/modules/catalogue/catalogue";
import { itemsOf } from "@/modules/catalogue/inputs";
import { couponFor, type StoredCoupon } from "@/modules/catalogue/coupons";
import { mustGoTogether } from "@/modules/catalogue/together";
import { pointsFor } from "@/modules/money/points";
import { isKeptPhoto, lostPhoto } from "@/modules/pictures/photos";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf, type ZoneRules } from "@/modules/place/zones";

/** What a booking is about, found again from the ids that came in. */
export interface Wanted {
  address: Address;
  /** Null outside all zones, where only the office books; and where nobody goes to the customer. */
  zone: ZoneRules | null;
  items: ItemRow[];
  visit: VisitToPlace;
  order: PricedOrder;
  coupon: StoredCoupon | null;
  /** Whose loyalty points are used for it, if anybody's. */
  pointsCustomerId: number | null;
}

/** Refuses where the address, the zone, a service or an answer is not as it must be. */
export function findWanted(
  context: ViewContext,
  { addressId, items: asked, technicianId = null, coupon: code = "", slug = null }: Asked,
  { office = false, isAsked = false, pointsOf: pointsCustomerId = null as number | null } = {},
): Wanted {
  const address = addressOf(context, addressId);
  const items = itemsOf(asked).map((item) => readItem(context, item));
  // What is hidden is booked by its own link, by ourselves, and where it was asked for before.
  const ours = office || isAsked || context.actor.kind === "person" || context.actor.kind === "system";
  const isShown = ({ service }: ItemRow) => service.hidden === 0 || service.slug === slug || ours;
  if (!items.every((item) => item.service.active && isShown(item))) throw new Refusal("service-not-offered");
  const [{ service: first }] = items as [ItemRow];
  // Where nobody goes to them, it is of no account where they live: no zone, no surcharge, no days of its own.
  const zone = first.work_place === "site" ? zoneOf(context, address) : null;
  if (!zone && !office && first.work_place === "site") throw new Refusal("outside-zones");
  mustGoTogether(items);
  const coupon = code.trim()
    ? couponFor(
        context,
        code,
        items.map(({ service }) => service.id),
      )
    : null;
  const order = withPoints(context, { items, zone, coupon, pointsCustomerId }, 0);
  const wrong = items.flatMap(({ service, answers }, i) =>
    [...Object.entries(order.items[i]!.problems), ...lostPhotos(context, service, answers)].map(([id, sentence]) => [
      `/items/${i}/answers/${id}`,
      sentence,
    ]),
  );
  // The office has spoken with them: what a page must ask need not be answered.
  if (wrong.length && !office)
    throw new Refusal("invalid-input", { fields: Object.fromEntries(wrong) as Record<string, string> });
  return {
    address,
    zone,
    items,
    visit: {
      ...toPlace(context, items, address, zone?.id ?? null, order),
      wanted: wishThatCounts(items, technicianId),
    },
    order,
    coupon,
    pointsCustomerId,
  };
}

/** What it costs, with the points of whoever uses theirs: as many as the price of this window takes. */
function withPoints(
  context: ViewContext,
  { items, zone, coupon, pointsCustomerId }: Pick<Wanted, "items" | "zone" | "coupon" | "pointsCustomerId">,
  onOurWayBp: number,
): PricedOrder {
  const order = priceItems(context, items, zone, { coupon, onOurWayBp });
  const points = pointsCustomerId === null ? null : pointsFor(context, pointsCustomerId, priceOfLines(order.lines));
  return points ? priceItems(context, items, zone, { coupon, onOurWayBp, points }) : order;
}

/** What an order costs in the window that was taken for it: less where that is on our way. */
export function priceIn(context: ViewContext, wanted: Wanted, visitId: number): PricedOrder {
  const { on_our_way: onOurWay } = context
    .sql<{ on_our_way: number }>("SELECT on_our_way FROM visits WHERE id = ?")
    .get(visitId)!;
  return onOurWay && context.business.on_our_way_bp > 0
    ? withPoints(context, wanted, context.business.on_our_way_bp)
    : wanted.order;
}

/** Photos that are not kept here, by question. */
const lostPhotos = (context: ViewContext, service: ServiceRow, answers: Answers): [string, string][] =>
  questionsOf(service).flatMap((question): [string, string][] => {
    const tokens = question.kind === "photo" ? answers[question.id] : undefined;
    return Array.isArray(tokens) && !tokens.every((token) => isKeptPhoto(context, token))
      ? [[question.id, lostPhoto]]
      : [];
  });

/** What came in about a booking. */
export interface Asked {
  addressId: string;
  items: readonly (Pick<Item, "serviceId"> & Partial<Item>)[];
  /** The technician wished for. */
  technicianId?: number | null;
  /** The service's own link by which they came. */
  slug?: string | null;
  /** A coupon's code, or nothing. */
  coupon?: string;
}
