import type { PricedOrder } from "@/core/catalogue/order";
import type { ChecklistItem, TickedItem } from "@/core/catalogue/checklist";
import type { Answers } from "@/core/catalogue/questions";
import { zonesAt, type Area, type ZoneBounds, type ZoneMatch } from "@/core/place/zones";
import { groupBy } from "@/core/group";
import { consentWords, type Consent } from "@/core/messages/consents";
import { phoneKept, phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { isOnOurWay, type Offer } from "@/core/windows/offers";
import type { Address } from "@/gateways/types";
import { couponFor, type StoredCoupon } from "./coupons";
import { noteAlike, sameOrAlike } from "./alike";
import { addressOf } from "./addresses";
import {
  keptAnswers,
  priceItems,
  questionsOf,
  readItem,
  termsOf,
  toPlace,
  type Item,
  type ItemRow,
  type KeptAnswer,
  type ServiceRow,
} from "./catalogue";
import type { OperationContext, ViewContext } from "./door";
import { makeLink } from "./links";
import {
  answersFor,
  bookableDates,
  nearestOffers,
  placeVisit,
  takeOut,
  type AskOptions,
  type ZoneRules,
} from "./placing";
import type { VisitToPlace } from "./visits";

/** What a booking is about, found again from the ids that came in. */
export interface Wanted {
  address: Address;
  /** Null outside all zones, where only the office books. */
  zone: ZoneRules | null;
  items: ItemRow[];
  visit: VisitToPlace;
  order: PricedOrder;
  coupon: StoredCoupon | null;
}

export interface ChosenWindow {
  date: string;
  from: number;
  to: number;
}

/** Refuses where the address, the zone, a service or an answer is not as it must be. */
export function findWanted(
  context: ViewContext,
  { addressId, items: asked, technicianId = null, coupon: code = "" }: Asked,
  { office = false } = {},
): Wanted {
  const address = addressOf(context, addressId);
  const zone = zoneOf(context, address);
  if (!zone && !office) throw new Refusal("outside-zones");
  const items = asked.map(({ serviceId, quantity = 1, answers = {}, extras = [] }) =>
    readItem(context, { serviceId, quantity, answers, extras }),
  );
  if (items.some(({ service }) => !service.active)) throw new Refusal("service-not-offered");
  const long = items.find(({ service }) => service.days > 1);
  if (long && (items.length > 1 || long.quantity > 1))
    throw new Refusal("invalid-input", {
      fields: { "/items": `${long.service.name} takes several days. Book it on its own.` },
    });
  const coupon = code.trim()
    ? couponFor(
        context,
        code,
        items.map(({ service }) => service.id),
      )
    : null;
  const order = priceItems(context, items, zone, { coupon });
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
    visit: { ...toPlace(items, address, zone?.id ?? null, order), wanted: wishOf(items, technicianId) },
    order,
    coupon,
  };
}

/** What an order costs in the window that was taken for it: less where that is on our way. */
export function priceIn(context: ViewContext, { items, zone, coupon, order }: Wanted, visitId: number): PricedOrder {
  const { on_our_way: onOurWay } = context
    .sql<{ on_our_way: number }>("SELECT on_our_way FROM visits WHERE id = ?")
    .get(visitId)!;
  return onOurWay && context.business.on_our_way_bp > 0
    ? priceItems(context, items, zone, { coupon, onOurWayBp: context.business.on_our_way_bp })
    : order;
}

/** A wish for a technician counts where each service lets customers have one; what was wished for otherwise is no refusal. */
const wishOf = (items: readonly ItemRow[], technicianId: number | null): VisitToPlace["wanted"] =>
  technicianId !== null && items.every(({ service }) => service.wish !== "none")
    ? { technicianId, only: items.some(({ service }) => service.wish === "only") }
    : null;

/** Whether a picture is kept here that a customer sent. */
export const isKeptPhoto = ({ sql }: ViewContext, token: string): boolean =>
  sql("SELECT 1 FROM images WHERE token = ? AND purpose = 'answer'").get(token) !== undefined;

