import { mostParts, wrongParts } from "@/core/money/instalments";
import { Refusal } from "@/core/problems";
import { DateText, Id, input } from "@/kernel/inputs";
import { openedBy } from "@/kernel/links";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { InvoiceToken } from "../inputs";
import { partsOffered, partsOf, splitByMonth, storeParts } from "../parts";

/** What is open of an invoice is paid in dated parts, each due, charged and reminded of by itself. No part: as a whole again, on the last day. */
export const splitInvoice = defineOperation({
  name: "split-invoice",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({
    invoiceId: Id,
    parts: Type.Array(input({ due: DateText, amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }) }), {
      maxItems: mostParts,
    }),
  }),
  run(context, { invoiceId, parts }) {
    const { today, business } = context;
    const openMinor = openOf(context, invoiceId);
    if (parts.length > 0) {
      const sentence = wrongParts(parts, { openMinor, today, currency: business.currency });
      if (sentence) throw new Refusal("invalid-input", { sentence, fields: { "/parts": sentence } });
    }
    storeParts(context, invoiceId, parts);
  },
});

/** A customer pays in parts by the month, as the owner offers it. */
export const splitByLink = defineOperation({
  name: "pay-in-parts",
  access: "anybody",
  input: input({ token: InvoiceToken, parts: Type.Integer({ minimum: 2, maximum: mostParts }) }),
  run(context, { token, parts }) {
    const invoiceId = openedBy(context.hogar, "invoice", token);
    if (invoiceId === null) throw new Refusal("link-ended");
    const openMinor = openOf(context, invoiceId);
    if (parts > partsOffered(context, openMinor) || partsOf(context, invoiceId).length > 0)
      throw new Refusal("not-allowed", {
        sentence: `This invoice is not paid in parts like that. Call us on ${context.business.phone}, and we will find a way.`,
      });
    splitByMonth(context, invoiceId, parts);
  },
});

function openOf({ sql }: OperationContext, invoiceId: number): number {
  const row = sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(invoiceId);
  if (!row) throw new Refusal("not-found");
  if (row.n <= 0) throw new Refusal("nothing-due");
  return row.n;
}
