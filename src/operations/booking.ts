import type { PricedOrder } from "@/core/catalogue/order";
import type { ChecklistItem } from "@/core/catalogue/checklist";
import type { Answers } from "@/core/catalogue/questions";
import { zonesAt, type Area, type ZoneBounds, type ZoneMatch } from "@/core/place/zones";
import { groupBy } from "@/core/group";
import { Refusal } from "@/core/problems";
import type { Offer } from "@/core/windows/offers";
import type { Address } from "@/gateways/types";
import { couponFor } from "./coupons";
import { keptAnswers, orderedService, priceService, questionsOf, readService, termsOf, toPlace, type Choice, type ServiceRow } from "./catalogue";
import type { OperationContext, ViewContext } from "./door";
import { makeLink } from "./links";
import { answersFor, bookableDates, nearestOffers, placeVisit, takeOut, type AskOptions, type ZoneRules } from "./placing";
import type { VisitToPlace } from "./visits";

/** What a booking is about, found again from the ids that came in. */
export interface Wanted {
  address: Address;
  zone: ZoneRules;
  service: ServiceRow;
  choice: Choice;
  visit: VisitToPlace;
  order: PricedOrder;
  couponId: number | null;
}

export interface ChosenWindow {
  date: string;
  from: number;
  to: number;
}

/** Refuses where the address, the zone, the service or an answer is not as it must be. */
export function findWanted(context: ViewContext, { addressId, serviceId, answers = {}, extras = [], technicianId = null, coupon: code = "" }: Asked): Wanted {
  const address = context.hogar.gateways.places.find(addressId);
  if (!address) throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
  const zone = zoneOf(context, address);
  if (!zone) throw new Refusal("outside-zones");
  const service = readService(context, serviceId);
  if (!service.active) throw new Refusal("service-not-offered");
  const choice = { answers, extras };
  const coupon = code.trim() ? couponFor(context, code, service.id) : null;
  const order = priceService(context, service, zone, choice, orderedService(context, service), coupon);
  const wrong = [...Object.entries(order.problems), ...lostPhotos(context, service, answers)];
  if (wrong.length) throw new Refusal("invalid-input", { fields: Object.fromEntries(wrong.map(([id, sentence]) => [`/answers/${id}`, sentence])) });
  // A wish counts where the service lets customers have one; what was wished for otherwise is no refusal.
  const wanted = technicianId !== null && service.wish !== "none" ? { technicianId, only: service.wish === "only" } : null;
  return { address, zone, service, choice, visit: { ...toPlace(service, address, zone.id, order), wanted }, order, couponId: coupon?.id ?? null };
}

/** Photos that are not kept here, by question. */
const lostPhotos = ({ sql }: ViewContext, service: ServiceRow, answers: Answers): [string, string][] =>
  questionsOf(service).flatMap((question): [string, string][] => {
    const tokens = question.kind === "photo" ? answers[question.id] : undefined;
    const lost = Array.isArray(tokens) && tokens.some((token) => !sql("SELECT 1 FROM images WHERE token = ? AND purpose = 'answer'").get(token));
    return lost ? [[question.id, "A photo did not arrive. Take it away and add it again."]] : [];
  });

/** What came in about a booking. */
export interface Asked {
  addressId: string;
  serviceId: number;
  answers?: Answers;
  extras?: Choice["extras"];
  /** The technician wished for. */
  technicianId?: number | null;
  /** A coupon's code, or nothing. */
  coupon?: string;
}

/** The zone an address lies in; null where it is in none. */
export const zoneOf = (context: ViewContext, address: Address): ZoneRules | null => zonesOf(context, address)[0]?.zone ?? null;

/** Every zone that holds an address, with why; the one that counts first. */
export const zonesOf = (context: ViewContext, address: Address): ZoneMatch<ZoneRules & ZoneBounds>[] =>
  zonesAt(boundsOf(context), { point: address, postcode: address.postcode, town: address.town });

/** All zones, with what makes them. */
export function boundsOf({ sql }: ViewContext): (ZoneRules & ZoneBounds)[] {
  const patterns = groupBy(sql<{ zone_id: number; pattern: string }>("SELECT zone_id, pattern FROM zone_postcodes").all(), (p) => p.zone_id);
  return sql<ZoneRules & { priority: number; area: string | null; towns: string }>("SELECT * FROM zones WHERE active = 1").all()
    .map((zone) => ({ ...zone, patterns: (patterns.get(zone.id) ?? []).map((p) => p.pattern), towns: JSON.parse(zone.towns) as string[], area: zone.area ? (JSON.parse(zone.area) as Area) : null }));
}

