import { type Minor, type PricedLine, roundHalfAway, shareOut, sum } from "../money/amounts";
import type { LocalDate } from "../time/dates";
import { dateWords } from "../time/words";

/** A reduction that customers enter: a share in basis points, or an amount. */
export interface Coupon {
  code: string;
  kind: "percent" | "fixed";
  value: number;
  /** Services it counts for, by id; empty: all. */
  services: readonly number[];
}

export interface CouponRules extends Coupon {
  /** First and last day on which one may book with it; null: no end. */
  first: LocalDate | null;
  last: LocalDate | null;
  /** How often altogether, and how often so far. */
  most: number | null;
  used: number;
}

/** Why a coupon does not count for a booking, as a sentence, or null. */
export function couponProblem(
  coupon: CouponRules | null,
  { serviceIds, today }: { serviceIds: readonly number[]; today: LocalDate },
): string | null {
  if (!coupon) return "We do not know this code. Check how it is written.";
  if (coupon.first && today < coupon.first) return `This code counts from ${dateWords(coupon.first)}.`;
  if (coupon.last && today > coupon.last) return `This code counted until ${dateWords(coupon.last)}.`;
  if (coupon.services.length && !serviceIds.some((id) => coupon.services.includes(id)))
    return `This code does not count for ${serviceIds.length > 1 ? "these services" : "this service"}.`;
  if (coupon.most !== null && coupon.used >= coupon.most) return "This code has been used as often as it can be.";
  return null;
}

/**
 * What a coupon takes off an order, by tax rate, so that each rate's tax shrinks with it: shares in
 * proportion, the cents that are left over to the largest remainders. Amounts are unit prices as the
 * business writes them, never more than the order; the shares add up to the reduction.
 */
export function reductions(
  lines: readonly Pick<PricedLine, "unitMinor" | "quantity" | "taxBp">[],
  coupon: Pick<Coupon, "kind" | "value">,
): { taxBp: number; minor: Minor }[] {
  const rates = new Map<number, Minor>();
  for (const { unitMinor, quantity, taxBp } of lines)
    rates.set(taxBp, (rates.get(taxBp) ?? 0) + roundHalfAway(unitMinor * quantity));
  const groups = [...rates].filter(([, minor]) => minor > 0);
  const total = sum(groups.map(([, minor]) => minor));
  if (total <= 0) return [];
  const off = Math.min(
    total,
    coupon.kind === "percent" ? roundHalfAway((total * coupon.value) / 10_000) : coupon.value,
  );
  const shares = shareOut(
    off,
    groups.map(([, minor]) => minor),
  );
  return groups.flatMap(([taxBp], i) => (shares[i]! > 0 ? [{ taxBp, minor: shares[i]! }] : []));
}
