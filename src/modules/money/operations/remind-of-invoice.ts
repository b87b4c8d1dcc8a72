import { nextPaymentReminder, paymentRemindersDue, reminderTone } from "@/core/messages/moments";
import { moneyWords } from "@/core/money/amounts";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { invoiceFields, tellAboutInvoice } from "@/modules/messages/messaging";
import { reminderDays } from "@/modules/messages/reminders";
import { dueNow, partsOf } from "../parts";

/** Writes the newest reminder of an unpaid invoice that has come, and notes the day of the next one. */
export const remindOfInvoice = defineOperation({
  name: "remind-of-invoice",
  access: "system",
  input: input({ invoiceId: Id }),
  run(context, { invoiceId }) {
    const { sql, today, business } = context;
    const invoice = sql<{
      id: number;
      label: string;
      due_date: string;
      total_minor: number;
      open_minor: number;
    }>(
      `SELECT i.id, i.label, i.due_date, i.total_minor, b.open_minor
        FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = ?`,
    ).get(invoiceId)!;
    const owed = invoice.open_minor > 0;
    const inParts = partsOf(context, invoiceId).length > 0;
    const days = reminderDays(context);
    const number = owed ? paymentRemindersDue(invoice.due_date, days, today).at(-1) : undefined;
    if (number)
      tellAboutInvoice(context, invoice.id, {
        occasion: occasionOf[reminderTone(days, number)],
        // Each part is reminded of on its own.
        about: `invoice ${invoice.id}${inParts ? ` due ${invoice.due_date}` : ""}, ${number}`,
        fields: {
          ...invoiceFields(business.currency, {
            ...invoice,
            openMinor: dueNow(context, invoiceId, invoice.open_minor),
          }),
          others: othersOpen(context, invoice.id),
        },
      });
    sql("UPDATE invoices SET remind_on = ? WHERE id = ?").run(
      owed ? nextPaymentReminder(invoice.due_date, days, today) : null,
      invoiceId,
    );
  },
});

const occasionOf = { coming: "invoice coming", reminder: "invoice reminder", last: "last reminder" } as const;

/** Where other invoices of the customer are open too, what all of them come to. */
function othersOpen({ sql, business }: OperationContext, invoiceId: number): string {
  const { n, minor } = sql<{ n: number; minor: number }>(
    `SELECT count(*) AS n, coalesce(sum(b.open_minor), 0) AS minor FROM invoice_balances b
      WHERE b.customer_id = (SELECT customer_id FROM invoices WHERE id = ?) AND b.open_minor > 0`,
  ).get(invoiceId)!;
  return n > 1 ? `\n\nWith your other invoices, ${moneyWords(minor, business.currency)} is open in all.` : "";
}
