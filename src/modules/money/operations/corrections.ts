import { moneyWords } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { refund } from "../charging";
import { Reason } from "../inputs";
import { creditInvoice } from "../crediting";
import { issueInvoice, payFromCredit } from "../invoicing";
import { sourceOfPayment } from "../ledger";
import { remindAgain } from "../parts";
import { receivedPayment, takeBack } from "../taking-back";
import { giveUp, takeWriteOffBack } from "../writing-off";

const CreditInvoice = input({
  invoiceId: Id,
  /** So much of which line; null is all that is left. */
  lines: OrNull(
    Type.Array(input({ position: Type.Integer({ minimum: 0, maximum: 10_000 }), amountMinor: Type.Integer() }), {
      minItems: 1,
      maxItems: 400,
    }),
  ),
  reason: Reason,
});
const WriteOff = input({ invoiceId: Id, reason: Reason });
const RefundPayment = input({
  paymentId: Id,
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** To where it came from, or handed back in another way. */
  method: OneOf(["as paid", "cash", "bank"]),
  reason: Reason,
});
const TakeBackPayment = input({ paymentId: Id, reason: Reason });
const InvoiceJob = input({ jobId: Id });

/** A credit note: an invoice that was sent is never changed, but taken back, whole or in parts. */
export const creditInvoiceByHand = defineOperation({
  name: "credit-invoice",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: CreditInvoice,
  run: (context, { invoiceId, lines, reason }) => ({ noteId: creditInvoice(context, invoiceId, lines, reason) }),
});

/** A new invoice for a job that is done and has none any more, since a credit note has taken its invoice back. */
export const invoiceAgain = defineOperation({
  name: "invoice-again",
  access: "money.change",
  about: { jobId: "job" },
  input: InvoiceJob,
  run(context, { jobId }) {
    const { sql } = context;
    const job = sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId);
    if (job?.state !== "done" && !sql("SELECT 1 FROM fees WHERE job_id = ?").get(jobId))
      throw new Refusal("not-found", { sentence: "This work is not done yet: it is invoiced when it is." });
    if (sql("SELECT 1 FROM invoices WHERE job_id = ?").get(jobId))
      throw new Refusal("nothing-due", { sentence: "This work has an invoice already." });
    issueInvoice(context, jobId);
    return sql<{ invoiceId: number }>("SELECT id AS invoiceId FROM invoices WHERE job_id = ?").get(jobId)!;
  },
});

/** Gives up what is open on an invoice, with the reason. */
export const writeOff = defineOperation({
  name: "write-off",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: WriteOff,
  run(context, { invoiceId, reason }) {
    const { sql } = context;
    const open = sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(invoiceId);
    if (!open) throw new Refusal("not-found");
    if (open.n <= 0) throw new Refusal("nothing-due");
    giveUp(context, invoiceId, open.n, reason);
  },
});

/** What was given up of an invoice is owed again, and reminded of again. */
export const undoWriteOff = defineOperation({
  name: "undo-write-off",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: WriteOff,
  run(context, { invoiceId, reason }) {
    if (!takeWriteOffBack(context, invoiceId, reason))
      throw new Refusal("nothing-due", { sentence: "Nothing of this invoice is given up." });
    remindAgain(context, invoiceId);
  },
});

/** What is left of a payment goes back, in part or whole: to its card, or noted as handed back. */
export const refundPayment = defineOperation({
  name: "refund-payment",
  access: "money.change",
  about: { paymentId: "payment" },
  input: RefundPayment,
  run(context, { paymentId, amountMinor, method, reason }) {
    const payment = receivedPayment(context, paymentId);
    if (amountMinor > payment.left)
      throw new Refusal("amount-too-large", {
        fields: {
          "/amountMinor": `${moneyWords(payment.left, context.business.currency)} is left of this payment. What has paid an invoice is free again after a credit note.`,
        },
      });
    return {
      refundId: refund(context, {
        source: sourceOfPayment(payment),
        method: method === "as paid" ? payment.method : method,
        gateway_reference: payment.gateway_reference,
        amountMinor,
        reason,
      }),
    };
  },
});

/** A payment that was written down wrongly is set right by its counter-entry: what it had paid is open again. Money that a card has paid is refunded instead. */
export const takeBackPayment = defineOperation({
  name: "take-back-payment",
  access: "money.change",
  about: { paymentId: "payment" },
  input: TakeBackPayment,
  run: (context, { paymentId, reason }) => takeBack(context, paymentId, reason),
});

/** What a customer has with us pays what is open on an invoice. */
export const useCredit = defineOperation({
  name: "use-credit",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id }),
  run(context, { invoiceId }) {
    if (!context.sql("SELECT 1 FROM invoices WHERE id = ?").get(invoiceId)) throw new Refusal("not-found");
    payFromCredit(context, invoiceId);
  },
});
