import {
  type Minor,
  type PricedLine,
  priceLine,
  roundHalfAway,
  shareOut,
  sum,
  taxedByRate,
  totalOf,
} from "../money/amounts";
import type { SkillNeed } from "../windows/skills";
import { type Coupon, reductions } from "./coupons";
import { answerProblem, type Answers, effectsOf, type Question, shownQuestions } from "./questions";
import { counted } from "../words";

/** What is booked, and where: enough to know what it costs, how long it takes and who can do it. */
export interface Order {
  items: readonly OrderItem[];
  zone: { name: string; surchargeMinor: Minor; smallestOrderMinor: Minor };
  pricesIncludeTax: boolean;
  /** Off all of it, in basis points, for a window that adds hardly any driving. */
  onOurWayBp?: number;
  /** Taken off at the end. */
  coupon?: Coupon | null;
  /** Loyalty points that are used, with what they take off: after all else. */
  points?: { used: number; worthMinor: Minor } | null;
}

/** A service in an order, with what was answered and chosen for it. */
export interface OrderItem {
  service: OrderedService;
  /** How many of it: price, time and extras count so many times. */
  quantity: number;
  answers: Answers;
  /** Extras chosen beside the questions, with their quantity. */
  extras: readonly { id: string; quantity: number }[];
}

export interface OrderedService {
  id: number;
  name: string;
  priceMinor: Minor;
  taxBp: number;
  deposit: Deposit;
  minutes: number;
  /** How many customers share a time of it: that is as long for all, whatever one of them takes. 0: each has their own. */
  seats?: number;
  crew: number;
  skills: readonly SkillNeed[];
  questions: readonly Question[];
  extras: readonly Extra[];
}

/** A part or product that can be added. */
export interface Extra {
  id: string;
  name: string;
  /** What one of it is: "piece", "metre". */
  unit: string;
  priceMinor: Minor;
  /** What it costs the business, without tax. */
  costMinor: Minor;
  taxBp: number;
  most: number;
}

export type Deposit =
  | { kind: "none" }
  | { kind: "percent"; basisPoints: number }
  | { kind: "fixed"; amountMinor: Minor }
  | { kind: "full" };

export interface PricedOrder {
  lines: PricedLine[];
  totalMinor: Minor;
  taxMinor: Minor;
  depositMinor: Minor;
  /** Loyalty points that it takes. */
  pointsUsed: number;
  minutes: number;
  crew: number;
  skills: SkillNeed[];
  /** What the materials cost the business, without tax. */
  materialsMinor: Minor;
  /** By item: its part of the total and of the deposit, and a sentence for each question that is not answered as it must be. */
  items: { totalMinor: Minor; depositMinor: Minor; problems: Record<string, string> }[];
}

/**
 * Lines, total, deposit, minutes, crew and skills of an order: the same for the try-out, the front
 * door, the office and the invoice. The zone's surcharge and smallest order count once for all of it,
 * with the tax rate of what costs most. Each item bears its part of what is common and pays its own
 * deposit of it, so that a mixed order asks for what its services ask for.
 */
export function priceOrder({ items, zone, pricesIncludeTax, onOurWayBp = 0, coupon, points }: Order): PricedOrder {
  const priced = items.map((item) => priceItem(item, pricesIncludeTax));
  const own = priced.map((item) => sum(item.lines.map((l) => l.amountMinor)));
  const lines = priced.flatMap((item) => item.lines);
  const work = priceOfLines(lines);

  const mainTax = items[own.indexOf(Math.max(...own))]!.service.taxBp;
  const common = (description: string, unitMinor: Minor, taxBp = mainTax) =>
    lines.push(priceLine({ description, quantity: 1, unitMinor, taxBp }, pricesIncludeTax));
  if (zone.surchargeMinor > 0) common(`Surcharge ${zone.name}`, zone.surchargeMinor);
  if (work + zone.surchargeMinor < zone.smallestOrderMinor)
    common(`Smallest order ${zone.name}`, zone.smallestOrderMinor - work - zone.surchargeMinor);
  const onOurWay = reductions(lines, { kind: "percent", value: onOurWayBp });
  for (const { taxBp, minor } of onOurWay) common(`On our way, ${onOurWayBp / 100}% off`, -minor, taxBp);
  const counts = items.map(
    ({ service }) => !!coupon && (coupon.services.length === 0 || coupon.services.includes(service.id)),
  );
  // A coupon of certain services takes off their own lines only; one of all takes off what is common, too.
  const afterThat = (line: PricedLine): PricedLine => ({
    ...line,
    unitMinor: (line.unitMinor * (10_000 - onOurWayBp)) / 10_000,
  });
  const reduced = coupon?.services.length
    ? priced.flatMap((item, i) => (counts[i] ? item.lines.map(afterThat) : []))
    : [...lines];
  const before = lines.length;
  let left = priceOfLines(lines);
  for (const { taxBp, minor } of coupon ? reductions(reduced, coupon) : []) {
    const off = Math.min(minor, left);
    left -= off;
    if (off > 0) common(`Coupon ${coupon!.code}`, -off, taxBp);
  }
  const afterCoupon = lines.length;
  for (const { taxBp, minor } of points ? reductions(lines, { kind: "fixed", value: points.worthMinor }) : [])
    common(counted(points!.used, "loyalty point"), -minor, taxBp);

  const taxed = taxedByRate(lines, pricesIncludeTax);
  const { totalMinor, taxMinor } = totalOf(taxed);
  const off = shareOut(
    -sum(taxed.slice(before, afterCoupon).map((l) => l.amountMinor)),
    own.map((amount, i) => (counts[i] ? amount : 0)),
  );
  const net = own.map((amount, i) => Math.max(0, amount - off[i]!));
  const shares = shareOut(totalMinor, sum(net) > 0 ? net : own);
  const deposits = items.map(({ service }, i) => depositOf(service.deposit, shares[i]!));
  return {
    lines: taxed,
    totalMinor,
    taxMinor,
    depositMinor: sum(deposits),
    pointsUsed: points?.used ?? 0,
    minutes: sum(priced.map((item) => item.minutes)),
    crew: Math.max(...priced.map((item) => item.crew)),
    skills: joinSkills(priced.flatMap((item) => item.skills)),
    materialsMinor: sum(priced.map((item) => item.materialsMinor)),
    items: priced.map((item, i) => ({ totalMinor: shares[i]!, depositMinor: deposits[i]!, problems: item.problems })),
  };
}

