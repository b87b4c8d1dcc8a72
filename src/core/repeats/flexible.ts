import { addDays, datesFrom, daysBetween, type LocalDate, weekdayOf } from "../time/dates";

/** How the visits of a repeat come: on their date, where they fit best near it, or after somebody has been asked. */
export type Comes = "set" | "flexible" | "ask";
export const waysToCome: readonly Comes[] = ["set", "flexible", "ask"];
export const comesWords: Record<Comes, string> = {
  set: "on its date",
  flexible: "near its date, where it fits best",
  ask: "after the customer is asked",
};

/** Within how many days before and after its date a flexible visit may stand; null is the week of its date, from Monday on. */
export type Leeway = number | null;

/** The days on which a flexible visit may stand, the nearest to its date first; of two that are as near, the later. */
export function daysNear(date: LocalDate, leeway: Leeway): LocalDate[] {
  const [first, last] =
    leeway === null
      ? [addDays(date, -weekdayOf(date)), addDays(date, 6 - weekdayOf(date))]
      : [addDays(date, -leeway), addDays(date, leeway)];
  const away = (day: LocalDate) => Math.abs(daysBetween(date, day));
  return datesFrom(first, last).sort((a, b) => away(a) - away(b) || (a < b ? 1 : -1));
}

/** A window somebody could come in: minutes of driving it adds, and minutes of work that day holds already. */
export interface Fit {
  extraDriving: number;
  load: number;
}

/** So many minutes of work already in a day weigh as much as one more of driving: full days are spared, but not at any price. */
const workPerDriving = 12;

const costOf = ({ extraDriving, load }: Fit): number => extraDriving + load / workPerDriving;

/** Of all that would do, what adds the least driving and fills the emptier day; the first of those that cost the same. Null of none. */
export const bestFit = <F extends Fit>(fits: readonly F[]): F | null =>
  fits.reduce<F | null>((best, fit) => (best && costOf(best) <= costOf(fit) ? best : fit), null);

/** Whether another place is so much better that a visit nobody was told of is worth moving: five minutes of driving. */
export const isClearlyBetter = (other: Fit, now: Fit): boolean => costOf(other) + 5 <= costOf(now);
