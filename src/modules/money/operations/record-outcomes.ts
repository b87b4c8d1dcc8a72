import { Refusal } from "@/core/problems";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { settleCharge, settleRefund } from "../charging";
import { reference } from "../inputs";

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
