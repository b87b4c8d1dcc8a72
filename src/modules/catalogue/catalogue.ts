import {
  depositWhere,
  priceOrder,
  type Extra,
  type OrderedService,
  type OrderItem,
  type PricedOrder,
} from "@/core/catalogue/order";
import type { Coupon } from "@/core/catalogue/coupons";
import type { ItemTerms, Terms } from "@/core/catalogue/terms";
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
  /** 1 where a person confirms each booking. */
  confirm: number;
  capacity: "route" | "count" | "open" | "ask" | null;
  wish: "none" | "preferred" | "only";
  late_hours: number;
  late_fee_kind: Terms["late"]["kind"];
  late_fee_value: number;
  no_access_minor: number;
  /** JSON, as core/catalogue/checklist has it. */
  checklist: string;
  /** JSON: how often customers may have it come again. */
  repeats: string;
}

/** A service in an order, as it came in: how many of it, what was answered and added. */
export interface Item {
  serviceId: number;
  quantity: number;
  answers: Answers;
  extras: { id: number; quantity: number }[];
}
export const justOne = (serviceId: number): Item => ({ serviceId, quantity: 1, answers: {}, extras: [] });

/** The same with its service, ready to be priced. */
export interface ItemRow extends Omit<Item, "serviceId"> {
  service: ServiceRow;
  ordered: OrderedService;
}

export function readItem(context: ViewContext, { serviceId, ...item }: Item): ItemRow {
  const service = readService(context, serviceId);
  return { ...item, service, ordered: orderedService(context, service) };
}

export function readService({ sql }: ViewContext, id: number): ServiceRow {
  const service = sql<ServiceRow>("SELECT * FROM services WHERE id = ?").get(id);
  if (!service) throw new Refusal("service-not-offered");
  return service;
}

export const questionsOf = (service: Pick<ServiceRow, "questions">): Question[] =>
  JSON.parse(service.questions) as Question[];

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
    "SELECT x.*, sx.most FROM service_extras sx JOIN extras x ON x.id = sx.extra_id WHERE sx.service_id = ? AND x.active = 1 ORDER BY sx.position",
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
  { coupon = null, onOurWayBp = 0 }: { coupon?: Coupon | null; onOurWayBp?: number } = {},
): PricedOrder {
  return priceOrder({
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
  });
}

/** What is done, in words: "Chimney sweep, 2 × Alarm check". */
export const titleOf = (items: readonly Pick<ItemRow, "service" | "quantity">[]): string =>
  items.map(({ service, quantity }) => (quantity > 1 ? `${quantity} × ${service.name}` : service.name)).join(", ");

/** What is asked where a visit falls through. */
export const termsOf = (service: ServiceRow): Terms => ({
  late: { hours: service.late_hours, kind: service.late_fee_kind, value: service.late_fee_value },
  noAccessMinor: service.no_access_minor,
});

/** What an order needs room for. */
export const toPlace = (
  items: readonly Pick<ItemRow, "service" | "quantity">[],
  point: { lng: number; lat: number },
  zoneId: number | null,
  order: Pick<PricedOrder, "minutes" | "crew" | "skills">,
): VisitToPlace => ({
  point: { lng: point.lng, lat: point.lat },
  zoneId,
  serviceIds: items.map((item) => item.service.id),
  title: titleOf(items),
  minutes: order.minutes,
  before: Math.max(...items.map((item) => item.service.before_minutes)),
  after: Math.max(...items.map((item) => item.service.after_minutes)),
  crew: order.crew,
  days: items[0]!.service.days,
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

export const keptAnswers = (questions: readonly Question[], answers: Answers): KeptAnswer[] =>
  shownQuestions(questions, answers).flatMap((question) => {
    const value = answers[question.id];
    return value === undefined
      ? []
      : [
          {
            id: question.id,
            question: question.words,
            words: answerWords(question, value),
            value,
            ...(question.kind === "photo" && { photos: value as string[] }),
          },
        ];
  });

interface StoredItem {
  position: number;
  service_id: number;
  quantity: number;
  answers: string;
  extras: string;
  terms: string;
  total_minor: number;
}

const storedItems = ({ sql }: Pick<ViewContext, "sql">, jobId: number): StoredItem[] =>
  sql<StoredItem>("SELECT * FROM job_items WHERE job_id = ? ORDER BY position").all(jobId);

/** What a job is made of, to be priced again. */
export const itemsOfJob = (context: Pick<ViewContext, "sql">, jobId: number): Item[] =>
  storedItems(context, jobId).map((item) => ({
    serviceId: item.service_id,
    quantity: item.quantity,
    extras: JSON.parse(item.extras) as Item["extras"],
    answers: Object.fromEntries((JSON.parse(item.answers) as KeptAnswer[]).map(({ id, value }) => [id, value])),
  }));

/** A job's terms, service by service, as they stood when it was agreed. */
export const termsOfJob = ({ sql }: Pick<ViewContext, "sql">, jobId: number): (ItemTerms & { name: string })[] =>
  sql<StoredItem & { name: string }>(
    "SELECT i.*, s.name FROM job_items i JOIN services s ON s.id = i.service_id WHERE job_id = ? ORDER BY i.position",
  )
    .all(jobId)
    .map((item) => ({ ...(JSON.parse(item.terms) as Terms), totalMinor: item.total_minor, name: item.name }));

/** What was answered for a job: of all its services, of the owner's own fields, and the photos that came with it. */
export function answersOfJob(context: Pick<ViewContext, "sql">, jobId: number): KeptAnswer[] {
  const job = context
    .sql<{ fields: string; photos: string }>("SELECT fields, photos FROM jobs WHERE id = ?")
    .get(jobId);
  if (!job) return [];
  const photos = JSON.parse(job.photos) as string[];
  return [
    ...storedItems(context, jobId).flatMap((item) =>
      (JSON.parse(item.answers) as KeptAnswer[]).map((answer) => ({ ...answer, id: `${item.position}-${answer.id}` })),
    ),
    ...(JSON.parse(job.fields) as KeptAnswer[]),
    ...(photos.length ? [{ id: "photos", question: "Photos", words: `${photos.length}`, value: photos, photos }] : []),
  ];
}
