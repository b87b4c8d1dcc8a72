import { moneyWords } from "@/core/money/amounts";
import { type Account, reversed, writtenOff } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import { Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { refund } from "../charging";
import { Reason } from "../inputs";
import { creditInvoice } from "../crediting";
import { issueInvoice, payFromCredit } from "../invoicing";
import { keyOnce, post, release, sourceOfPayment } from "../ledger";

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
    post(
      context,
      { kind: "write-off", key: keyOnce(context, `write-off of invoice ${invoiceId}`), reason },
      writtenOff(invoiceId, open.n),
    );
    sql("UPDATE invoices SET remind_on = NULL WHERE id = ?").run(invoiceId);
  },
});

/** What is left of a payment goes back, in part or whole: to its card, or noted as handed back. */
export const refundPayment = defineOperation({
  name: "refund-payment",
  access: "money.change",
  about: { paymentId: "payment" },
  input: RefundPayment,
  run(context, { paymentId, amountMinor, method, reason }) {
    const payment = received(context, paymentId);
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
  run(context, { paymentId, reason }) {
    const { sql } = context;
    const payment = received(context, paymentId);
    if (payment.method === "card")
      throw new Refusal("not-allowed", { sentence: "A card has really paid this: refund it." });
    for (const { invoice_id, n } of sql<{ invoice_id: number; n: number }>(
      `SELECT invoice_id, sum(amount_minor) AS n FROM allocations WHERE payment_id = ?
        GROUP BY invoice_id HAVING sum(amount_minor) > 0`,
    ).all(paymentId))
      releaseFrom(context, payment, invoice_id, n, reason);
    if (received(context, paymentId).left < payment.amount_minor)
      throw new Refusal("not-allowed", { sentence: "A part of this payment was refunded: it was real." });
    const event = sql<{ id: number }>("SELECT id FROM ledger_events WHERE key = ?").get(`payment ${paymentId}`)!;
    const entries = sql<{ account: Account; amountMinor: number; paymentId: number; technicianId: number | null }>(
      `SELECT account, amount_minor AS amountMinor, payment_id AS paymentId, technician_id AS technicianId
        FROM ledger_entries WHERE event_id = ? ORDER BY line`,
    ).all(event.id);
    post(
      context,
      { kind: "reversal", key: `payment ${paymentId} taken back`, reason, reversesId: event.id },
      reversed(
        entries.map(({ technicianId, account, ...entry }) =>
          // What was handed over lies where it was counted into.
          account === "cash out" && payment.handover_id !== null
            ? { ...entry, account: payment.method === "cash" ? ("cash" as const) : ("bank" as const) }
            : { ...entry, account, ...(technicianId !== null && { technicianId }) },
        ),
      ),
    );
    sql("UPDATE payments SET state = 'taken back' WHERE id = ?").run(paymentId);
  },
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

type Received = Rows["payments"] & { left: number };

function received({ sql }: OperationContext, paymentId: number): Received {
  const payment = sql<Received>(
    `SELECT p.*, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id WHERE p.id = ? AND p.state = 'received'`,
  ).get(paymentId);
  if (!payment) throw new Refusal("not-found");
  return payment;
}

/** An invoice that this payment has paid is open again, and is reminded of as before. */
function releaseFrom(
  context: OperationContext,
  payment: Received,
  invoiceId: number,
  minor: number,
  reason: string,
): void {
  release(context, invoiceId, minor, reason, payment.id);
  context
    .sql("UPDATE invoices SET remind_on = max(date(due_date, '+1 day'), ?) WHERE id = ? AND remind_on IS NULL")
    .run(context.today, invoiceId);
}
