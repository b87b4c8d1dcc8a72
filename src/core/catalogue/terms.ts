import { roundHalfAway, type Minor } from "../money/amounts";
import { durationWords } from "../time/words";

/** What is asked where a visit falls through: cancelled later than so many hours before its window, or nobody home. */
export interface Terms {
  late: { hours: number; kind: "none" | "percent" | "fixed"; value: number };
  noAccessMinor: Minor;
}

/** The fee for cancelling so many minutes before the window opens; never more than the work costs. Minutes may be negative: the window has begun. */
export function lateFee({ late }: Terms, totalMinor: Minor, minutesBefore: number): Minor {
  if (late.kind === "none" || minutesBefore >= late.hours * 60) return 0;
  return Math.min(totalMinor, late.kind === "fixed" ? late.value : roundHalfAway((totalMinor * late.value) / 10_000));
}

/** The terms as customers read them before they book; one sentence each. */
export function termsWords({ late, noAccessMinor }: Terms, money: (minor: Minor) => string): string[] {
  const fee = late.kind === "fixed" ? money(late.value) : `${late.value / 100}% of the price`;
  return [
    late.kind === "none" || late.value === 0 ? "Cancelling costs nothing." : `Cancelling costs nothing until ${durationWords(late.hours * 60)} before; after that ${fee}.`,
    ...(noAccessMinor > 0 ? [`If nobody lets us in, ${money(noAccessMinor)}.`] : []),
  ];
}
