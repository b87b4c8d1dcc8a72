import { addDays, datesFrom, type LocalDate, servesWeekday } from "../time/dates";
import { epochMinute, localDate } from "../time/local";
import type { Minor } from "./amounts";

/** When what is due is collected, and what of it. Times are minutes of the day, as a wall clock shows them. */
export interface CollectionRules {
  zone: string;
  /** Bit 0 is Monday. */
  weekdays: number;
  time: number;
  /** So many days past due: 0 is due that day or earlier. */
  daysPastDue: number;
  /** What is open below it is left. */
  smallest: Minor;
  /** What the card service takes at most, of one payment and on one day; absent: it says nothing. */
  largest?: Minor | undefined;
  daySum?: Minor | undefined;
}

/** An open invoice, or a dated part of one. */
export interface Collectable {
  id: string;
  openMinor: Minor;
  due: LocalDate;
  /** Since when it stands as it is, in epoch minutes: its notice says so. */
  known: number;
  /** On or after a day of its own, instead of by its due date. */
  date?: LocalDate | undefined;
  /** Not collected by itself. */
  never?: boolean | undefined;
}

export type WhyLeft = "never" | "too small" | "too large" | "later";

export interface Collection<C extends Collectable> {
  /** Epoch minute. */
  at: number;
  taken: C[];
  sumMinor: Minor;
}

/** A run and the moment at which its notices go out: its own local time on the day before. Epoch minutes. */
export interface Run {
  date: LocalDate;
  at: number;
  noticeAt: number;
}

export const runOn = ({ zone, time }: Pick<CollectionRules, "zone" | "time">, date: LocalDate): Run => ({
  date,
  at: epochMinute(date, time, zone),
  noticeAt: epochMinute(addDays(date, -1), time, zone),
});

/** The runs between two moments, neither included, in order. */
export const runsBetween = (rules: CollectionRules, from: number, until: number): Run[] =>
  datesFrom(addDays(localDate(from, rules.zone), -1), addDays(localDate(until, rules.zone), 1))
    .filter((date) => servesWeekday(rules.weekdays, date))
    .map((date) => runOn(rules, date))
    .filter(({ at }) => at > from && at < until);

/** Why an invoice is taken by no run, whatever comes; null where one will take it. */
export function whyNever(
  { never, openMinor }: Collectable,
  { smallest, largest = Infinity, daySum = Infinity }: CollectionRules,
): WhyLeft | null {
  if (never) return "never";
  if (openMinor > Math.min(largest, daySum)) return "too large";
  return openMinor < Math.max(1, smallest) ? "too small" : null;
}

/** Whether a run takes an invoice that is open: its day has come, and its notice said what it is. */
export const takes = (
  run: Run,
  { due, known, date }: Collectable,
  { daysPastDue }: Pick<CollectionRules, "daysPastDue">,
): boolean => run.date >= (date ?? addDays(due, daysPastDue)) && known <= run.noticeAt;

/**
 * Which run takes which invoice, if each is paid at its first charge: the first that takes it. Runs that take nothing are
 * left out; within a run invoices come in order of due date, then id; what is left in order of id.
 */
export function planCollection<C extends Collectable>(
  rules: CollectionRules,
  invoices: readonly C[],
  { now, until }: { now: number; until: number },
): { runs: Collection<C>[]; left: { invoice: C; why: WhyLeft }[] } {
  const runs = runsBetween(rules, now, until).map((run) => ({ run, taken: [] as C[], sumMinor: 0 }));
  const hasRoom = (sumMinor: Minor, more: Minor) => sumMinor + more <= (rules.daySum ?? Infinity);
  const left: { invoice: C; why: WhyLeft }[] = [];
  for (const invoice of [...invoices].sort(byDueDate)) {
    const why = whyNever(invoice, rules);
    const first =
      why === null
        ? runs.find(({ run, sumMinor }) => takes(run, invoice, rules) && hasRoom(sumMinor, invoice.openMinor))
        : undefined;
    if (first) {
      first.taken.push(invoice);
      first.sumMinor += invoice.openMinor;
    } else left.push({ invoice, why: why ?? "later" });
  }
  return {
    runs: runs
      .filter(({ taken }) => taken.length > 0)
      .map(({ run, taken, sumMinor }) => ({ at: run.at, taken, sumMinor })),
    left: left.sort((a, b) => compared(a.invoice.id, b.invoice.id)),
  };
}

/** What helps after a decline: trying later, another card, or nothing. */
export type DeclineKind = "later" | "another" | "never";

/**
 * What follows when a card did not pay: the next card of its owner in their order, the first again some days later, or
 * nothing by itself any more. `cards` may be charged still; `tried` were in this run, `runs` tried it in all.
 */
export function nextTry<Card>({
  declined,
  cards,
  tried,
  mostCards,
  runs,
  againDays,
}: {
  declined: DeclineKind;
  cards: readonly Card[];
  tried: readonly Card[];
  mostCards: number;
  runs: number;
  /** Days after which is tried again, one run after the other. */
  againDays: readonly number[];
}): { card: Card } | { days: number } | null {
  const card = tried.length < mostCards ? cards.find((one) => !tried.includes(one)) : undefined;
  if (card !== undefined) return { card };
  const days = declined === "later" ? againDays[runs - 1] : undefined;
  return days === undefined ? null : { days };
}

const compared = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const byDueDate = (a: Collectable, b: Collectable): number => compared(a.due, b.due) || compared(a.id, b.id);
