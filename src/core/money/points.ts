import type { Minor } from "./amounts";

/** Loyalty as the owner has it. */
export interface PointRules {
  /** One point for so much that is paid, minor units. */
  perMinor: Minor;
  /** What one point takes off, minor units. */
  worthMinor: Minor;
  /** So many can be used at a time, at least. */
  least: number;
}

/** Points for a payment: whole ones only. */
export const pointsEarned = (paidMinor: Minor, { perMinor }: Pick<PointRules, "perMinor">): number =>
  Math.max(0, Math.floor(paidMinor / perMinor));

/**
 * What stays of the points of a payment when a part of it has gone back: in proportion, and none of what is not whole. It
 * depends on sums alone, so that ten small refunds take what one large one does, and the whole takes all.
 */
export const pointsKept = (earned: number, paidMinor: Minor, wentBackMinor: Minor): number =>
  paidMinor <= 0 ? 0 : Math.floor((earned * Math.max(0, paidMinor - wentBackMinor)) / paidMinor);

/** How many points an order can be paid with: all somebody has, as far as the order goes; none below the least. */
export function pointsUsable(balance: number, orderMinor: Minor, { worthMinor, least }: PointRules): number {
  const usable = Math.min(balance, Math.floor(orderMinor / worthMinor));
  return usable >= least ? usable : 0;
}

/** What points take off. */
export const pointsWorth = (points: number, { worthMinor }: Pick<PointRules, "worthMinor">): Minor =>
  points * worthMinor;
