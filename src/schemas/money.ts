import { Type } from "@sinclair/typebox";
import { Id, input, OneOf, OrNull } from "./common";

/** With a card as its form gives it, to be kept or not; without one, the card on file is charged. */
export const PayByCard = input({
  purpose: OneOf(["deposit", "invoice"]),
  cardToken: OrNull(Type.String({ minLength: 1, maxLength: 80 })),
  keepCard: Type.Optional(Type.Boolean()),
});

export const RecordPayment = input({
  invoiceId: Id,
  method: OneOf(["cash", "bank"]),
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** Given once per form, so that sending it twice records it once. */
  key: Type.String({ minLength: 8, maxLength: 60 }),
});

const reference = Type.String({ maxLength: 80 });
export const ChargeOutcomeSchema = Type.Union([
  input({ state: Type.Literal("received"), reference }),
  input({ state: Type.Literal("declined"), reference, reason: Type.String({ maxLength: 300 }) }),
  input({ state: Type.Literal("second step"), reference, address: Type.String({ maxLength: 300 }) }),
]);
export const RecordCharge = input({ chargeKey: Type.String({ maxLength: 120 }), outcome: ChargeOutcomeSchema });
export const RecordRefund = input({ refundKey: Type.String({ maxLength: 120 }) });
export const RecordKeptCard = input({ customerId: Id, jobId: Id, reference, label: Type.String({ maxLength: 80 }) });
export const RecordDelivery = input({ messageId: Id, state: OneOf(["sent", "bounced", "not known"]) });
export const ReceiveText = input({
  sender: Type.String({ maxLength: 40 }),
  body: Type.String({ minLength: 1, maxLength: 1000 }),
});
export const MoveClock = input({ minutes: Type.Integer({ minimum: 1, maximum: 60 * 24 * 400 }) });
export const Nothing = input({});
