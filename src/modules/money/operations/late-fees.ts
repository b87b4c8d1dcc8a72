import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Reason } from "../inputs";
import { chargeLateFee, waiveLateFee } from "../late-fees";

/** Looks at an invoice whose day of the late fee has come. */
export const askLateFee = defineOperation({
  name: "ask-late-fee",
  access: "system",
  input: input({ invoiceId: Id }),
  run: (context, { invoiceId }) => chargeLateFee(context, invoiceId),
});

/** Somebody need not pay the late fee, for a reason. */
export const waiveFee = defineOperation({
  name: "waive-late-fee",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id, reason: Reason }),
  run: (context, { invoiceId, reason }) => waiveLateFee(context, invoiceId, reason),
});
