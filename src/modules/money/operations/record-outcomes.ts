import { Refusal } from "@/core/problems";
import { dayMs } from "@/core/horizons";
import { paymentStates } from "@/core/money/states";
import { Id, input, OneOf } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { settleCharge, settleRefund } from "../charging";
import { reference } from "../inputs";
import { endEffect } from "@/kernel/outbox";

const ChargeOutcomeSchema = Type.Union([
  input({ state: Type.Literal("received"), reference }),
  input({ state: Type.Literal("unknown card") }),
  input({
    state: Type.Literal("declined"),
    reference,
    reason: Type.String({ maxLength: 300 }),
    kind: Type.Optional(OneOf(["later", "another", "never"])),
  }),
  input({
    state: Type.Literal("second step"),
    reference,
    address: Type.String({ maxLength: 300, pattern: "^(https://|/[^/])" }),
  }),
]);
const RecordCharge = input({ chargeKey: Type.String({ maxLength: 120 }), outcome: ChargeOutcomeSchema });
const RecordRefund = input({ refundKey: Type.String({ maxLength: 120 }) });

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
    const refund = context.sql<{ id: number }>("SELECT id FROM refunds WHERE refund_key = ?").get(refundKey);
    if (!refund) throw new Refusal("not-found");
    settleRefund(context, refund.id);
  },
});

/** A person says how a charge has ended of which the card service has said nothing for a day: everything goes on from there. */
export const decideCharge = defineOperation({
  name: "decide-charge",
  access: "money.change",
  about: { paymentId: "payment" },
  input: input({ paymentId: Id, charged: Type.Boolean() }),
  run(context, { paymentId, charged }) {
    const { sql, now, actor } = context;
    const payment = sql<{ charge_key: string }>(
      `SELECT charge_key FROM payments WHERE id = ? AND method = 'card' AND asked_at < ? AND state IN ${paymentStates.sql("under way")}`,
    ).get(paymentId, now - dayMs);
    if (!payment)
      throw new Refusal("not-found", { sentence: "This charge has ended, or was asked for less than a day ago." });
    const reference = `as ${actorWords(actor)} says`;
    settleCharge(
      context,
      payment.charge_key,
      charged ? { state: "received", reference } : { state: "declined", reference, reason: "It was not charged" },
    );
    endEffect(context, `charge ${payment.charge_key}`);
  },
});
