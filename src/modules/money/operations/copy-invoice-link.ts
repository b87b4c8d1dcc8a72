import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { sealedToken } from "@/kernel/links";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";

/** Hands out the link of an invoice, to be sent to whoever pays it. */
export const copyInvoiceLink = defineOperation({
  name: "copy-invoice-link",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id }),
  run({ sql, now, hogar, actor }, { invoiceId }) {
    if (!sql("SELECT 1 FROM invoices WHERE id = ?").get(invoiceId)) throw new Refusal("not-found");
    logSecurity(hogar.store, now, { kind: "link copied", who: actorWords(actor), words: `of invoice ${invoiceId}` });
    return { address: `${hogar.publicUrl}/invoice/${sealedToken(hogar, { kind: "invoice", id: invoiceId })}` };
  },
});
