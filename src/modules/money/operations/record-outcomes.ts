import { paymentRefunded } from "@/core/money/journal";
import { Refusal } from "@/core/problems";
import { RecordCharge, RecordDelivery, RecordRefund } from "@/schemas/money";
import { enterJournal, settleCharge } from "./charging";
import { defineOperation } from "./door";

/** What came back from outside, taken down by the worker or by a gateway's own notice. */
export const recordCharge = defineOperation({
  name: "record-charge",
  access: "system",
  input: RecordCharge,
  run: (context, { chargeKey, outcome }) => settleCharge(context, chargeKey, outcome),
});

export const recordRefund = defineOperation({
  name: "record-refund",
  access: "system",
  input: RecordRefund,
  run(context, { refundKey }) {
    const refund = context
      .sql<{ id: number; amount_minor: number; state: string }>(
        "SELECT id, amount_minor, state FROM refunds WHERE refund_key = ?",
      )
      .get(refundKey);
    if (!refund) throw new Refusal("not-found");
    if (refund.state === "paid back") return;
    context.sql("UPDATE refunds SET state = 'paid back' WHERE id = ?").run(refund.id);
    enterJournal(context, `refund ${refund.id}`, paymentRefunded("card", refund.amount_minor));
  },
});

export const recordDelivery = defineOperation({
  name: "record-delivery",
  access: "system",
  input: RecordDelivery,
  run: ({ sql, now }, { messageId, state }) =>
    void sql("UPDATE messages SET state = ?, sent_at = ? WHERE id = ? AND state = 'waiting'").run(
      state,
      now,
      messageId,
    ),
});
