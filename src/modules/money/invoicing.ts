import { nextPaymentReminder, paymentReminderDays } from "@/core/messages/moments";
import { moneyWords } from "@/core/money/amounts";
import { invoiceIssued } from "@/core/money/journal";
import { nextInvoiceNumber } from "@/core/money/numbers";
import { addDays } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";
import { invoiceFields, tellCustomer } from "@/modules/messages/messaging";
import { applyToInvoice, enterJournal } from "./charging";

/** Issues the invoice of a job that is done, or of the fee that stands in place of the work, applies the deposit, and tells the customer what is left. A job has one invoice. */
export function issueInvoice(context: OperationContext, jobId: number): void {
  const { sql, now, today, business } = context;
  if (sql("SELECT 1 FROM invoices WHERE job_id = ?").get(jobId)) return;
  // A visit that a month or a year pays for costs nothing itself: there is nothing to bill.
  const isPaidFor = sql(
    `SELECT 1 FROM jobs j JOIN visits v ON v.job_id = j.id JOIN repeats r ON r.id = v.repeat_id
      WHERE j.id = ? AND j.total_minor = 0 AND r.price_per IN ('month', 'year')
        AND NOT EXISTS (SELECT 1 FROM fees WHERE job_id = j.id)`,
  ).get(jobId);
  if (isPaidFor) return;
  const { days } = sql<{ days: number | null }>(
    "SELECT c.payment_days AS days FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = ?",
  ).get(jobId)!;
  const dueDate = addDays(today, days ?? business.payment_days);
  const invoice = sql<{ id: number; number: number; total_minor: number; tax_minor: number }>(
    `INSERT INTO invoices (number, job_id, customer_id, issued_at, due_date, remind_on, total_minor, tax_minor, bill_name,
        bill_mail, bill_address) SELECT @number, j.id, j.customer_id, @now, @dueDate, @remindOn,
        coalesce(f.amount_minor, j.total_minor), coalesce(f.tax_minor, j.tax_minor), c.bill_name, c.bill_mail, c.bill_address
      FROM jobs j JOIN customers c ON c.id = j.customer_id LEFT JOIN fees f ON f.job_id = j.id WHERE j.id = @jobId
      RETURNING id, number, total_minor, tax_minor`,
  ).get({
    number: nextInvoiceNumber(sql<{ last: number | null }>("SELECT max(number) AS last FROM invoices").get()!.last),
    now,
    dueDate,
    remindOn: nextPaymentReminder(dueDate, paymentReminderDays, today),
    jobId,
  })!;
  enterJournal(context, `invoice ${invoice.id}`, invoiceIssued(invoice.total_minor, invoice.tax_minor));
  applyToInvoice(context, jobId);
  const openMinor = sql<{ open_minor: number }>("SELECT open_minor FROM invoice_balances WHERE invoice_id = ?").get(
    invoice.id,
  )!.open_minor;
  if (openMinor > 0)
    tellCustomer(context, {
      jobId,
      occasion: "invoice",
      about: `${invoice.id}`,
      fields: invoiceFields(business.currency, { ...invoice, openMinor, due_date: dueDate }),
    });
  else
    tellCustomer(context, {
      jobId,
      occasion: "receipt",
      about: `invoice ${invoice.id}`,
      fields: { amount: moneyWords(invoice.total_minor, business.currency) },
    });
}
