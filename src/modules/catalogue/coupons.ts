import { couponProblem, type CouponRules } from "@/core/catalogue/coupons";
import { Refusal } from "@/core/problems";
import type { ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";

export type StoredCoupon = CouponRules & { id: number; active: boolean };

/** All coupons, with how often each has been used by bookings that stand. */
export const readCoupons = ({ sql }: Pick<ViewContext, "sql">, code: string | null = null): StoredCoupon[] =>
  sql<{
    id: number;
    code: string;
    kind: CouponRules["kind"];
    value: number;
    services: string;
    first_date: string | null;
    last_date: string | null;
    most: number | null;
    active: number;
    used: number;
  }>(
    `SELECT c.*, (SELECT count(*) FROM jobs WHERE coupon_id = c.id AND state <> 'cancelled') AS used
      FROM coupons c WHERE @code IS NULL OR c.code = @code ORDER BY c.active DESC, c.code`,
  )
    .all({ code })
    .map((c) => ({
      id: c.id,
      code: c.code,
      kind: c.kind,
      value: c.value,
      services: idsColumn.read(c.services),
      first: c.first_date,
      last: c.last_date,
      most: c.most,
      used: c.used,
      active: c.active === 1,
    }));

/** The coupon of a code, where it counts for a booking of these services today; refuses with the reason otherwise. */
export function couponFor(context: ViewContext, code: string, serviceIds: readonly number[]): StoredCoupon {
  const [coupon] = readCoupons(context, code.trim());
  const found = coupon?.active ? coupon : null;
  const problem = couponProblem(found, { serviceIds, today: context.today });
  if (problem) throw new Refusal("invalid-input", { fields: { "/coupon": problem } });
  return found!;
}