interface PricedItem {
  lines: PricedLine[];
  minutes: number;
  crew: number;
  skills: SkillNeed[];
  materialsMinor: Minor;
  problems: Record<string, string>;
}

/** What the lines come to, as the business writes its prices: what a reduction is taken of. */
export const priceOfLines = (lines: readonly Pick<PricedLine, "unitMinor" | "quantity">[]): Minor =>
  sum(lines.map(priceOf));

const priceOf = ({ unitMinor, quantity }: Pick<PricedLine, "unitMinor" | "quantity">): Minor =>
  roundHalfAway(unitMinor * quantity);

/**
 * A service with its answers. A price that an answer replaces takes the place of the service's own (the
 * last one counts); what answers add are lines of their own; percentages are taken of both together,
 * one after the other. A reduction never takes the work below nothing.
 */
function priceItem({ service, quantity: times, answers, extras }: OrderItem, pricesIncludeTax: boolean): PricedItem {
  const effects = effectsOf(service.questions, answers);
  const line = (description: string, quantity: number, unitMinor: Minor, taxBp = service.taxBp): PricedLine =>
    priceLine({ description, quantity: quantity * times, unitMinor, taxBp }, pricesIncludeTax);

  const replaced = effects.filter((e) => e.effect.price?.how === "replace").at(-1)?.effect.price;
  const lines = [line(service.name, 1, replaced?.how === "replace" ? replaced.minor : service.priceMinor)];
  let worth = lines[0]!.unitMinor;
  const add = (words: string, quantity: number, unitMinor: Minor) => {
    const total = roundHalfAway(quantity * unitMinor);
    if (total === 0) return;
    // A reduction ends where nothing is left to reduce.
    lines.push(worth + total >= 0 ? line(words, quantity, unitMinor) : line(words, 1, -worth));
    worth = Math.max(0, worth + total);
  };
  for (const { effect, times: n, words } of effects) if (effect.price?.how === "add") add(words, n, effect.price.minor);
  for (const { effect, words } of effects)
    if (effect.price?.how === "percent") add(words, 1, roundHalfAway((worth * effect.price.basisPoints) / 10_000));

  const wanted = wantedExtras(
    effects.flatMap(({ effect, times: n }) => (effect.extras ?? []).map((x) => ({ ...x, quantity: x.quantity * n }))),
    extras,
  );
  const parts = service.extras.flatMap((extra) => {
    const quantity = Math.min(wanted.get(extra.id) ?? 0, extra.most);
    return quantity > 0 ? [{ extra, quantity }] : [];
  });
  for (const { extra, quantity } of parts) lines.push(line(extra.name, quantity, extra.priceMinor, extra.taxBp));
  return {
    lines,
    minutes: service.seats
      ? service.minutes
      : times *
        Math.max(
          1,
          Math.round(service.minutes + sum(effects.map(({ effect, times: n }) => (effect.minutes ?? 0) * n))),
        ),
    crew: service.seats ? service.crew : Math.max(service.crew, ...effects.map(({ effect }) => effect.crew ?? 0)),
    skills: joinSkills([...service.skills, ...effects.flatMap(({ effect }) => effect.skills ?? [])]),
    materialsMinor: sum(parts.map(({ extra, quantity }) => roundHalfAway(extra.costMinor * quantity * times))),
    problems: problemsOf(service.questions, answers),
  };
}

function problemsOf(questions: readonly Question[], answers: Answers): Record<string, string> {
  return Object.fromEntries(
    shownQuestions(questions, answers).flatMap((question) => {
      const problem = answerProblem(question, answers[question.id]);
      return problem ? [[question.id, problem]] : [];
    }),
  );
}

/** What answers bring and what was chosen, together. */
function wantedExtras(...lists: (readonly { id: string; quantity: number }[])[]): Map<string, number> {
  const wanted = new Map<string, number>();
  for (const { id, quantity } of lists.flat()) wanted.set(id, (wanted.get(id) ?? 0) + quantity);
  return wanted;
}

/** Each skill once, at the highest level that is asked for. */
function joinSkills(needs: readonly SkillNeed[]): SkillNeed[] {
  const levels = new Map<string, number>();
  for (const { skill, level = 1 } of needs) levels.set(skill, Math.max(levels.get(skill) ?? 1, level));
  return [...levels].map(([skill, level]) => ({ skill, level }));
}

/** A deposit as forms and files have it: a kind with a number, basis points or minor units. */
export const depositWhere = (kind: Deposit["kind"], value: number): Deposit =>
  kind === "percent" ? { kind, basisPoints: value } : kind === "fixed" ? { kind, amountMinor: value } : { kind };

/** What is paid while booking; never more than the order costs. */
export function depositOf(deposit: Deposit, totalMinor: Minor): Minor {
  switch (deposit.kind) {
    case "none":
      return 0;
    case "full":
      return totalMinor;
    case "fixed":
      return Math.min(deposit.amountMinor, totalMinor);
    case "percent":
      return Math.min(roundHalfAway((totalMinor * deposit.basisPoints) / 10_000), totalMinor);
  }
}
