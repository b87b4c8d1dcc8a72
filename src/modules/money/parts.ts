import { type Minor, sum } from "@/core/money/amounts";
import { openParts, type Part, splitEvenly } from "@/core/money/instalments";
import { nextPaymentReminder } from "@/core/messages/moments";
import { addDays, type LocalDate } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { reminderDays } from "@/modules/messages/reminders";
import { insertRow } from "@/store/insert";

/** The parts in which an invoice is paid; none where it is paid as a whole. */
export const partsOf = ({ sql }: Pick<ViewContext, "sql">, invoiceId: number): Part[] =>
  sql<Part>(
    "SELECT due_date AS due, amount_minor AS amountMinor FROM invoice_parts WHERE invoice_id = ? ORDER BY position",
  ).all(invoiceId);

/** What is to be paid of an invoice by its next date: of the part that is due next and those before it, or all that is open. */
export function dueNow(context: ViewContext, invoiceId: number, openMinor: Minor): Minor {
  const open = openParts(partsOf(context, invoiceId), openMinor);
  const due = open.filter(({ due }, i) => i === 0 || due <= context.today);
  return due.length ? sum(due.map((part) => part.openMinor)) : openMinor;
}

/** From now on an invoice is paid in these parts; those before are forgotten. */
export function storeParts(context: OperationContext, invoiceId: number, parts: readonly Part[]): void {
  const { sql, now } = context;
  sql("DELETE FROM invoice_parts WHERE invoice_id = ?").run(invoiceId);
  for (const [position, { due, amountMinor }] of parts.entries())
    insertRow(sql, "invoice_parts", { invoice_id: invoiceId, position, due_date: due, amount_minor: amountMinor });
  sql("UPDATE invoices SET collect_known = ?, late_fee_on = NULL WHERE id = ?").run(now, invoiceId);
  moveDueDate(context, invoiceId);
}

/** What is open of an invoice in equal parts by the month, the first on its due date, or today where that is over. */
export function splitByMonth(context: OperationContext, invoiceId: number, parts: number): void {
  const { sql, today } = context;
  const { open, due } = sql<{ open: Minor; due: LocalDate }>(
    "SELECT open_minor AS open, due_date AS due FROM invoice_balances WHERE invoice_id = ?",
  ).get(invoiceId)!;
  if (open >= parts) storeParts(context, invoiceId, splitEvenly(open, parts, due < today ? today : due));
}

/** The first part that is open is what is due; its reminders count from its day. Nothing moves where an invoice is paid as a whole. */
export function moveDueDate(context: OperationContext, invoiceId: number): void {
  const { sql, today } = context;
  const parts = partsOf(context, invoiceId);
  if (parts.length === 0) return;
  const { open, due } = sql<{ open: Minor; due: LocalDate }>(
    "SELECT open_minor AS open, due_date AS due FROM invoice_balances WHERE invoice_id = ?",
  ).get(invoiceId)!;
  const [next] = openParts(parts, open);
  if (next && next.due !== due)
    sql("UPDATE invoices SET due_date = ?, remind_on = ? WHERE id = ?").run(
      next.due,
      nextPaymentReminder(next.due, reminderDays(context), today),
      invoiceId,
    );
}

/** An invoice of which something is open again is reminded of by its due date, or from tomorrow on where all of its days have passed. */
export function remindAgain(context: OperationContext, invoiceId: number): void {
  const { sql, today } = context;
  const { due } = sql<{ due: LocalDate }>("SELECT due_date AS due FROM invoices WHERE id = ?").get(invoiceId)!;
  const next = nextPaymentReminder(due, reminderDays(context), today) ?? addDays(today, 1);
  sql("UPDATE invoices SET remind_on = ? WHERE id = ?").run(next, invoiceId);
}

/** In how many parts at most a customer may pay a sum by themselves; 1 is not at all. */
export const partsOffered = ({ business }: Pick<ViewContext, "business">, minor: Minor): number =>
  minor >= Math.max(business.parts_from_minor, business.parts_most) ? business.parts_most : 1;
