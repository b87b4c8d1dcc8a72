import { nextPaymentReminder, paymentRemindersDue, reminderTone, visitReminderAt } from "@/core/messages/moments";
import { moneyWords } from "@/core/money/amounts";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { reminderDays } from "../reminders";
import { invoiceFields, tellAboutInvoice, tellCustomer } from "../messaging";

/** Writes the reminder of a visit to a customer who agreed to reminders. */
export const remindOfVisit = defineOperation({
  name: "remind-of-visit",
  access: "system",
  input: input({ visitId: Id }),
  run(context, { visitId }) {
    const { sql, business } = context;
    const visit = sql<{ job_id: number; window_from: number; booked_at: number }>(
      `SELECT v.job_id, v.window_from, j.booked_at
        FROM visits v JOIN jobs j ON j.id = v.job_id WHERE v.id = ? AND v.reminded_of IS NULL`,
    ).get(visitId);
    if (!visit) return;
    sql("UPDATE visits SET reminded_of = window_from WHERE id = ?").run(visitId);
    const at = visitReminderAt(
      visit.window_from,
      business.reminder_hours,
      { from: business.message_from, to: business.message_to },
      business.time_zone,
    );
    // Whoever booked after the moment of the reminder has just been told.
    if (visit.booked_at / 60_000 < at)
      tellCustomer(context, {
        jobId: visit.job_id,
        visitId,
        occasion: "visit reminder",
        about: `visit ${visitId} at ${visit.window_from}`,
      });
  },
});

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
    const days = reminderDays(context);
    const number = owed ? paymentRemindersDue(invoice.due_date, days, today).at(-1) : undefined;
    if (number)
      tellAboutInvoice(context, invoice.id, {
        occasion: occasionOf[reminderTone(days, number)],
        about: `invoice ${invoice.id}, ${number}`,
        fields: {
          ...invoiceFields(business.currency, { ...invoice, openMinor: invoice.open_minor }),
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
