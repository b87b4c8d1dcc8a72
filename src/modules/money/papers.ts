import type { Paper, PaperEntry, PaperLine, TaxKind } from "@/core/money/papers";
import { sum } from "@/core/money/amounts";
import { openParts } from "@/core/money/instalments";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { localDate } from "@/core/time/local";
import { linesOf, sellerThen, sellerToday } from "./sellers";
import { partsOf } from "./parts";
import { wordsOf } from "@/modules/catalogue/text-blocks";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";

const dayOf = ({ business }: ViewContext, at: number): LocalDate =>
  localDate(Math.floor(at / 60_000), business.time_zone);

/** An invoice as it was sent, and how it stands now. */
export function paperOfInvoice(context: ViewContext, invoiceId: number): Paper {
  const { sql } = context;
  const invoice = readInvoice(context, invoiceId);
  const parts = partsOf(context, invoiceId);
  // What was paid or credited is asked for no more.
  const open = openParts(parts, invoice.open_minor).map(({ due, openMinor }) => ({ due, amountMinor: openMinor }));
  const lines = sql<PaperLine>(
    `SELECT description, quantity, unit_minor AS unitMinor, tax_bp AS taxBp, amount_minor AS amountMinor, tax_minor AS taxMinor,
        discount_bp AS discountBp, date
      FROM invoice_lines WHERE invoice_id = ? ORDER BY position`,
  ).all(invoiceId);
  return {
    ...framed(context, invoice),
    kind: "invoice",
    label: invoice.label,
    issued: dayOf(context, invoice.issued_at),
    due: parts.at(-1)?.due ?? invoice.due_date,
    parts: open,
    about: null,
    before: invoice.before_text,
    after: invoice.after_text,
    lines,
    totalMinor: invoice.total_minor,
    paidMinor: invoice.applied_minor,
    creditedMinor: invoice.total_minor - invoice.applied_minor - invoice.open_minor,
    openMinor: invoice.open_minor,
  };
}

/** A credit note: what it takes back of its invoice. */
export function paperOfNote(context: ViewContext, noteId: number): Paper {
  const { sql } = context;
  const note = sql<Rows["credit_notes"]>("SELECT * FROM credit_notes WHERE id = ?").get(noteId);
  if (!note) throw new Refusal("not-found");
  const invoice = readInvoice(context, note.invoice_id);
  const lines = sql<Omit<PaperLine, "quantity" | "discountBp" | "date">>(
    `SELECT description, amount_minor AS unitMinor, tax_bp AS taxBp, amount_minor AS amountMinor, tax_minor AS taxMinor
      FROM credit_note_lines WHERE note_id = ? ORDER BY position`,
  )
    .all(noteId)
    .map((line): PaperLine => ({ ...line, quantity: 1, discountBp: 0, date: null }));
  return {
    ...framed(context, invoice, note.seller_id),
    kind: "credit note",
    label: note.label,
    issued: dayOf(context, note.issued_at),
    due: null,
    about: invoice.label,
    before: note.reason,
    after: note.after_text,
    lines,
    totalMinor: note.total_minor,
    paidMinor: 0,
    creditedMinor: 0,
    openMinor: 0,
  };
}

/** What has come of a payment, and what it has paid. */
export function paperOfPayment(context: ViewContext, paymentId: number): Paper {
  const { sql, business } = context;
  const payment = sql<Rows["payments"]>("SELECT * FROM payments WHERE id = ? AND state = 'received'").get(paymentId);
  if (!payment) throw new Refusal("not-found");
  const paid = sql<{ label: string; minor: number }>(
    `SELECT i.label, sum(a.amount_minor) AS minor
      FROM allocations a JOIN invoices i ON i.id = a.invoice_id WHERE a.payment_id = ?
      GROUP BY i.id HAVING sum(a.amount_minor) > 0 ORDER BY i.id`,
  ).all(paymentId);
  const left = payment.amount_minor - sum(paid.map(({ minor }) => minor));
  const day = dayOf(context, payment.settled_at!);
  const line = (description: string, minor: number): PaperLine => ({
    description,
    quantity: 1,
    unitMinor: minor,
    taxBp: 0,
    amountMinor: minor,
    taxMinor: 0,
    discountBp: 0,
    date: null,
  });
  return {
    kind: "receipt",
    label: String(payment.id),
    issued: day,
    due: null,
    about: null,
    ...sellerToday(context),
    buyer: buyerOf(context, payment.customer_id),
    place: null,
    currency: business.currency,
    taxKind: "standard",
    zeroKind: "zero rated",
    taxWords: "",
    before: `Received by ${{ card: "card", cash: "cash", bank: "transfer", cheque: "cheque" }[payment.method]}${payment.note ? ` (${payment.note})` : ""}, with thanks.`,
    lines: [
      ...paid.map(({ label, minor }) => line(`Invoice ${label}`, minor)),
      ...(payment.tip_minor > 0 ? [line("Tip", payment.tip_minor)] : []),
      ...(left > 0 ? [line(payment.purpose === "deposit" ? "Deposit" : "On account", left)] : []),
    ],
    entries: [],
    totalMinor: payment.amount_minor + payment.tip_minor,
    paidMinor: payment.amount_minor + payment.tip_minor,
    creditedMinor: 0,
    openMinor: 0,
    after: wordsOf(context, "receipt", "after").join("\n\n"),
  };
}

