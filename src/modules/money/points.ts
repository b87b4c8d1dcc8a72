import { type PointRules, pointsEarned, pointsKept, pointsUsable, pointsWorth } from "@/core/money/points";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { BusinessRow } from "@/store/business";
import { insertOnce, insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";

/** Loyalty as the owner has it; null: there is none. */
export const pointRules = ({
  point_per_minor: perMinor,
  point_minor: worthMinor,
  points_least: least,
}: Pick<BusinessRow, "point_per_minor" | "point_minor" | "points_least">): PointRules | null =>
  perMinor === null ? null : { perMinor, worthMinor, least };

/** Points a customer has. Below nothing where what they were given for was refunded after they had used them. */
export const pointsOf = ({ sql }: Pick<ViewContext, "sql">, customerId: number): number =>
  sql<{ n: number }>("SELECT coalesce(sum(points), 0) AS n FROM points WHERE customer_id = ?").get(customerId)!.n;

/** What a customer's points take off an order; null: nothing. `orderMinor`: what its lines come to. */
export function pointsFor(
  context: ViewContext,
  customerId: number,
  orderMinor: number,
): { used: number; worthMinor: number } | null {
  const rules = pointRules(context.business);
  if (!rules) return null;
  const used = pointsUsable(pointsOf(context, customerId), orderMinor, rules);
  return used > 0 ? { used, worthMinor: pointsWorth(used, rules) } : null;
}

/**
 * Brings the points of a payment in line with what is left of it in the ledger: given when it comes, taken when a part of it
 * goes back. It depends on the sums alone, so the same news twice changes nothing.
 */
export function settlePoints(context: OperationContext, paymentId: number, hasJustCome: boolean): void {
  const { sql, now, business } = context;
  const { customer_id, amount, net, given, first } = sql<{
    customer_id: number;
    amount: number;
    net: number;
    given: number;
    first: number | null;
  }>(
    `SELECT p.customer_id, p.amount_minor AS amount,
        (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE payment_id = p.id AND account IN ('deposits', 'credit', 'receivable')) AS net,
        (SELECT coalesce(sum(points), 0) FROM points WHERE payment_id = p.id) AS given,
        (SELECT points FROM points WHERE payment_id = p.id ORDER BY id LIMIT 1) AS first
      FROM payments p WHERE p.id = ?`,
  ).get(paymentId)!;
  const rules = pointRules(business);
  const earned = first ?? (rules ? pointsEarned(amount, rules) : 0);
  const more = pointsKept(earned, amount, amount - net) - given;
  // What was paid before there were points has none to lose, and none to win by a refund.
  if (more === 0 || (first === null && !hasJustCome)) return;
  insertRow(sql, "points", {
    customer_id,
    kind: more > 0 ? "paid" : "refunded",
    points: more,
    payment_id: paymentId,
    at: now,
  });
}

/** Points are used for a booking, once; refused where its customer has not so many. */
export function spendPoints(
  context: OperationContext,
  { customerId, jobId, points }: { customerId: number; jobId: number; points: number },
): void {
  if (points === 0) return;
  if (pointsOf(context, customerId) < points)
    throw new Refusal("price-changed", {
      sentence: "The points have been used elsewhere meanwhile. Look at the price again before you book.",
    });
  insertRow(context.sql, "points", {
    customer_id: customerId,
    kind: "used",
    points: -points,
    job_id: jobId,
    at: context.now,
  });
}

/** A booking that falls through gives back the points that were used for it, once. */
export function givePointsBack({ sql, now }: OperationContext, jobId: number): void {
  const used = sql<{ customer_id: number; points: number }>(
    "SELECT customer_id, points FROM points WHERE job_id = ? AND kind = 'used'",
  ).get(jobId);
  if (used)
    insertOnce(sql, "points", {
      customer_id: used.customer_id,
      kind: "given back",
      points: -used.points,
      job_id: jobId,
      at: now,
    });
}

type PointRow = Pick<Rows["points"], "id" | "kind" | "points" | "words" | "at">;

/** A customer's points as they came and went, the newest first. */
export const pointStatement = (
  { sql }: Pick<ViewContext, "sql">,
  customerId: number,
  most: number,
): (PointRow & { what: string | null })[] =>
  sql<PointRow & { what: string | null }>(
    `SELECT p.id, p.kind, p.points, p.words, p.at, (SELECT v.title FROM visits v WHERE v.job_id = coalesce(p.job_id, m.job_id) ORDER BY v.id LIMIT 1) AS what
      FROM points p LEFT JOIN payments m ON m.id = p.payment_id WHERE p.customer_id = ? ORDER BY p.id DESC LIMIT ?`,
  ).all(customerId, most);
