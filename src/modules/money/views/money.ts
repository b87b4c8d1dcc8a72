import { invoiceState } from "@/core/money/applying";
import { localDate } from "@/core/time/local";
import { Refusal } from "@/core/problems";
import { Id, input } from "@/schemas/common";
import { Nothing } from "@/schemas/money";
import { defineView } from "./view";

interface InvoiceRow {
  id: number;
  number: number;
  customer_id: number;
  customer: string;
  issued_at: number;
  due_date: string;
  total_minor: number;
  tax_minor: number;
  cancelled_at: number | null;
  applied: number;
  job_id: number;
}
const invoiceRows =
  "SELECT i.*, c.name AS customer, coalesce((SELECT sum(amount_minor) FROM applications WHERE invoice_id = i.id), 0) AS applied FROM invoices i JOIN customers c ON c.id = i.customer_id";

/** Invoices, what was received, and whether the sums agree: worked out twice, from the rows and from the journal. */
export const money = defineView({
  name: "money",
  access: "money.see",
  input: Nothing,
  read({ sql, today, business }) {
    const sum = (query: string) => sql<{ n: number }>(`SELECT coalesce(sum(n), 0) AS n FROM (${query})`).get()!.n;
    const invoices = sql<InvoiceRow>(`${invoiceRows} ORDER BY i.number DESC LIMIT 5000`)
      .all()
      .map((i) => ({
        id: i.id,
        number: i.number,
        customer: i.customer,
        customerId: i.customer_id,
        issued: localDate(Math.floor(i.issued_at / 60_000), business.time_zone),
        dueDate: i.due_date,
        totalMinor: i.total_minor,
        openMinor: i.total_minor - i.applied,
        state: invoiceState(
          {
            totalMinor: i.total_minor,
            appliedMinor: i.applied,
            dueDate: i.due_date,
            cancelled: i.cancelled_at !== null,
          },
          today,
        ),
      }));
    const received = sum("SELECT amount_minor AS n FROM payments WHERE state = 'received'");
    const applied = sum("SELECT amount_minor AS n FROM applications");
    const refunded = sum("SELECT amount_minor AS n FROM refunds");
    const kept = sum(
      `SELECT p.amount_minor - coalesce((SELECT sum(amount_minor) FROM applications WHERE payment_id = p.id), 0) - coalesce((SELECT sum(amount_minor) FROM refunds WHERE payment_id = p.id), 0) AS n
       FROM payments p WHERE p.state = 'received'`,
    );
    const account = (name: string) => sum(`SELECT amount_minor AS n FROM journal WHERE account = '${name}'`);
    const journal = {
      received: account("card") + account("cash") + account("bank"),
      held: -account("held"),
      receivable: account("receivable"),
      all: sum("SELECT amount_minor AS n FROM journal"),
    };
    const pendingRefunds = sum("SELECT amount_minor AS n FROM refunds WHERE state = 'asked'");
    const open = invoices.filter((i) => i.state !== "cancelled").reduce((total, i) => total + i.openMinor, 0);
    return {
      currency: business.currency,
      invoices,
      totals: {
        received,
        applied,
        refunded,
        kept,
        open,
        overdue: invoices.filter((i) => i.state === "overdue").reduce((total, i) => total + i.openMinor, 0),
        agrees:
          received === applied + refunded + kept &&
          journal.all === 0 &&
          journal.received === received - refunded + pendingRefunds &&
          journal.held === kept + pendingRefunds &&
          journal.receivable === open,
      },
    };
  },
});

/** One invoice with its lines and every cent that was applied to it. */
export const invoice = defineView({
  name: "invoice",
  access: "money.see",
  input: input({ id: Id }),
  read({ sql, today, business }, { id }) {
    const row = sql<InvoiceRow>(`${invoiceRows} WHERE i.id = ?`).get(id);
    if (!row) throw new Refusal("not-found");
    return {
      id: row.id,
      number: row.number,
      customer: row.customer,
      customerId: row.customer_id,
      dueDate: row.due_date,
      totalMinor: row.total_minor,
      taxMinor: row.tax_minor,
      openMinor: row.total_minor - row.applied,
      currency: business.currency,
      timeZone: business.time_zone,
      issuedAt: row.issued_at,
      state: invoiceState(
        {
          totalMinor: row.total_minor,
          appliedMinor: row.applied,
          dueDate: row.due_date,
          cancelled: row.cancelled_at !== null,
        },
        today,
      ),
      // A fee stands in place of the work.
      lines: sql<{ description: string; quantity: number; amount_minor: number; tax_minor: number; tax_bp: number }>(
        `SELECT description, 1.0 AS quantity, amount_minor, tax_minor, tax_bp, 0 AS position FROM fees WHERE job_id = @jobId
         UNION ALL SELECT description, quantity, amount_minor, tax_minor, tax_bp, position FROM job_lines WHERE job_id = @jobId AND NOT EXISTS (SELECT 1 FROM fees WHERE job_id = @jobId) ORDER BY position`,
      ).all({ jobId: row.job_id }),
      payments: sql<{
        id: number;
        purpose: string;
        method: string;
        amount_minor: number;
        state: string;
        problem: string | null;
        asked_at: number;
        settled_at: number | null;
        gateway_reference: string | null;
        applied: number | null;
      }>(
        "SELECT p.*, a.amount_minor AS applied FROM payments p LEFT JOIN applications a ON a.payment_id = p.id AND a.invoice_id = ? WHERE p.job_id = ? ORDER BY p.id",
      ).all(id, row.job_id),
      reminders: sql<{ id: number; subject: string; state: string; written_at: number; channel: string }>(
        "SELECT id, subject, state, written_at, channel FROM messages WHERE job_id = ? AND occasion LIKE 'invoice%' ORDER BY id",
      ).all(row.job_id),
    };
  },
});