/** Photos that are not kept here, by question. */
const lostPhotos = (context: ViewContext, service: ServiceRow, answers: Answers): [string, string][] =>
  questionsOf(service).flatMap((question): [string, string][] => {
    const tokens = question.kind === "photo" ? answers[question.id] : undefined;
    return Array.isArray(tokens) && !tokens.every((token) => isKeptPhoto(context, token))
      ? [[question.id, lostPhoto]]
      : [];
  });
export const lostPhoto = "A photo did not arrive. Take it away and add it again.";

/** What came in about a booking. */
export interface Asked {
  addressId: string;
  items: readonly (Pick<Item, "serviceId"> & Partial<Item>)[];
  /** The technician wished for. */
  technicianId?: number | null;
  /** A coupon's code, or nothing. */
  coupon?: string;
}

/** The zone an address lies in; null where it is in none. */
export const zoneOf = (context: ViewContext, address: Address): ZoneRules | null =>
  zonesOf(context, address)[0]?.zone ?? null;

/** Every zone that holds an address, with why; the one that counts first. */
export const zonesOf = (context: ViewContext, address: Address): ZoneMatch<ZoneRules & ZoneBounds>[] =>
  zonesAt(boundsOf(context), { point: address, postcode: address.postcode, town: address.town });

/** All zones, with what makes them. */
export function boundsOf({ sql }: ViewContext): (ZoneRules & ZoneBounds)[] {
  const patterns = groupBy(
    sql<{ zone_id: number; pattern: string }>("SELECT zone_id, pattern FROM zone_postcodes").all(),
    (p) => p.zone_id,
  );
  return sql<ZoneRules & { priority: number; area: string | null; towns: string }>(
    "SELECT * FROM zones WHERE active = 1",
  )
    .all()
    .map((zone) => ({
      ...zone,
      patterns: (patterns.get(zone.id) ?? []).map((p) => p.pattern),
      towns: JSON.parse(zone.towns) as string[],
      area: zone.area ? (JSON.parse(zone.area) as Area) : null,
    }));
}

/** The answer for the chosen window as things stand now, or a refusal that brings the nearest offers. */
export function stillOffered(
  context: ViewContext,
  wanted: Wanted,
  window: ChosenWindow,
  options: Pick<AskOptions, "office"> = {},
): Offer {
  const answer = answersFor(context, wanted.visit, [window.date], options).find(
    (a) => a.from === window.from && a.to === window.to,
  );
  if (answer?.offered) return answer;
  const answers = answersFor(context, wanted.visit, bookableDates(context), options);
  throw new Refusal("window-gone", {
    details: { offers: nearestOffers(answers, window.from).map(({ date, from, to }) => ({ date, from, to })) },
  });
}

