import { lateFeeOf } from "@/core/money/late-fees";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { creditInvoice } from "./crediting";
import { lateFeeRuleOf, storeInvoice } from "./invoicing";

/** Invoices for whose lateness a fee is to be looked at today. */
export const lateInvoices = ({ sql, today }: ViewContext): number[] =>
  sql<{ id: number }>("SELECT id FROM invoices WHERE late_fee_on <= ? AND objected_at IS NULL ORDER BY late_fee_on, id")
    .all(today)
    .map(({ id }) => id);

/** Charges the fee of an invoice that is late, on an invoice of its own; once, and not where it was paid or the rule has gone. */
export function chargeLateFee(context: OperationContext, invoiceId: number): void {
  const { sql, today } = context;
  const late = sql<Pick<Rows["invoices"], "label" | "customer_id"> & { open: number }>(
    `SELECT i.label, i.customer_id, b.open_minor AS open
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = ? AND i.late_fee_on <= ? AND i.objected_at IS NULL`,
  ).get(invoiceId, today);
  if (!late) return;
  sql("UPDATE invoices SET late_fee_on = NULL WHERE id = ?").run(invoiceId);
  const rule = lateFeeRuleOf(context);
  const feeMinor = lateFeeOf(late.open, rule);
  if (late.open <= 0 || rule.days === null || feeMinor <= 0) return;
  const line = { quantity: 1, unitMinor: feeMinor, amountMinor: feeMinor, taxBp: 0, taxMinor: 0, discountBp: 0 };
  storeInvoice(context, {
    customerId: late.customer_id,
    lines: [{ ...line, description: `Late fee for invoice ${late.label}`, date: null, jobId: null }],
    feeOfId: invoiceId,
  });
}

/** The late fee of an invoice is not asked for, or taken back where it was. */
export function waiveLateFee(context: OperationContext, invoiceId: number, reason: string): void {
  const { sql } = context;
  const invoice = sql<Pick<Rows["invoices"], "late_fee_on">>("SELECT late_fee_on FROM invoices WHERE id = ?").get(
    invoiceId,
  );
  if (!invoice) throw new Refusal("not-found");
  const fee = sql<{ id: number }>("SELECT id FROM invoices WHERE fee_of_id = ?").get(invoiceId);
  if (!fee && invoice.late_fee_on === null)
    throw new Refusal("nothing-due", { sentence: "No late fee is asked for, and none will be." });
  sql("UPDATE invoices SET late_fee_on = NULL, late_fee_waived = ? WHERE id = ?").run(reason, invoiceId);
  if (fee) creditInvoice(context, fee.id, null, reason);
}
