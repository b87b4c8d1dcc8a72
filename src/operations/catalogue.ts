import { depositWhere, priceOrder, type Extra, type OrderedService, type PricedOrder } from "@/core/catalogue/order";
import type { Coupon } from "@/core/catalogue/coupons";
import type { Terms } from "@/core/catalogue/terms";
import { answerWords, shownQuestions, type Answers, type Question } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import type { ViewContext } from "./door";
import type { ZoneRules } from "./placing";
import type { VisitToPlace } from "./visits";

export interface ServiceRow {
  id: number;
  code: string;
  name: string;
  price_minor: number;
  tax_bp: number;
  minutes: number;
  before_minutes: number;
  after_minutes: number;
  crew: number;
  days: number;
  deposit_kind: "none" | "percent" | "fixed" | "full";
  deposit_value: number;
  /** JSON, as core/catalogue/questions has them. */
  questions: string;
  active: number;
  may_pay_all: number;
  capacity: "route" | "count" | "open" | "ask" | null;
  wish: "none" | "preferred" | "only";
  late_hours: number;
  late_fee_kind: Terms["late"]["kind"];
  late_fee_value: number;
  no_access_minor: number;
  /** JSON, as core/catalogue/checklist has it. */
  checklist: string;
}

/** What a customer answered and added. */
export interface Choice {
  answers: Answers;
  extras: { id: number; quantity: number }[];
}
export const nothingChosen: Choice = { answers: {}, extras: [] };

export function readService({ sql }: ViewContext, id: number): ServiceRow {
  const service = sql<ServiceRow>("SELECT * FROM services WHERE id = ?").get(id);
  if (!service) throw new Refusal("service-not-offered");
  return service;
}

export const questionsOf = (service: Pick<ServiceRow, "questions">): Question[] => JSON.parse(service.questions) as Question[];

/** A service as core prices it. */
export function orderedService({ sql }: ViewContext, service: ServiceRow): OrderedService {
  const extras = sql<{ id: number; name: string; unit: string; price_minor: number; cost_minor: number; tax_bp: number; most: number }>(
    "SELECT x.*, sx.most FROM service_extras sx JOIN extras x ON x.id = sx.extra_id WHERE sx.service_id = ? AND x.active = 1 ORDER BY sx.position",
  ).all(service.id).map((x): Extra => ({ id: String(x.id), name: x.name, unit: x.unit, priceMinor: x.price_minor, costMinor: x.cost_minor, taxBp: x.tax_bp, most: x.most }));
  const skills = sql<{ skill_id: number; level: number }>("SELECT skill_id, level FROM service_skills WHERE service_id = ?").all(service.id).map((s) => ({ skill: String(s.skill_id), level: s.level }));
  return { name: service.name, priceMinor: service.price_minor, taxBp: service.tax_bp, deposit: depositWhere(service.deposit_kind, service.deposit_value), minutes: service.minutes, crew: service.crew, skills, questions: questionsOf(service), extras };
}

/** An order's price, minutes, crew and skills, by the one function that all screens use. */
export function priceService(context: ViewContext, service: ServiceRow, zone: Pick<ZoneRules, "name" | "surcharge_minor" | "smallest_order_minor"> | null, { answers, extras }: Choice = nothingChosen, ordered = orderedService(context, service), coupon: Coupon | null = null): PricedOrder {
  return priceOrder({
    service: ordered,
    answers,
    extras: extras.map((x) => ({ id: String(x.id), quantity: x.quantity })),
    zone: { name: zone?.name ?? "", surchargeMinor: zone?.surcharge_minor ?? 0, smallestOrderMinor: zone?.smallest_order_minor ?? 0 },
    pricesIncludeTax: context.business.prices_include_tax === 1,
    coupon,
  });
}

/** What is asked where a visit falls through. */
export const termsOf = (service: ServiceRow): Terms => ({ late: { hours: service.late_hours, kind: service.late_fee_kind, value: service.late_fee_value }, noAccessMinor: service.no_access_minor });

/** What an order needs room for. */
export const toPlace = (service: ServiceRow, point: { lng: number; lat: number }, zoneId: number | null, order: Pick<PricedOrder, "minutes" | "crew" | "skills">): VisitToPlace => ({
  point: { lng: point.lng, lat: point.lat },
  zoneId,
  serviceId: service.id,
  minutes: order.minutes,
  before: service.before_minutes,
  after: service.after_minutes,
  crew: order.crew,
  days: service.days,
  skills: order.skills,
});

/** Answers as a job keeps them: in words, since the questions may change, and as they were given. */
export interface KeptAnswer {
  id: string;
  question: string;
  words: string;
  value: Answers[string];
  /** Tokens of pictures, where they are the answer. */
  photos?: string[];
}

export const keptAnswers = (service: ServiceRow, answers: Answers): KeptAnswer[] =>
  shownQuestions(questionsOf(service), answers).flatMap((question) => {
    const value = answers[question.id];
    return value === undefined ? [] : [{ id: question.id, question: question.words, words: answerWords(question, value), value, ...(question.kind === "photo" && { photos: value as string[] }) }];
  });

/** What was chosen for a job, to be priced again. */
export const choiceOf = (job: { answers: string; extras: string }): Choice => ({
  answers: Object.fromEntries((JSON.parse(job.answers) as KeptAnswer[]).map(({ id, value }) => [id, value])),
  extras: JSON.parse(job.extras) as Choice["extras"],
});
