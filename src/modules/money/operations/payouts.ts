import { gatewayFeeKept, payoutSent } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import { DateText, Id, input, Nothing, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertOnce, insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { reference } from "../inputs";
import { heldByService, payoutArrives } from "../bank";
import { post } from "../ledger";

const Minor = Type.Integer({ minimum: -10_000_000_000, maximum: 10_000_000_000 });
const RecordPayout = input({
  reference,
  amountMinor: Type.Integer({ minimum: 1 }),
  feeMinor: Type.Integer({ minimum: 0 }),
  at: Type.Integer({ minimum: 0 }),
  items: Type.Array(
    input({
      kind: OneOf(["charge", "refund", "dispute"]),
      reference: Type.String({ maxLength: 120 }),
      grossMinor: Minor,
      feeMinor: Type.Integer({ minimum: 0 }),
    }),
    { maxItems: 20_000 },
  ),
});

/** The payment of which an item of a payout speaks, by its reference. */
const paymentOf = {
  charge: "SELECT id FROM payments WHERE gateway_reference = ?",
  refund: "SELECT payment_id AS id FROM refunds WHERE refund_key = ?",
  // What comes again of one that was won is named after it.
  dispute: "SELECT payment_id AS id FROM disputes WHERE ? IN (reference, reference || ' won')",
};

/** The card service has paid out: what it kept of each charge is a fee, the rest is on its way. The same payout twice changes nothing. */
export const recordPayout = defineOperation({
  name: "record-payout",
  access: "system",
  input: RecordPayout,
  run(context, { reference, amountMinor, feeMinor, at, items }) {
    const { sql } = context;
    const id = insertOnce(sql, "payouts", {
      reference,
      amount_minor: amountMinor,
      fee_minor: feeMinor,
      paid_at: at,
    });
    if (id === null) return;
    for (const [position, item] of items.entries()) {
      const paymentId = sql<{ id: number }>(paymentOf[item.kind]).get(item.reference)?.id ?? null;
      insertRow(sql, "payout_items", {
        payout_id: id,
        position,
        kind: item.kind,
        reference: item.reference,
        payment_id: paymentId,
        gross_minor: item.grossMinor,
        fee_minor: item.feeMinor,
      });
      if (item.feeMinor > 0)
        post(
          context,
          { kind: "gateway fee", key: `fee of ${item.kind} ${item.reference}` },
          gatewayFeeKept(paymentId, item.feeMinor),
        );
    }
    post(context, { kind: "payout", key: `payout ${id}` }, payoutSent(amountMinor, feeMinor));
  },
});

/** Asks the card service to pay out at once what it holds of ours, for what that costs. Once a minute is enough. */
export const payOutNow = defineOperation({
  name: "pay-out-now",
  access: "money.change of all",
  input: Nothing,
  run(context) {
    const { hogar, minute } = context;
    if (hogar.gateways.cards?.atOnceBp == null)
      throw new Refusal("not-allowed", { sentence: "The card service does not pay out at once." });
    if (heldByService(context) <= 0)
      throw new Refusal("nothing-due", { sentence: "The card service holds nothing of yours at the moment." });
    context.later({ kind: "pay out", lane: "cards", key: `pay out at ${minute}`, payload: {} });
  },
});

/** A payout is in the bank, as a line of its statement says. */
export const payoutIsThere = defineOperation({
  name: "record-payout-arrived",
  access: "money.change of all",
  about: { payoutId: "shared" },
  input: input({ payoutId: Id, date: DateText }),
  run: (context, { payoutId, date }) => payoutArrives(context, payoutId, date),
});