/** Keeps room for a visit that is not promised yet: a hold, on each of its days. Answers the id of the first. */
export function takeRoom(
  context: OperationContext,
  wanted: Wanted,
  offer: Offer,
  hold: { key: string | null; until: number },
): number {
  const { visit } = wanted;
  const crew = offer.technicians.slice(0, visit.crew).map((t) => Number(t.id));
  let first: number | null = null;
  for (const day of [offer, ...offer.then]) {
    const { id }: { id: number } = context
      .sql<{ id: number }>(
        `INSERT INTO visits (state, first_visit_id, service_id, also, title, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, meet_at, lng, lat, skills, on_our_way, held_until, hold_key)
       VALUES ('held', ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
      )
      .get(
        first,
        visit.serviceIds[0],
        JSON.stringify(visit.serviceIds.slice(1)),
        visit.title,
        wanted.zone?.id ?? null,
        day.date,
        day.from,
        day.to,
        visit.minutes,
        visit.before,
        visit.after,
        visit.crew,
        day.meetAt,
        visit.point.lng,
        visit.point.lat,
        JSON.stringify(visit.skills),
        isOnOurWay(offer) ? 1 : 0,
        hold.until,
        first === null ? hold.key : null,
      )!;
    placeVisit(context, id, crew);
    first ??= id;
  }
  return first!;
}

/** Gives back the room of a hold, on all its days. */
export function releaseHold(context: OperationContext, visitId: number): void {
  for (const { id } of context
    .sql<{ id: number }>("SELECT id FROM visits WHERE (id = @visitId OR first_visit_id = @visitId) AND state = 'held'")
    .all({ visitId })) {
    takeOut(context, id);
    context.sql("UPDATE visits SET state = 'cancelled', held_until = NULL WHERE id = ?").run(id);
  }
}

export interface NewJob {
  /** Where its messages go, where that is not to the customer as we know them. */
  reach?: { mail: string; phone: string };
  /** What was agreed to while booking, where that was asked. */
  agreed?: { reminders: boolean; offers?: boolean };
  visitId: number;
  customerId: number;
  siteId: number;
  items: readonly ItemRow[];
  order: PricedOrder;
  note: string;
  /** Pictures beside those that answer a question. */
  photos?: readonly string[];
  /** Answers to the owner's own fields. */
  fields?: readonly KeptAnswer[];
  atDoor?: boolean;
  /** A person has still to confirm it. */
  toConfirm?: boolean;
  depositMinor: number;
  bookedBy: string;
  couponId?: number | null;
  /** Where the customer came from, as core/people/sources.ts keeps it. */
  source?: string;
}

/** Turns a hold or a forecast into a promised visit with a job, its lines and the customer's link. Answers the job's id. */
export function agreeJob(context: OperationContext, job: NewJob): number {
  const { sql, now } = context;
  const { id } = sql<{ id: number }>(
    `INSERT INTO jobs (customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, photos, fields, pays, approval, mail, phone, reminders, offers, coupon_id, source, booked_at, booked_by)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
  ).get(
    job.customerId,
    job.siteId,
    job.items[0]!.service.id,
    job.depositMinor > 0 ? "awaiting deposit" : "agreed",
    job.order.totalMinor,
    job.order.taxMinor,
    job.depositMinor,
    job.note,
    JSON.stringify(job.photos ?? []),
    JSON.stringify(job.fields ?? []),
    job.atDoor ? "at the door" : "by invoice",
    job.toConfirm ? "waiting" : "given",
    job.reach?.mail.trim() ?? "",
    job.reach ? phoneKept(job.reach.phone, context.business.phone) : "",
    agreedTo(job, "reminders"),
    agreedTo(job, "offers"),
    job.couponId ?? null,
    job.source ?? "",
    now,
    job.bookedBy,
  )!;
  for (const [i, { service, quantity, answers, extras }] of job.items.entries())
    sql("INSERT INTO job_items VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
      id,
      i,
      service.id,
      quantity,
      JSON.stringify(keptAnswers(questionsOf(service), answers)),
      JSON.stringify(extras),
      JSON.stringify(termsOf(service)),
      job.order.items[i]!.totalMinor,
    );
  for (const [i, line] of job.order.lines.entries())
    sql("INSERT INTO job_lines VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
      id,
      i,
      line.description,
      line.quantity,
      line.unitMinor,
      line.taxBp,
      line.amountMinor,
      line.taxMinor,
    );
  sql(
    "UPDATE visits SET state = 'promised', job_id = ?, held_until = NULL, checklist = ? WHERE id = ? OR first_visit_id = ?",
  ).run(id, JSON.stringify(checklistOf(job.items)), job.visitId, job.visitId);
  sql(
    "INSERT INTO promises (visit_id, made_at, window_from, window_to) SELECT id, ?, window_from, window_to FROM visits WHERE id = ? OR first_visit_id = ?",
  ).run(now, job.visitId, job.visitId);
  makeLink(context, id);
  return id;
}

/** Whoever typed who they are has agreed to what they ticked; otherwise what the customer has agreed to counts, which is null here. */
const agreedTo = ({ agreed, reach }: NewJob, kind: "reminders" | "offers"): 0 | 1 | null =>
  agreed?.[kind] ? 1 : agreed || reach ? 0 : null;

/** What is ticked off on site, of all services; ids are told apart where there are several. */
const checklistOf = (items: readonly ItemRow[]): TickedItem[] =>
  items.flatMap(({ service }, i) =>
    (JSON.parse(service.checklist) as ChecklistItem[]).map((item) => ({
      ...item,
      ...(i > 0 && { id: `${i}-${item.id}` }),
      done: false,
    })),
  );

export interface BookerDetails {
  name: string;
  mail: string;
  phone: string;
  /** What was agreed to; absent where it was not asked. */
  reminders?: boolean;
  offers?: boolean;
}

/** The customer of these details: the same person where that is certain, otherwise a new one, put side by side with those who may be the same. What was agreed to is kept in the words that were shown. */
export function customerFor(
  context: OperationContext,
  { name, mail, phone, reminders, offers }: BookerDetails,
  address: Pick<Address, "line" | "postcode">,
): number {
  const { sql, now, business } = context;
  const tidy = name.trim().replace(/\s+/g, " ");
  const wrongPhone = phoneProblem(phone, business.phone);
  if (wrongPhone) throw new Refusal("invalid-input", { fields: { "/customer/phone": wrongPhone } });
  const kept = { name: tidy, mail: mail.trim(), phone: phoneKept(phone, business.phone) };
  const found = sameOrAlike(context, { ...kept, places: [`${address.line}, ${address.postcode}`] });
  const { id } =
    found.same ??
    sql<{ id: number }>(
      "INSERT INTO customers (name, mail, phone, reminders, offers, since_at) VALUES (?, ?, ?, ?, 0, ?) RETURNING id",
    ).get(kept.name, kept.mail, kept.phone, reminders ? 1 : 0, now)!;
  if (!found.same) for (const alike of found.alike) noteAlike(context, alike, id);
  if (reminders !== undefined) recordConsent(context, id, "reminders", reminders);
  if (offers !== undefined) recordConsent(context, id, "offers", offers);
  return id;
}

/** Takes down a yes or a no, with the words as they were shown; the same answer again is not written twice. */
export function recordConsent(
  { sql, now, business }: OperationContext,
  customerId: number,
  kind: Consent,
  given: boolean,
  takenBack = false,
): void {
  const words = consentWords(business.name)[kind];
  const last = sql<{ given: number; words: string }>(
    "SELECT given, words FROM consents WHERE customer_id = ? AND kind = ? ORDER BY id DESC LIMIT 1",
  ).get(customerId, kind);
  // Somebody who books again without a tick has not taken back what they agreed to before.
  if (last && (last.given === (given ? 1 : 0) || (!given && !takenBack))) return;
  sql("INSERT INTO consents (customer_id, kind, given, words, at) VALUES (?, ?, ?, ?, ?)").run(
    customerId,
    kind,
    given ? 1 : 0,
    words,
    now,
  );
  if (kind !== "card on file") sql(`UPDATE customers SET ${kind} = ? WHERE id = ?`).run(given ? 1 : 0, customerId);
}

export function siteFor(
  { sql }: OperationContext,
  customerId: number,
  address: Pick<Address, "line" | "postcode" | "lng" | "lat">,
  zoneId: number | null,
): number {
  const same = sql<{ id: number }>("SELECT id FROM sites WHERE customer_id = ? AND line = ? AND postcode = ?").get(
    customerId,
    address.line,
    address.postcode,
  );
  if (same) return same.id;
  return sql<{ id: number }>(
    "INSERT INTO sites (customer_id, line, postcode, lng, lat, zone_id, access) VALUES (?, ?, ?, ?, ?, ?, '') RETURNING id",
  ).get(customerId, address.line, address.postcode, address.lng, address.lat, zoneId)!.id;
}