/** The answer for the chosen window as things stand now, or a refusal that brings the nearest offers. */
export function stillOffered(context: ViewContext, wanted: Wanted, window: ChosenWindow, options: Pick<AskOptions, "office"> = {}): Offer {
  const answer = answersFor(context, wanted.visit, [window.date], options).find((a) => a.from === window.from && a.to === window.to);
  if (answer?.offered) return answer;
  const answers = answersFor(context, wanted.visit, bookableDates(context), options);
  throw new Refusal("window-gone", { details: { offers: nearestOffers(answers, window.from).map(({ date, from, to }) => ({ date, from, to })) } });
}

/** Keeps room for a visit that is not promised yet: a hold, on each of its days. Answers the id of the first. */
export function takeRoom(context: OperationContext, wanted: Wanted, offer: Offer, hold: { key: string | null; until: number }): number {
  const { visit } = wanted;
  const crew = offer.technicians.slice(0, visit.crew).map((t) => Number(t.id));
  let first: number | null = null;
  for (const day of [offer, ...offer.then]) {
    const { id }: { id: number } = context.sql<{ id: number }>(
      `INSERT INTO visits (state, first_visit_id, service_id, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, meet_at, lng, lat, skills, held_until, hold_key)
       VALUES ('held', ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
    ).get(first, visit.serviceId, wanted.zone.id, day.date, day.from, day.to, visit.minutes, visit.before, visit.after, visit.crew, day.meetAt, visit.point.lng, visit.point.lat, JSON.stringify(visit.skills), hold.until, first === null ? hold.key : null)!;
    placeVisit(context, id, crew);
    first ??= id;
  }
  return first!;
}

/** Gives back the room of a hold, on all its days. */
export function releaseHold(context: OperationContext, visitId: number): void {
  for (const { id } of context.sql<{ id: number }>("SELECT id FROM visits WHERE (id = @visitId OR first_visit_id = @visitId) AND state = 'held'").all({ visitId })) {
    takeOut(context, id);
    context.sql("UPDATE visits SET state = 'cancelled', held_until = NULL WHERE id = ?").run(id);
  }
}

export interface NewJob {
  visitId: number;
  customerId: number;
  siteId: number;
  service: ServiceRow;
  choice: Choice;
  order: PricedOrder;
  note: string;
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
    `INSERT INTO jobs (customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, answers, extras, terms, coupon_id, source, booked_at, booked_by)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
  ).get(job.customerId, job.siteId, job.service.id, job.depositMinor > 0 ? "awaiting deposit" : "agreed", job.order.totalMinor, job.order.taxMinor, job.depositMinor, job.note, JSON.stringify(keptAnswers(job.service, job.choice.answers)), JSON.stringify(job.choice.extras), JSON.stringify(termsOf(job.service)), job.couponId ?? null, job.source ?? "", now, job.bookedBy)!;
  for (const [i, line] of job.order.lines.entries())
    sql("INSERT INTO job_lines VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(id, i, line.description, line.quantity, line.unitMinor, line.taxBp, line.amountMinor, line.taxMinor);
  sql("UPDATE visits SET state = 'promised', job_id = ?, held_until = NULL WHERE id = ? OR first_visit_id = ?").run(id, job.visitId, job.visitId);
  const checklist = (JSON.parse(job.service.checklist) as ChecklistItem[]).map((item) => ({ ...item, done: false }));
  sql("UPDATE visits SET checklist = ? WHERE id = ? OR first_visit_id = ?").run(JSON.stringify(checklist), job.visitId, job.visitId);
  sql("INSERT INTO promises (visit_id, made_at, window_from, window_to) SELECT id, ?, window_from, window_to FROM visits WHERE id = ? OR first_visit_id = ?").run(now, job.visitId, job.visitId);
  makeLink(context, id);
  return id;
}

export interface BookerDetails {
  name: string;
  mail: string;
  phone: string;
  reminders: boolean;
}

/** The customer of these details: the same person where mail and name are the same, otherwise a new one. */
export function customerFor({ sql, now }: OperationContext, { name, mail, phone, reminders }: BookerDetails): number {
  const tidy = name.trim().replace(/\s+/g, " ");
  const same = sql<{ id: number }>("SELECT id FROM customers WHERE mail = ? AND name = ? COLLATE NOCASE").get(mail.trim(), tidy);
  if (same) return same.id;
  return sql<{ id: number }>("INSERT INTO customers (name, mail, phone, reminders, since_at) VALUES (?, ?, ?, ?, ?) RETURNING id").get(tidy, mail.trim(), phone.trim(), reminders ? 1 : 0, now)!.id;
}

export function siteFor({ sql }: OperationContext, customerId: number, address: Address, zoneId: number): number {
  const same = sql<{ id: number }>("SELECT id FROM sites WHERE customer_id = ? AND line = ? AND postcode = ?").get(customerId, address.line, address.postcode);
  if (same) return same.id;
  return sql<{ id: number }>("INSERT INTO sites (customer_id, line, postcode, lng, lat, zone_id, access) VALUES (?, ?, ?, ?, ?, ?, '') RETURNING id")
    .get(customerId, address.line, address.postcode, address.lng, address.lat, zoneId)!.id;
}
