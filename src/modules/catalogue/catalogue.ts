import { titleOf } from "@/core/catalogue/titles";
import type { Coupon } from "@/core/catalogue/coupons";
import type { Item } from "@/core/catalogue/items";
import {
  depositWhere,
  type Extra,
  type Order,
  type OrderedService,
  type OrderItem,
  type PricedOrder,
  priceOrder,
} from "@/core/catalogue/order";
import type { Question } from "@/core/catalogue/questions";
import type { Terms } from "@/core/catalogue/terms";
import { Refusal } from "@/core/problems";
import type { WorkPlace } from "@/core/visits/work-place";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import type { ZoneRules } from "@/modules/place/zones";
import { questionsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { type JobPatternRow, readJobPattern } from "./job-patterns";

export type ServiceRow = Rows["services"];

/** The same with its service, ready to be priced. */
export interface ItemRow extends Omit<Item, "serviceId" | "patternId"> {
  service: ServiceRow;
  ordered: OrderedService;
  pattern: JobPatternRow | null;
}

export function readItem(context: ViewContext, { serviceId, patternId, ...item }: Item): ItemRow {
  const service = readService(context, serviceId);
  const pattern = patternId === undefined ? null : readJobPattern(context, patternId);
  return { ...item, service, ordered: orderedService(context, service), pattern };
}

export function readService({ sql }: ViewContext, id: number): ServiceRow {
  const service = sql<ServiceRow>("SELECT * FROM services WHERE id = ?").get(id);
  if (!service) throw new Refusal("service-not-offered");
  return service;
}

export const questionsOf = (service: Pick<ServiceRow, "questions">): Question[] =>
  questionsColumn.read(service.questions);

/** A service as core prices it. */
export function orderedService({ sql }: ViewContext, service: ServiceRow): OrderedService {
  const extras = sql<{
    id: number;
    name: string;
    unit: string;
    price_minor: number;
    cost_minor: number;
    tax_bp: number;
    most: number;
  }>(
    `SELECT x.*, sx.most
      FROM service_extras sx JOIN extras x ON x.id = sx.extra_id WHERE sx.service_id = ? AND x.active = 1
      ORDER BY sx.position`,
  )
    .all(service.id)
    .map((x): Extra => ({
      id: String(x.id),
      name: x.name,
      unit: x.unit,
      priceMinor: x.price_minor,
      costMinor: x.cost_minor,
      taxBp: x.tax_bp,
      most: x.most,
    }));
  const skills = sql<{ skill_id: number; level: number }>(
    "SELECT skill_id, level FROM service_skills WHERE service_id = ?",
  )
    .all(service.id)
    .map((s) => ({ skill: String(s.skill_id), level: s.level }));
  return {
    id: service.id,
    name: service.name,
    priceMinor: service.price_minor,
    taxBp: service.tax_bp,
    deposit: depositWhere(service.deposit_kind, service.deposit_value),
    minutes: service.minutes,
    seats: service.seats,
    crew: service.crew,
    skills,
    questions: questionsOf(service),
    extras,
  };
}

/** An order's price, minutes, crew and skills, by the one function that all screens use. */
export function priceItems(
  { business }: ViewContext,
  items: readonly ItemRow[],
  zone: Pick<ZoneRules, "name" | "surcharge_minor" | "smallest_order_minor"> | null,
  {
    coupon = null,
    onOurWayBp = 0,
    points = null,
  }: { coupon?: Coupon | null; onOurWayBp?: number; points?: Order["points"] } = {},
): PricedOrder {
  const order = priceOrder({
    items: items.map(({ ordered, quantity, answers, extras }): OrderItem => ({
      service: ordered,
      quantity,
      answers,
      extras: extras.map((x) => ({ id: String(x.id), quantity: x.quantity })),
    })),
    zone: {
      name: zone?.name ?? "",
      surchargeMinor: zone?.surcharge_minor ?? 0,
      smallestOrderMinor: zone?.smallest_order_minor ?? 0,
    },
    pricesIncludeTax: business.prices_include_tax === 1,
    onOurWayBp,
    coupon,
    points,
  });
  // A pattern may know the time and the people better than the sum of its services does.
  const { minutes, crew } = items[0]?.pattern ?? {};
  return { ...order, minutes: minutes ?? order.minutes, crew: crew ?? order.crew };
}

/** What is asked where a visit falls through. */
export const termsOf = (service: ServiceRow): Terms => ({
  late: { hours: service.late_hours, kind: service.late_fee_kind, value: service.late_fee_value },
  noAccessMinor: service.no_access_minor,
});

/** A zone as it counts for an order: not at all where nobody goes to the customer. */
export const zoneThatCounts = <Z>(items: readonly Pick<ItemRow, "service">[], zone: Z | null): Z | null =>
  items[0]!.service.work_place === "site" ? zone : null;

/** Where the technician has to be: at the customer's, or at our own place; zones count for the first alone. */
const placeOf = (
  workPlace: WorkPlace,
  address: { lng: number; lat: number },
  business: { lng: number; lat: number },
  zoneId: number | null,
): Pick<VisitToPlace, "workPlace" | "point" | "zoneId"> => {
  const { lng, lat } = workPlace === "ours" ? business : address;
  return { workPlace, point: { lng, lat }, zoneId: workPlace === "site" ? zoneId : null };
};

/** What an order needs room for. */
export const toPlace = (
  { business }: ViewContext,
  items: readonly Pick<ItemRow, "service" | "quantity">[],
  address: { lng: number; lat: number },
  zoneId: number | null,
  order: Pick<PricedOrder, "minutes" | "crew" | "skills">,
): VisitToPlace => ({
  ...placeOf(items[0]!.service.work_place, address, business, zoneId),
  serviceIds: items.map((item) => item.service.id),
  title: titleOf(items),
  minutes: order.minutes,
  seats: items[0]!.service.seats > 0 ? items[0]!.quantity : 0,
  before: Math.max(...items.map((item) => item.service.before_minutes)),
  after: Math.max(...items.map((item) => item.service.after_minutes)),
  crew: order.crew,
  days: items[0]!.service.days,
  skills: order.skills,
});
