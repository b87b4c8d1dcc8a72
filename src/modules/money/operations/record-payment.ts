import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { takeDownPayment } from "../recording";

const Amount = Type.Integer({ minimum: 1, maximum: 100_000_000 });
const RecordPayment = input({
  customerId: Id,
  method: OneOf(["cash", "bank", "cheque"]),
  amountMinor: Amount,
  /** The day on which it came; today where nothing is said. */
  on: Type.Optional(DateText),
  /** A cheque's number, or what a transfer was marked with. */
  note: Type.Optional(Type.String({ maxLength: 140 })),
  /** How much of which invoice it pays; what is not named stays with the customer as credit. Null: what is due, the oldest first. */
  invoices: OrNull(Type.Array(input({ invoiceId: Id, amountMinor: Amount }), { maxItems: 200 })),
  /** Given once per form, so that sending it twice records it once. */
  key: Type.String({ minLength: 8, maxLength: 60 }),
});

/** The bookkeeper records cash, a cheque or a transfer of a customer, for one invoice, for several, or on account. The same key is recorded once. */
export const recordPayment = defineOperation({
  name: "record-payment",
  access: "money.change",
  about: { customerId: "customer", "invoices.invoiceId": "invoice" },
  input: RecordPayment,
  run: (context, payment) => ({ paymentId: takeDownPayment(context, payment) }),
});
