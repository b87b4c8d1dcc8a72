import { paymentReceived } from "@/core/money/journal";
import { Refusal } from "@/core/problems";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { applyToInvoice, enterJournal } from "../charging";

const RecordPayment = input({
  invoiceId: Id,
  method: OneOf(["cash", "bank"]),
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** Given once per form, so that sending it twice records it once. */
  key: Type.String({ minLength: 8, maxLength: 60 }),
});

/** The bookkeeper takes down cash or a bank transfer for an invoice. The same key is taken down once. */
export const recordPayment = defineOperation({
  name: "record-payment",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: RecordPayment,
  run(context, { invoiceId, method, amountMinor, key }) {
    const { sql, now } = context;
    const chargeKey = `${method} ${key}`;
    if (sql("SELECT 1 FROM payments WHERE charge_key = ?").get(chargeKey)) return;
    const invoice = sql<{ job_id: number; customer_id: number; open: number }>(
      `SELECT i.job_id, i.customer_id, b.open_minor AS open
        FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = ? AND i.cancelled_at IS NULL`,
    ).get(invoiceId);
    if (!invoice) throw new Refusal("not-found");
    if (invoice.open === 0) throw new Refusal("nothing-due");
    if (amountMinor > invoice.open)
      throw new Refusal("amount-too-large", {
        fields: { "/amountMinor": "This is more than is open on the invoice." },
      });
    const id = insertRow(sql, "payments", {
      customer_id: invoice.customer_id,
      job_id: invoice.job_id,
      purpose: "invoice",
      method,
      amount_minor: amountMinor,
      state: "received",
      charge_key: chargeKey,
      asked_at: now,
      settled_at: now,
    });
    enterJournal(context, `payment ${id}`, paymentReceived(method, amountMinor));
    applyToInvoice(context, invoice.job_id);
  },
});
