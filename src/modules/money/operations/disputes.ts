import { disputeLost, disputeOpened, disputeWon } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import { DateText, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { reference } from "../inputs";
import { post, release, sourceOfPayment } from "../ledger";
import { remindAgain } from "../parts";

const RecordDispute = input({
  reference,
  /** Of the charge that is disputed. */
  charge: reference,
  amountMinor: Type.Integer({ minimum: 1 }),
  reason: Type.String({ maxLength: 300 }),
  answerBy: OrNull(DateText),
  state: OneOf(["open", "won", "lost"]),
});

type Dispute = Rows["disputes"];

/** What the card service says of a dispute: doubled, late or out of order, each piece of news counts once, and what was decided stays so. */
export const recordDispute = defineOperation({
  name: "record-dispute",
  access: "system",
  input: RecordDispute,
  run(context, { reference, charge, amountMinor, reason, answerBy, state }) {
    const { sql, now } = context;
    const payment = sql<Pick<Rows["payments"], "id" | "purpose" | "amount_minor">>(
      "SELECT id, purpose, amount_minor FROM payments WHERE gateway_reference = ? AND state = 'received'",
    ).get(charge);
    const known = sql<Dispute>("SELECT * FROM disputes WHERE reference = ?").get(reference);
    if (!payment && !known) throw new Refusal("not-found");
    if (payment && !known) {
      const id = insertOnce(sql, "disputes", {
        reference,
        payment_id: payment.id,
        amount_minor: Math.min(amountMinor, payment.amount_minor),
        reason,
        opened_at: now,
        answer_by: answerBy,
      })!;
      post(
        context,
        { kind: "dispute", key: `dispute ${id}`, reason },
        disputeOpened(payment.id, Math.min(amountMinor, payment.amount_minor)),
      );
      leaveAlone(context, payment.id);
    }
    const dispute = sql<Dispute>("SELECT * FROM disputes WHERE reference = ?").get(reference)!;
    if (dispute.state !== "open" || state === "open") return;
    sql("UPDATE disputes SET state = ?, ended_at = ? WHERE id = ?").run(state, now, dispute.id);
    if (state === "won")
      post(
        context,
        { kind: "dispute won", key: `dispute ${dispute.id} won` },
        disputeWon(dispute.payment_id, dispute.amount_minor),
      );
    else lose(context, dispute);
  },
});

/** What it had paid is open again; the money is with the customer. */
function lose(context: OperationContext, dispute: Dispute): void {
  const { sql } = context;
  const payment = sql<Pick<Rows["payments"], "id" | "purpose"> & { left: number }>(
    "SELECT p.id, p.purpose, b.left_minor AS left FROM payments p JOIN payment_balances b ON b.payment_id = p.id WHERE p.id = ?",
  ).get(dispute.payment_id)!;
  let missing = dispute.amount_minor - payment.left;
  for (const { invoice_id, n } of sql<{ invoice_id: number; n: number }>(
    `SELECT invoice_id, sum(amount_minor) AS n FROM allocations WHERE payment_id = ?
      GROUP BY invoice_id HAVING sum(amount_minor) > 0 ORDER BY invoice_id`,
  ).all(payment.id)) {
    const part = Math.min(n, missing);
    if (part <= 0) break;
    release(context, invoice_id, part, "The customer’s bank has taken it back", payment.id);
    remindAgain(context, invoice_id);
    missing -= part;
  }
  const lostMinor = dispute.amount_minor - Math.max(0, missing);
  sql("UPDATE disputes SET lost_minor = ? WHERE id = ?").run(lostMinor, dispute.id);
  if (lostMinor === 0) return;
  post(
    context,
    { kind: "dispute lost", key: `dispute ${dispute.id} lost`, reason: dispute.reason },
    disputeLost(sourceOfPayment(payment), lostMinor),
  );
}

/** Nobody charges or reminds somebody whose bank is asking. */
function leaveAlone({ sql }: OperationContext, paymentId: number): void {
  sql(
    `UPDATE invoices SET collect_never = 1, remind_on = NULL
      WHERE id IN (SELECT invoice_id FROM allocations WHERE payment_id = ?)`,
  ).run(paymentId);
}
