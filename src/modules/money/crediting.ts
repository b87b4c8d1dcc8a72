import { type CreditableLine, creditedPart, leftOf } from "@/core/money/credit";
import { type Minor, moneyWords, sum } from "@/core/money/amounts";
import { invoiceCredited, reversed, writtenOff } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { wordsOf } from "@/modules/catalogue/text-blocks";
import { keepSeller } from "./sellers";
import { insertRow } from "@/store/insert";
import { numberOf } from "./invoicing";
import { post, release } from "./ledger";

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
  const { sql, now, business } = context;
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
  const open = invoice.open_minor + takeWriteOffBack(context, invoiceId, reason);
  if (open < totalMinor) release(context, invoiceId, totalMinor - open, reason);
  const taxMinor = sum(credited.map((line) => line.taxMinor));
  const noteId = insertRow(sql, "credit_notes", {
    after_text: wordsOf(context, "credit note", "after").join("\n\n"),
    ...numberOf(context, "credit_notes", business.credit_prefix),
    invoice_id: invoiceId,
    seller_id: keepSeller(context),
    customer_id: invoice.customer_id,
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
  if (creditableLines(context, invoiceId).every((line) => leftOf(line) === 0))
    sql("UPDATE invoices SET job_id = NULL, remind_on = NULL WHERE id = ?").run(invoiceId);
  return noteId;
}

/** An invoice that was given up and is taken back by a credit note was not given up. Answers what is open again. */
function takeWriteOffBack(context: OperationContext, invoiceId: number, reason: string): Minor {
  const writeOff = standingWriteOff(context, invoiceId);
  if (!writeOff) return 0;
  post(
    context,
    { kind: "reversal", key: `event ${writeOff.id} taken back`, reason, reversesId: writeOff.id },
    reversed(writtenOff(invoiceId, writeOff.minor)),
  );
  return writeOff.minor;
}

/** What was given up of an invoice, and stands. */
export const standingWriteOff = ({ sql }: ViewContext, invoiceId: number) =>
  sql<{ id: number; at: number; reason: string; minor: Minor }>(
    `SELECT v.id, v.at, v.reason, e.amount_minor AS minor
      FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id
      WHERE e.invoice_id = ? AND e.account = 'write-offs' AND v.kind = 'write-off'
        AND NOT EXISTS (SELECT 1 FROM ledger_events WHERE reverses_id = v.id)`,
  ).get(invoiceId);