/** A customer's account from one day to another, with what it came to before. */
export function statementOf(
  context: ViewContext,
  {
    customerId,
    entries,
    from,
    to,
  }: { customerId: number; entries: readonly PaperEntry[]; from: LocalDate; to: LocalDate },
): Paper {
  const before = entries.findLast(({ date }) => date < from)?.balanceMinor ?? 0;
  const within = entries.filter(({ date }) => date >= from && date <= to);
  const balanceMinor = within.at(-1)?.balanceMinor ?? before;
  return {
    kind: "statement",
    label: "",
    issued: to,
    due: null,
    about: null,
    ...sellerToday(context),
    buyer: buyerOf(context, customerId),
    place: null,
    currency: context.business.currency,
    taxKind: "standard",
    zeroKind: "zero rated",
    taxWords: "",
    before: wordsOf(context, "statement", "before").join("\n\n"),
    lines: [],
    entries: [{ date: from, words: "Brought forward", amountMinor: before, balanceMinor: before }, ...within],
    totalMinor: balanceMinor,
    paidMinor: 0,
    creditedMinor: 0,
    openMinor: Math.max(0, balanceMinor),
    after: wordsOf(context, "statement", "after").join("\n\n"),
  };
}

type InvoiceRow = Rows["invoices"] & {
  applied_minor: number;
  open_minor: number;
  customer: string;
  mail: string;
  phone: string;
  place: string | null;
};

function readInvoice({ sql }: ViewContext, id: number): InvoiceRow {
  const row = sql<InvoiceRow>(
    `SELECT i.*, b.applied_minor, b.open_minor, c.name AS customer, c.mail, c.phone, t.line || ', ' || t.postcode AS place
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id JOIN customers c ON c.id = i.customer_id
        LEFT JOIN jobs j ON j.id = i.job_id LEFT JOIN sites t ON t.id = j.site_id
      WHERE i.id = ?`,
  ).get(id);
  if (!row) throw new Refusal("not-found");
  return row;
}

/** What an invoice and its credit notes have in common. */
const framed = (context: ViewContext, invoice: InvoiceRow, sellerId = invoice.seller_id) => ({
  ...sellerThen(context, sellerId),
  buyer: {
    name: invoice.buyer_name || invoice.customer,
    address: linesOf(invoice.buyer_address),
    taxNumber: invoice.buyer_tax_number,
    mail: invoice.bill_mail || invoice.mail,
    phone: invoice.phone,
  },
  place: invoice.place === invoice.buyer_address ? null : invoice.place,
  currency: context.business.currency,
  taxKind: invoice.tax_kind as TaxKind,
  zeroKind: invoice.zero_kind,
  taxWords: invoice.tax_words,
  entries: [],
});

/** A customer as a paper is made out to them now. */
function buyerOf({ sql }: ViewContext, customerId: number): Paper["buyer"] {
  const customer = sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(customerId);
  if (!customer) throw new Refusal("not-found");
  const site = sql<{ line: string }>(
    "SELECT line || ', ' || postcode AS line FROM sites WHERE customer_id = ? ORDER BY id LIMIT 1",
  ).get(customerId);
  return {
    name: customer.bill_name || customer.name,
    address: linesOf(customer.bill_name ? customer.bill_address : (site?.line ?? "")),
    taxNumber: customer.tax_number,
    mail: customer.bill_mail || customer.mail,
    phone: customer.phone,
  };
}
