import { ages, dueOfAge } from "@/core/money/ages";
import { invoicesShown, type InvoicesShown, invoiceState } from "@/core/money/applying";
import { parseMoney, sum } from "@/core/money/amounts";
import { leftOf } from "@/core/money/credit";
import { openParts } from "@/core/money/instalments";
import { applied, disagreements, keptCredit, owed } from "@/core/money/balance";
import { Refusal } from "@/core/problems";
import { localDate } from "@/core/time/local";
import { Id, input, Nothing, OneOf, OrNull } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { readBooks } from "../books";
import { creditableLines } from "../crediting";
import { standingWriteOff } from "../writing-off";
import { creditOf } from "../ledger";
import { partsOf } from "../parts";

interface InvoiceRow {
  id: number;
  label: string;
  customer_id: number;
  customer: string;
  issued_at: number;
  due_date: string;
  total_minor: number;
  tax_minor: number;
  applied_minor: number;
  credited_minor: number;
  open_minor: number;
  job_id: number | null;
  bill_name: string;
  bill_mail: string;
  bill_address: string;
  late_fee_on: string | null;
  objected_at: number | null;
  objection: string;
  late_fee_waived: string;
  collect_never: number;
  collect_on: string | null;
  collect_card_id: number | null;
}
const invoiceRows = `SELECT i.*, c.name AS customer, b.applied_minor, b.credited_minor, b.open_minor
    FROM invoices i JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id`;

const sorts = ["number", "customer", "issued", "dueDate", "totalMinor", "openMinor"] as const;
/** Which invoices: a condition each. The same as core's invoiceState, in the database's words. */
const shown: Record<InvoicesShown, string> = {
  all: "@today IS NOT NULL",
  open: "b.open_minor > 0 AND @today IS NOT NULL",
  overdue: "b.open_minor > 0 AND i.due_date < @today",
  "part paid": "b.open_minor > 0 AND b.applied_minor > 0 AND i.due_date >= @today",
  paid: "b.applied_minor + b.credited_minor >= i.total_minor AND (i.total_minor = 0 OR b.credited_minor < i.total_minor) AND @today IS NOT NULL",
};

