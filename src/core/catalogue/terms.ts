import { type Minor, roundHalfAway, sum } from "../money/amounts";
import { durationWords } from "../time/words";

/** What is asked where a visit falls through: cancelled later than so many hours before its window, or nobody home. */
export interface Terms {
  late: { hours: number; kind: "none" | "percent" | "fixed"; value: number };
  noAccessMinor: Minor;
}

/** The terms of one service in an order, with the part of the total that is its own. */
export type ItemTerms = Terms & { totalMinor: Minor };

/** The fee for cancelling so many minutes before the window opens: of each service by its own terms, never more than it costs. Minutes may be negative: the window has begun. */
export const lateFee = (items: readonly ItemTerms[], minutesBefore: number): Minor =>
  sum(
    items.map(({ late, totalMinor }) => {
      if (late.kind === "none" || minutesBefore >= late.hours * 60) return 0;
      return Math.min(
        totalMinor,
        late.kind === "fixed" ? late.value : roundHalfAway((totalMinor * late.value) / 10_000),
      );
    }),
  );

/** The fee where nobody lets us in: asked once for the trip, the highest of its services. */
export const noAccessFee = (items: readonly Terms[]): Minor => Math.max(0, ...items.map((item) => item.noAccessMinor));

/** The terms of an order in words; named by service where they differ. */
export function orderTermsWords(
  items: readonly (Terms & { name: string })[],
  money: (minor: Minor) => string,
): string[] {
  const said = items.map((item) => ({ name: item.name, words: termsWords(item, money).join(" ") }));
  if (new Set(said.map((s) => s.words)).size <= 1) return said.slice(0, 1).map((s) => s.words);
  return said.map((s) => `${s.name}: ${s.words}`);
}

/** The terms as customers read them before they book; one sentence each. */
export function termsWords({ late, noAccessMinor }: Terms, money: (minor: Minor) => string): string[] {
  const fee = late.kind === "fixed" ? money(late.value) : `${late.value / 100}% of the price`;
  return [
    late.kind === "none" || late.value === 0
      ? "Cancelling costs nothing."
      : `Cancelling costs nothing until ${durationWords(late.hours * 60)} before; after that ${fee}.`,
    ...(noAccessMinor > 0 ? [`If nobody lets us in, ${money(noAccessMinor)}.`] : []),
  ];
}
