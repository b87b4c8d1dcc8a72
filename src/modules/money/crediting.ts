import { type CreditableLine, creditedPart, leftOf } from "@/core/money/credit";
import { type Minor, moneyWords, sum } from "@/core/money/amounts";
import { invoiceCredited } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { wordsOf } from "@/modules/catalogue/text-blocks";
import { keepSeller } from "./sellers";
import { insertRow } from "@/store/insert";
import { numberOf } from "./invoicing";
import { post, release } from "./ledger";
import { withWriteOffOpen } from "./writing-off";

/** The lines of an invoice, with what was taken back of each before. */
export const creditableLines = ({ sql }: ViewContext, invoiceId: number): CreditableLine[] =>
  sql<CreditableLine>(
    `SELECT l.position, l.description, l.tax_bp AS taxBp, l.amount_minor AS amountMinor, l.tax_minor AS taxMinor,
        coalesce(sum(c.amount_minor), 0) AS creditedMinor, coalesce(sum(c.tax_minor), 0) AS creditedTaxMinor
      FROM invoice_lines l LEFT JOIN credit_notes n ON n.invoice_id = l.invoice_id
        LEFT JOIN credit_note_lines c ON c.note_id = n.id AND c.position = l.position
      WHERE l.invoice_id = ? GROUP BY l.position ORDER BY l.position`,
  ).all(invoiceId);

/** A line that is named several times is credited once, by what is named in all. */
function together(parts: NonNullable<Parts>): NonNullable<Parts> {
  const sums = new Map<number, Minor>();
  for (const { position, amountMinor } of parts) sums.set(position, (sums.get(position) ?? 0) + amountMinor);
  return [...sums].map(([position, amountMinor]) => ({ position, amountMinor }));
}

/** So much of which line; all that is left of each where nothing is named. */
export type Parts = readonly { position: number; amountMinor: number }[] | null;

/**
 * Takes an invoice back by a credit note, whole or in parts. What had paid that part is the customer's again. A job whose
 * invoice is taken back whole has none: it can be invoiced again. Answers the note's id.
 */
export function creditInvoice(context: OperationContext, invoiceId: number, parts: Parts, reason: string): number {
  const { sql, business } = context;
  const invoice = sql<{ customer_id: number; open_minor: number }>(
    `SELECT i.customer_id, b.open_minor
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = ?`,
  ).get(invoiceId);
  if (!invoice) throw new Refusal("not-found");
  const lines = creditableLines(context, invoiceId);
  const wanted = parts
    ? together(parts)
    : lines.map((line) => ({ position: line.position, amountMinor: leftOf(line) }));
  const credited = wanted.flatMap(({ position, amountMinor }, i) => {
    const line = lines.find((one) => one.position === position);
    if (amountMinor === 0) return [];
    const part = line && creditedPart(line, amountMinor);
    if (!part)
      throw new Refusal("amount-too-large", {
        fields: {
          [`/lines/${i}/amountMinor`]: `Of this line ${moneyWords(line ? leftOf(line) : 0, business.currency)} can be credited.`,
        },
      });
    return [part];
  });
  const totalMinor = sum(credited.map((line) => line.amountMinor));
  if (totalMinor <= 0)
    throw new Refusal("nothing-due", { sentence: "There is nothing left of this invoice to be credited." });
  const customerId = invoice.customer_id;
  const act = () => storeNote(context, { invoiceId, customerId, credited, totalMinor, reason });
  // What was given up is not credited where enough is open without it.
  const noteId = invoice.open_minor < totalMinor ? withWriteOffOpen(context, invoiceId, reason, act) : act();
  if (creditableLines(context, invoiceId).every((line) => leftOf(line) === 0))
    sql("UPDATE invoices SET job_id = NULL, remind_on = NULL WHERE id = ?").run(invoiceId);
  return noteId;
}

const openOf = ({ sql }: OperationContext, invoiceId: number): Minor =>
  sql<{ n: Minor }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(invoiceId)!.n;

/** What had paid the credited part is free again, and the note stands. */
function storeNote(
  context: OperationContext,
  {
    invoiceId,
    customerId,
    credited,
    totalMinor,
    reason,
  }: {
    invoiceId: number;
    customerId: number;
    credited: readonly NonNullable<ReturnType<typeof creditedPart>>[];
    totalMinor: Minor;
    reason: string;
  },
): number {
  const { sql, now, business } = context;
  const open = openOf(context, invoiceId);
  if (open < totalMinor) release(context, invoiceId, totalMinor - open, reason);
  const taxMinor = sum(credited.map((line) => line.taxMinor));
  const noteId = insertRow(sql, "credit_notes", {
    after_text: wordsOf(context, "credit note", "after").join("\n\n"),
    ...numberOf(context, "credit_notes", business.credit_prefix),
    invoice_id: invoiceId,
    seller_id: keepSeller(context),
    customer_id: customerId,
    issued_at: now,
    total_minor: totalMinor,
    tax_minor: taxMinor,
    reason: reason.trim(),
  });
  for (const line of credited)
    insertRow(sql, "credit_note_lines", {
      note_id: noteId,
      position: line.position,
      description: line.description,
      tax_bp: line.taxBp,
      amount_minor: line.amountMinor,
      tax_minor: line.taxMinor,
    });
  post(
    context,
    { kind: "credit note", key: `credit note ${noteId}`, reason },
    invoiceCredited(noteId, invoiceId, credited),
  );
  return noteId;
}
