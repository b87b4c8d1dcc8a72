import type { Coupon } from "@/core/catalogue/coupons";
import { type Order, type PricedOrder, priceOrder } from "@/core/catalogue/order";
import type { Answers } from "@/core/catalogue/questions";
import type { RepeatEvery } from "@/core/repeats/rule";
import type { Wish } from "@/core/windows/wishes";
import type { FoundAddress } from "@/ui/address-field";
import type { ChosenExtras } from "@/ui/order-form";
import type { Offer, ServicesAt } from "./data";

export type BookableService = ServicesAt["services"][number];
export const steps = ["where", "what", "when", "who", "pay"] as const;
export type Step = (typeof steps)[number];

/** A service in the basket, with what was answered and chosen for it. */
export interface DraftItem {
  serviceId: number;
  quantity: number;
  answers: Answers;
  extras: ChosenExtras;
}

/** What a window that is kept costs: told with it, also where prices are not shown before. */
type HeldPrice = Pick<PricedOrder, "lines" | "totalMinor" | "taxMinor" | "depositMinor"> & {
  /** Of each item, in their order. */
  itemTotals: number[];
};

/** What a customer has chosen and typed so far. Kept with the tab, so that nothing is lost on a reload. */
export interface Draft {
  step: Step;
  address: FoundAddress | null;
  /** An address that is being typed in full, since the look-up does not know it. */
  typed: { line: string; postcode: string } | null;
  items: DraftItem[];
  /** The technician wished for, where the services let customers. */
  technicianId: number | null;
  repeat: RepeatEvery | null;
  note: string;
  photos: string[];
  offer: Offer | null;
  /** `until` is null when its minutes are over. */
  hold: { key: string; until: number | null; price?: HeldPrice } | null;
  /** What would suit, where no window does; and what one writes to be answered by a person. */
  wish: Wish;
  wishes: string;
  name: string;
  mail: string;
  phone: string;
  /** Answers to the owner's own fields. */
  fields: Answers;
  reminders: boolean;
  offers: boolean;
  payAll: boolean;
  atDoor: boolean;
  keepCard: boolean;
  coupon: Coupon | null;
  /** Loyalty points take something off. */
  usePoints: boolean;
  /** What stood in the link they came by. */
  source: string | null;
  /** The link of an earlier booking, by which somebody is known. */
  by: string | null;
  /** The invitation they came by. */
  invite: string | null;
}

export const emptyDraft: Draft = {
  step: "where",
  address: null,
  typed: null,
  items: [],
  technicianId: null,
  repeat: null,
  note: "",
  photos: [],
  offer: null,
  hold: null,
  wish: { weekdays: 127, from: 0, to: 1440, until: null },
  wishes: "",
  name: "",
  mail: "",
  phone: "",
  fields: {},
  reminders: false,
  offers: false,
  payAll: false,
  atDoor: false,
  keepCard: false,
  coupon: null,
  usePoints: false,
  source: null,
  by: null,
  invite: null,
};
export type Chosen = DraftItem & { service: BookableService };

/** What is in the basket of what can be booked here. */
export const chosenOf = (draft: Draft, at: ServicesAt | null): Chosen[] =>
  draft.items.flatMap((item) => {
    const service = at?.services.find((s) => s.id === item.serviceId);
    return service ? [{ ...item, service }] : [];
  });

const nowhere = { name: "", surchargeMinor: 0, smallestOrderMinor: 0 };

/** The basket priced as the server will; null while there is nothing to price. */
export const priceOf = (
  chosen: readonly Chosen[],
  at: ServicesAt | null,
  { coupon, onOurWayBp, points }: Pick<Order, "points"> & { coupon: Coupon | null; onOurWayBp: number },
): PricedOrder | null =>
  chosen.length && at
    ? priceOrder({
        items: chosen.map(({ service, quantity, answers, extras }) => ({
          service: service.ordered,
          quantity,
          answers,
          extras: extras.map((x) => ({ id: String(x.id), quantity: x.quantity })),
        })),
        // Where nobody goes to them, zones say nothing.
        zone: at.zone && chosen[0]!.service.workPlace === "site" ? at.zone : nowhere,
        pricesIncludeTax: at.pricesIncludeTax,
        onOurWayBp,
        coupon,
        points,
      })
    : null;

/** Technicians whom each of the services lets customers wish for. */
export const wishable = (chosen: readonly Chosen[]): BookableService["technicians"] =>
  (chosen[0]?.service.technicians ?? []).filter((t) =>
    chosen.every(({ service }) => service.technicians.some((other) => other.id === t.id)),
  );

/** How far somebody may be with what they have: an address, something chosen, a window, who they are. */
export function reachable(draft: Draft, wish: Step): Step {
  const has = [
    draft.address !== null,
    draft.items.length > 0,
    draft.offer !== null && draft.hold !== null,
    !!(draft.name.trim() && draft.mail.trim() && draft.phone.trim()),
  ];
  const first = has.indexOf(false);
  return steps[Math.min(steps.indexOf(wish), first < 0 ? steps.length - 1 : first)]!;
}

/** Where a photo belongs: to the order, or to a question of a service. */
export const photoPlace = (serviceId: number, questionId: string): string => `${serviceId} ${questionId}`;
export const photosOfOrder = "photos";
export const photoOfField = (fieldId: string): string => `field ${fieldId}`;

/** A draft with a photo that has arrived, in its place; a place that is gone meanwhile takes none. */
export function withPhoto(draft: Draft, place: string, token: string): Draft {
  if (place === photosOfOrder) return { ...draft, photos: [...draft.photos, token] };
  const [of = "", id = ""] = place.split(" ");
  if (of === "field") return { ...draft, fields: withToken(draft.fields, id, token) };
  return {
    ...draft,
    items: draft.items.map((item) =>
      String(item.serviceId) === of ? { ...item, answers: withToken(item.answers, id, token) } : item,
    ),
  };
}

const withToken = (answers: Answers, id: string, token: string): Answers => {
  const before = answers[id];
  return { ...answers, [id]: [...(Array.isArray(before) ? before : []), token] };
};
