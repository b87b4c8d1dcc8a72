import { invoicesShown, type InvoicesShown, invoiceState } from "@/core/money/applying";
import { disagreements, keptCredit } from "@/core/money/balance";
import { Refusal } from "@/core/problems";
import { localDate } from "@/core/time/local";
import { Id, input, Nothing, OneOf } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { readBooks } from "../books";

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
  open_minor: number;
  job_id: number;
  bill_name: string;
  bill_mail: string;
  bill_address: string;
}
const invoiceRows = `SELECT i.*, c.name AS customer, b.applied_minor AS applied, b.open_minor
    FROM invoices i JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id`;

const sorts = ["number", "customer", "issued", "dueDate", "totalMinor", "openMinor"] as const;
/** Which invoices: a condition each. The same as core's invoiceState, in the database's words. */
const shown: Record<InvoicesShown, string> = {
  all: "@today IS NOT NULL",
  open: "b.open_minor > 0 AND @today IS NOT NULL",
  overdue: "b.open_minor > 0 AND i.due_date < @today",
  "part paid": "b.open_minor > 0 AND b.applied_minor > 0 AND i.due_date >= @today",
  paid: "i.cancelled_at IS NULL AND b.open_minor <= 0 AND @today IS NOT NULL",
};

/** One page of the invoices; looked for by number and customer. */
export const invoices = defineView({
  name: "invoices",
  access: "money.see",
  input: input({ ...pageInput(sorts), show: OneOf(invoicesShown) }),
  read(context, asked) {
    const { sql, today, business } = context;
    const joined = "JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id";
    const { rows: ids, count } = readPage(context, asked, {
      from: `FROM invoices i ${joined}`,
      where: `${shown[asked.show]} AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR CAST(i.number AS TEXT) LIKE @search ESCAPE '\\')`,
      id: "i.id",
      order: {
        number: "i.number",
        customer: "c.name COLLATE NOCASE",
        issued: "i.issued_at",
        dueDate: "i.due_date",
        totalMinor: "i.total_minor",
        openMinor: "b.open_minor",
      },
      params: { today, search: likePattern(asked.search) },
    });
    const row = sql<InvoiceRow>(`${invoiceRows} WHERE i.id = ?`);
    return {
      currency: business.currency,
      count,
      rows: ids.map((id) => {
        const i = row.get(id)!;
        return {
          id: i.id,
          number: i.number,
          customer: i.customer,
          customerId: i.customer_id,
          issued: localDate(Math.floor(i.issued_at / 60_000), business.time_zone),
          dueDate: i.due_date,
          totalMinor: i.total_minor,
          openMinor: i.open_minor,
          state: stateOf(i, today),
        };
      }),
    };
  },
});

/** What was received and what became of it, and whether the sums agree: worked out twice, from the rows and from the journal. */
export const money = defineView({
  name: "money",
  access: "money.see",
  input: Nothing,
  read({ sql, today, business }) {
    const books = readBooks(sql);
    const { overdue } = sql<{ overdue: number }>(
      "SELECT coalesce(sum(open_minor), 0) AS overdue FROM invoice_balances WHERE open_minor > 0 AND due_date < ?",
    ).get(today)!;
    const wrong = disagreements(books);
    return {
      currency: business.currency,
      totals: {
        received: books.rows.received,
        applied: books.rows.applied,
        refunded: books.rows.refunded,
        kept: keptCredit(books),
        open: books.rows.open,
        overdue,
        agrees: wrong.length === 0,
        wrong,
      },
    };
  },
});

const stateOf = (i: InvoiceRow, today: string) =>
  invoiceState(
    { totalMinor: i.total_minor, appliedMinor: i.applied, dueDate: i.due_date, cancelled: i.cancelled_at !== null },
    today,
  );

/** One invoice with its lines and every cent that was applied to it. */
export const invoice = defineView({
  name: "invoice",
  access: "money.see",
  about: { id: "invoice" },
  input: input({ id: Id }),
  read({ sql, today, business }, { id }) {
    const row = sql<InvoiceRow>(`${invoiceRows} WHERE i.id = ?`).get(id);
    if (!row) throw new Refusal("not-found");
    return {
      id: row.id,
      number: row.number,
      customer: row.customer,
      customerId: row.customer_id,
      bill: row.bill_name ? [row.bill_name, row.bill_mail, row.bill_address].filter(Boolean).join(", ") : null,
      dueDate: row.due_date,
      totalMinor: row.total_minor,
      taxMinor: row.tax_minor,
      openMinor: row.open_minor,
      currency: business.currency,
      timeZone: business.time_zone,
      issuedAt: row.issued_at,
      state: stateOf(row, today),
      // A fee stands in place of the work.
      lines: sql<{ description: string; quantity: number; amount_minor: number; tax_minor: number; tax_bp: number }>(
        `SELECT description, 1.0 AS quantity, amount_minor, tax_minor, tax_bp, 0 AS position
          FROM fees WHERE job_id = @jobId
          UNION ALL SELECT description, quantity, amount_minor, tax_minor, tax_bp, position
          FROM job_lines WHERE job_id = @jobId AND NOT EXISTS (SELECT 1 FROM fees WHERE job_id = @jobId)
          ORDER BY position`,
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
        `SELECT p.*, a.amount_minor AS applied
          FROM payments p LEFT JOIN applications a ON a.payment_id = p.id AND a.invoice_id = ?
          WHERE p.job_id = ? ORDER BY p.id`,
      ).all(id, row.job_id),
      reminders: sql<{ id: number; subject: string; state: string; written_at: number; channel: string }>(
        `SELECT id, subject, state, written_at, channel
          FROM messages WHERE job_id = ? AND occasion LIKE 'invoice%' ORDER BY id`,
      ).all(row.job_id),
    };
  },
});
