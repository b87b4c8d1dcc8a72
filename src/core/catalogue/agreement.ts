import type { Problem } from "../problems";
import type { Minor } from "../money/amounts";
import { durationWords } from "../time/words";
import { type CutOffs, movedUntilHours } from "./cut-off";
import { type ItemTerms, lateFee, noAccessFee, orderTermsWords } from "./terms";

/** What somebody agrees to when they book, as they have read it. */
export interface Agreement {
  totalMinor: Minor;
  /** Of which so much is paid with the booking. */
  nowMinor: Minor;
  /** Until how many hours before its window it is moved, and cancelled, by themselves. */
  moveHours: number;
  cancelHours: number;
  /** What is asked where it falls through, of each service. */
  items: (ItemTerms & { name: string })[];
  /** The owner's own terms. */
  words: string;
}

export const agreementOf = (
  { moveHours, cancelHours, lateMoves, terms: words }: CutOffs & { terms: string },
  { items, totalMinor, nowMinor }: Pick<Agreement, "items" | "totalMinor" | "nowMinor">,
): Agreement => ({
  totalMinor,
  nowMinor,
  moveHours: movedUntilHours({ moveHours, lateMoves }, items),
  cancelHours,
  items: [...items],
  words,
});

/** One thing that is dearer or stricter than what was read, in words; `before` and `now` stand side by side. */
export interface Harsher {
  what: string;
  before: string;
  now: string;
}

/** What is dearer or stricter now than it was when somebody read it; what has become cheaper or milder says nothing. */
export function harsher(read: Agreement, now: Agreement, money: (minor: Minor) => string): Harsher[] {
  const hours = (n: number) => (n === 0 ? "until it begins" : `until ${durationWords(n * 60)} before`);
  const terms = (of: Agreement) => orderTermsWords(of.items, money).join(" ");
  const changes: (Harsher & { is: boolean })[] = [
    {
      is: now.totalMinor > read.totalMinor,
      what: "Price",
      before: money(read.totalMinor),
      now: money(now.totalMinor),
    },
    {
      is: now.nowMinor > read.nowMinor,
      what: "Paid now",
      before: money(read.nowMinor),
      now: money(now.nowMinor),
    },
    {
      is: now.moveHours > read.moveHours,
      what: "Moving it yourself",
      before: hours(read.moveHours),
      now: hours(now.moveHours),
    },
    {
      is: now.cancelHours > read.cancelHours,
      what: "Cancelling it yourself",
      before: hours(read.cancelHours),
      now: hours(now.cancelHours),
    },
    {
      is: isStricter(read, now),
      what: "If it falls through",
      before: terms(read),
      now: terms(now),
    },
    {
      is: now.words !== "" && now.words !== read.words,
      what: "Our terms",
      before: read.words ? "as you read them" : "none",
      now: "changed: read them before you book",
    },
  ];
  return changes.flatMap(({ is, ...change }) => (is ? [change] : []));
}

/** Whether cancelling at any time, or nobody being home, costs more than it did. */
function isStricter(read: Agreement, now: Agreement): boolean {
  // A fee changes at these moments only; once it has begun nobody cancels.
  const moments = [...read.items, ...now.items]
    .flatMap(({ late }) => [late.hours * 60 - 1, late.hours * 60])
    .filter((minutes) => minutes >= 0);
  return (
    noAccessFee(now.items) > noAccessFee(read.items) ||
    [0, ...moments].some((minutes) => lateFee(now.items, minutes) > lateFee(read.items, minutes))
  );
}

/** What has become dearer or stricter since it was read; nothing where a refusal is about something else. */
export const changesOf = (problem: Problem | null): readonly Harsher[] =>
  problem?.code === "terms-changed" ? (problem.details as { changes: Harsher[] }).changes : [];
