import { addDays } from "../time/dates";
import { epochMinute, localOf } from "../time/local";
import type { AllowedHours } from "./moments";

/** What becomes of a moment outside the allowed hours. */
export type Outside = "earlier" | "later" | "drop";

/** When a message about a visit falls: at a time of day (a minute) so many days before its local date, or so many elapsed minutes before its window opens. */
export type FallRule = { id: string; outside?: Outside | undefined } & (
  { daysBefore: number; at: number } | { minutesBefore: number }
);

/** A visit as it was promised: from `told` on, then anew with each move, until it is cancelled. Epoch minutes. */
export interface PromisedVisit {
  id: string;
  customer: string;
  /** When its window opens. */
  from: number;
  told: number;
  moved?: readonly { at: number; from: number }[] | undefined;
  cancelled?: number | null | undefined;
  /** Moments up to this one have been dealt with. */
  lookedAt?: number;
}

/** Why a message is not sent. */
export type WhyDropped = "outside" | "pointless" | "told";

export interface FallingMessage {
  visit: string;
  rule: string;
  at: number;
  /** When the window opens that it speaks of. */
  from: number;
  /** Other visits of the customer that it speaks of. */
  with: string[];
}

export interface Falling {
  zone: string;
  hours: AllowedHours;
  rules: readonly FallRule[];
  now: number;
  until: number;
  /** What has gone out before: it neither comes again nor takes others along. */
  isSent?: (visit: string, rule: string, from: number) => boolean;
}

/**
 * When messages about visits fall: in order of time, rule, visit; and which are dropped, and why. For each promise and
 * rule there is one moment. Of what is left and lies in [now, until), messages of one rule to one customer on one local
 * day are one.
 */
export function messagesOf(
  visits: readonly PromisedVisit[],
  { zone, hours, rules, now, until, isSent = () => false }: Falling,
): { messages: FallingMessage[]; dropped: { visit: string; rule: string; why: WhyDropped }[] } {
  const due: (FallingMessage & { customer: string })[] = [];
  const dropped: { visit: string; rule: string; why: WhyDropped }[] = [];
  for (const visit of visits)
    for (const promise of promisesOf(visit))
      for (const rule of rules) {
        const wished = wishedMoment(promise.from, rule, zone);
        const at = intoHours(wished, rule.outside ?? "later", hours, zone);
        const why = at === null ? "outside" : at >= promise.from ? "pointless" : at <= promise.at ? "told" : null;
        if (why !== null) dropped.push({ visit: visit.id, rule: rule.id, why });
        else if (
          at! < promise.ends &&
          at! >= now &&
          at! > (visit.lookedAt ?? -Infinity) &&
          at! < until &&
          !isSent(visit.id, rule.id, promise.from)
        )
          due.push({ visit: visit.id, rule: rule.id, at: at!, from: promise.from, with: [], customer: visit.customer });
      }
  return { messages: together(due, zone), dropped };
}

interface Promise {
  /** When it was made, and when it ended: moved, cancelled or never. */
  at: number;
  ends: number;
  from: number;
}

/** Each visit has one promise after the other. */
function promisesOf({ told, from, moved = [], cancelled }: PromisedVisit): Promise[] {
  const made = [{ at: told, from }, ...[...moved].sort((a, b) => a.at - b.at)];
  const over = cancelled ?? Infinity;
  return made
    .map(({ at, from }, i) => ({ at, from, ends: Math.min(made[i + 1]?.at ?? Infinity, over) }))
    .filter(({ at }) => at < over || at === told);
}

const wishedMoment = (from: number, rule: FallRule, zone: string): number =>
  "daysBefore" in rule
    ? epochMinute(addDays(localOf(from, zone).date, -rule.daysBefore), rule.at, zone)
    : from - rule.minutesBefore;

/** The moment itself within the allowed hours; outside them the last allowed one before or the next allowed one, or null where it is dropped. */
export function intoHours(moment: number, outside: Outside, hours: AllowedHours, zone: string): number | null {
  const isAllowed = (epoch: number) => {
    const { minute } = localOf(epoch, zone);
    return minute >= hours.from && minute < hours.to;
  };
  if (isAllowed(moment)) return moment;
  if (outside === "drop") return null;
  const { date, minute } = localOf(moment, zone);
  const nearest =
    outside === "earlier"
      ? epochMinute(addDays(date, minute < hours.from ? -1 : 0), hours.to - 1, zone)
      : epochMinute(addDays(date, minute < hours.from ? 0 : 1), hours.from, zone);
  // On days of 24 hours that is it. Where clocks change, a time of day may be there twice or not at all: minute by minute.
  const isPlain = [-1, 0, 1].every((n) => lengthOf(addDays(date, n), zone) === 1440);
  if (isPlain) return nearest;
  const step = outside === "earlier" ? -1 : 1;
  let allowed = moment + step;
  while (!isAllowed(allowed)) allowed += step;
  return allowed;
}

const lengthOf = (date: string, zone: string): number =>
  epochMinute(addDays(date, 1), 0, zone) - epochMinute(date, 0, zone);

/** Messages of one rule to one customer on one local day are one, at the earliest moment, under the visit whose window opens first. */
function together(due: readonly (FallingMessage & { customer: string })[], zone: string): FallingMessage[] {
  const groups = new Map<string, (FallingMessage & { customer: string })[]>();
  for (const message of due) {
    const key = JSON.stringify([message.customer, message.rule, localOf(message.at, zone).date]);
    groups.set(key, [...(groups.get(key) ?? []), message]);
  }
  return [...groups.values()]
    .flatMap((some) => {
      const inOrder = [...some].sort((a, b) => a.from - b.from || compared(a.visit, b.visit));
      const visits = [...new Set(inOrder.map(({ visit }) => visit))];
      const [first, ...others] = visits;
      const named = inOrder[0]!;
      return others.length === 0
        ? inOrder.map(({ visit, rule, at, from }) => ({ visit, rule, at, from, with: [] }))
        : [
            {
              visit: first!,
              rule: named.rule,
              at: Math.min(...some.map(({ at }) => at)),
              from: named.from,
              with: others,
            },
          ];
    })
    .sort((a, b) => a.at - b.at || compared(a.rule, b.rule) || compared(a.visit, b.visit));
}

/**
 * Of messages that have fallen due at once, since a clock jumped or a server stood, the last of each kind for each visit; an
 * earlier one that speaks of other visits too speaks of those alone. In order of time.
 */
export function lastOfEachKind(due: readonly FallingMessage[], kindOf: (rule: string) => string): FallingMessage[] {
  const said = new Set<string>();
  return [...due]
    .sort((a, b) => b.at - a.at || compared(b.rule, a.rule))
    .flatMap((message) => {
      const key = (visit: string) => JSON.stringify([kindOf(message.rule), visit]);
      const [visit, ...others] = [message.visit, ...message.with].filter((one) => !said.has(key(one)));
      if (visit === undefined) return [];
      for (const one of [visit, ...others]) said.add(key(one));
      return [{ ...message, visit, with: others }];
    })
    .reverse();
}

const compared = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