/** One page of the invoices; looked for by number, customer and amount. */
export const invoices = defineView({
  name: "invoices",
  access: "money.see of all",
  input: input({
    ...pageInput(sorts),
    show: OneOf(invoicesShown),
    /** How long they are due, where that is asked. */
    age: Type.Optional(OrNull(OneOf(ages))),
  }),
  read(context, asked) {
    const { sql, today, business } = context;
    const joined = "JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id";
    const { from, to } = asked.age ? dueOfAge(asked.age, today) : { from: null, to: null };
    const { rows: ids, count } = readPage(context, asked, {
      from: `FROM invoices i ${joined}`,
      where: `${shown[asked.show]} AND i.due_date >= coalesce(@from, i.due_date) AND i.due_date <= coalesce(@to, i.due_date) AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR i.label LIKE @search ESCAPE '\\' OR i.total_minor = @amount OR b.open_minor = @amount)`,
      id: "i.id",
      order: {
        number: "i.id",
        customer: "c.name COLLATE NOCASE",
        issued: "i.issued_at",
        dueDate: "i.due_date",
        totalMinor: "i.total_minor",
        openMinor: "b.open_minor",
      },
      params: {
        today,
        from,
        to,
        search: likePattern(asked.search),
        amount: parseMoney(asked.search, business.currency),
      },
    });
    const row = sql<InvoiceRow>(`${invoiceRows} WHERE i.id = ?`);
    return {
      currency: business.currency,
      count,
      rows: ids.map((id) => {
        const i = row.get(id)!;
        return {
          id: i.id,
          number: i.label,
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

/** What was received and what became of it by the ledger, and whether the papers agree with it. */
export const money = defineView({
  name: "money",
  access: "money.see of all",
  input: Nothing,
  read({ sql, today, business }) {
    const books = readBooks(sql);
    const { overdue } = sql<{ overdue: number }>(
      "SELECT coalesce(sum(open_minor), 0) AS overdue FROM invoice_balances WHERE open_minor > 0 AND due_date < ?",
    ).get(today)!;
    const wrong = disagreements(books);
    return {
      today,
      currency: business.currency,
      totals: {
        received: books.papers.received,
        applied: applied(books),
        refunded: books.papers.refundsAsked,
        kept: keptCredit(books),
        open: owed(books),
        overdue,
        agrees: wrong.length === 0,
        wrong,
      },
    };
  },
});

const stateOf = (i: InvoiceRow, today: string) =>
  invoiceState(
    {
      totalMinor: i.total_minor,
      openMinor: i.open_minor,
      appliedMinor: i.applied_minor,
      creditedMinor: i.credited_minor,
      dueDate: i.due_date,
    },
    today,
  );

/** One invoice with its lines and every cent that was applied to it. */
export const invoice = defineView({
  name: "invoice",
  access: "money.see",
  about: { id: "invoice" },
  input: input({ id: Id }),
  read(context, { id }) {
    const { sql, today, business } = context;
    const row = sql<InvoiceRow>(`${invoiceRows} WHERE i.id = ?`).get(id);
    if (!row) throw new Refusal("not-found");
    return {
      id: row.id,
      number: row.label,
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
      creditMinor: row.open_minor > 0 ? sum(creditOf(context, row.customer_id).map(({ leftMinor }) => leftMinor)) : 0,
      /** What of each line can still be credited. */
      creditable: creditableLines(context, id).map((line) => ({
        position: line.position,
        description: line.description,
        leftMinor: leftOf(line),
      })),
      notes: sql<{ id: number; number: string; issued_at: number; total_minor: number; reason: string }>(
        "SELECT id, label AS number, issued_at, total_minor, reason FROM credit_notes WHERE invoice_id = ? ORDER BY id",
      ).all(id),
      writtenOff: standingWriteOff(context, id) ?? null,
      /** Other invoices of this customer that one payment may pay with it. */
      others: sql<{ id: number; number: string; openMinor: number }>(
        `SELECT i.id, i.label AS number, b.open_minor AS openMinor
          FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
          WHERE i.customer_id = ? AND i.id <> ? AND b.open_minor > 0 ORDER BY i.due_date, i.id LIMIT 40`,
      ).all(row.customer_id, id),
      /** Work of it that has no invoice any more, since this one was credited whole. */
      toInvoice: sql<{ jobId: number }>(
        `SELECT DISTINCT l.job_id AS jobId FROM invoice_lines l
          WHERE l.invoice_id = @id AND l.job_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM invoices WHERE job_id = l.job_id)`,
      )
        .all({ id })
        .map(({ jobId }) => jobId),
      lines: sql<{ description: string; quantity: number; amount_minor: number; tax_minor: number; tax_bp: number }>(
        `SELECT description, quantity, amount_minor, tax_minor, tax_bp
          FROM invoice_lines WHERE invoice_id = ? ORDER BY position`,
      ).all(id),
      payments: sql<{
        id: number;
        purpose: string;
        method: string;
        amount_minor: number;
        state: string;
        problem: string | null;
        asked_at: number;
        settled_at: number | null;
        note: string;
        gateway_reference: string | null;
        applied: number | null;
        left: number;
      }>(
        `SELECT p.*, a.amount_minor AS applied, b.left_minor AS left
          FROM payments p JOIN payment_balances b ON b.payment_id = p.id
            LEFT JOIN (SELECT payment_id, sum(amount_minor) AS amount_minor FROM allocations WHERE invoice_id = @id GROUP BY 1) a
              ON a.payment_id = p.id
          WHERE p.job_id = @jobId OR a.payment_id IS NOT NULL ORDER BY p.id`,
      ).all({ id, jobId: row.job_id }),
      messages: sql<{ id: number; subject: string; state: string; written_at: number; channel: string }>(
        `SELECT id, subject, state, written_at, channel
          FROM messages WHERE (job_id = @jobId OR invoice_id = @id) AND (occasion LIKE 'invoice%' OR occasion LIKE 'receipt%')
          ORDER BY id`,
      ).all({ id, jobId: row.job_id }),
      life: lifeOf(context, id, row.job_id),
      /** What is open of it in parts; none where it is paid as a whole. */
      parts: openParts(
        partsOf(context, id).map((part, i, all) => ({ ...part, words: `part ${i + 1} of ${all.length}` })),
        row.open_minor,
      ),
      objection: row.objected_at === null ? null : { at: row.objected_at, words: row.objection },
      collection: {
        never: row.collect_never === 1,
        on: row.collect_on,
        notice:
          sql<{ date: string; minor: number; objected: number | null }>(
            `SELECT run_date AS date, amount_minor AS minor, objected_at AS objected
              FROM collection_notices WHERE invoice_id = ? AND run_date >= ? ORDER BY run_date DESC LIMIT 1`,
          ).get(id, today) ?? null,
        /** Cards that may be charged by themselves, in their owner's order. */
        cards: sql<{ id: number; label: string }>(
          "SELECT id, label FROM cards WHERE customer_id = ? AND collects = 1 AND removed_at IS NULL ORDER BY position, id",
        ).all(row.customer_id),
        cardId: row.collect_card_id,
        promise:
          sql<{ day: string; ended: string | null }>(
            "SELECT day, ended FROM pay_promises WHERE invoice_id = ? ORDER BY id DESC LIMIT 1",
          ).get(id) ?? null,
      },
      today,
      lateFee: {
        on: row.late_fee_on,
        waived: row.late_fee_waived,
        invoice:
          sql<{ id: number; number: string }>("SELECT id, label AS number FROM invoices WHERE fee_of_id = ?").get(id) ??
          null,
      },
    };
  },
});

/** All that happened with an invoice, in order: amounts are what was done to what is open. */
const lifeOf = ({ sql }: ViewContext, id: number, jobId: number | null) =>
  sql<{ at: number; what: Rows["ledger_events"]["kind"] | "sent"; minor: number | null }>(
    `SELECT v.at, v.kind AS what, sum(e.amount_minor) AS minor, v.id AS nth
        FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id
        WHERE e.invoice_id = @id AND e.account = 'receivable' GROUP BY v.id
      UNION ALL SELECT DISTINCT written_at, 'sent', NULL, 9e15 FROM messages
        WHERE (job_id = @jobId OR invoice_id = @id) AND occasion LIKE 'invoice%'
      ORDER BY at, nth`,
  ).all({ id, jobId });
