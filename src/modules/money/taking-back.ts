import { type Account, reversed } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { post, release } from "./ledger";

/** Sets a payment right that was written down wrongly: what it had paid is open again, and so is the line of the bank that it was held against. Refuses what a card has really paid, and what was refunded in part. */
export function takeBack(
  context: OperationContext,
  paymentId: number,
  reason: string,
  /** Where the bank has taken it back, by a line of its own. */
  { linesStay = false } = {},
): void {
  const { sql } = context;
  const payment = receivedPayment(context, paymentId);
  if (payment.method === "card")
    throw new Refusal("not-allowed", { sentence: "A card has really paid this: refund it." });
  for (const { invoice_id, n } of sql<{ invoice_id: number; n: number }>(
    `SELECT invoice_id, sum(amount_minor) AS n FROM allocations WHERE payment_id = ?
      GROUP BY invoice_id HAVING sum(amount_minor) > 0`,
  ).all(paymentId))
    releaseFrom(context, payment, invoice_id, n, reason);
  if (receivedPayment(context, paymentId).left < payment.amount_minor)
    throw new Refusal("not-allowed", { sentence: "A part of this payment was refunded: it was real." });
  const event = sql<{ id: number }>("SELECT id FROM ledger_events WHERE key = ?").get(`payment ${paymentId}`)!;
  const entries = sql<{ account: Account; amountMinor: number; paymentId: number; technicianId: number | null }>(
    `SELECT account, amount_minor AS amountMinor, payment_id AS paymentId, technician_id AS technicianId
      FROM ledger_entries WHERE event_id = ? ORDER BY line`,
  ).all(event.id);
  post(
    context,
    { kind: "reversal", key: `payment ${paymentId} taken back`, reason, reversesId: event.id },
    reversed(
      entries.map(({ technicianId, account, ...entry }) =>
        // What was handed over lies where it was counted into.
        account === "cash out" && payment.handover_id !== null
          ? { ...entry, account: payment.method === "cash" ? ("cash" as const) : ("bank" as const) }
          : { ...entry, account, ...(technicianId !== null && { technicianId }) },
      ),
    ),
  );
  sql("UPDATE payments SET state = 'taken back' WHERE id = ?").run(paymentId);
  if (!linesStay)
    sql("UPDATE bank_lines SET state = 'open', payment_id = NULL, recorded = 0 WHERE payment_id = ?").run(paymentId);
}

type Received = Rows["payments"] & { left: number };

export function receivedPayment({ sql }: OperationContext, paymentId: number): Received {
  const payment = sql<Received>(
    `SELECT p.*, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id WHERE p.id = ? AND p.state = 'received'`,
  ).get(paymentId);
  if (!payment) throw new Refusal("not-found");
  return payment;
}

/** An invoice that this payment has paid is open again, and is reminded of as before. */
function releaseFrom(
  context: OperationContext,
  payment: Received,
  invoiceId: number,
  minor: number,
  reason: string,
): void {
  release(context, invoiceId, minor, reason, payment.id);
  context
    .sql("UPDATE invoices SET remind_on = max(date(due_date, '+1 day'), ?) WHERE id = ? AND remind_on IS NULL")
    .run(context.today, invoiceId);
}
