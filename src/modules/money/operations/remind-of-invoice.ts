import { nextPaymentReminder, paymentRemindersDue, reminderTone } from "@/core/messages/moments";
import type { FieldValue } from "@/core/messages/fields";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { invoiceFields, owedPlaceholder, tellAboutInvoice } from "@/modules/messages/messaging";
import { reminderDays } from "@/modules/messages/reminders";
import { insertOnce } from "@/store/insert";
import { nanoid } from "nanoid";
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

/** Where other invoices of the customer are open too, what all of them come to, and the link to the statement. */
function othersOpen(context: OperationContext, invoiceId: number): FieldValue {
  const { sql, business } = context;
  const { customerId, n, minor, isTheirs } = sql<{ customerId: number; n: number; minor: number; isTheirs: number }>(
    `SELECT i.customer_id AS customerId, count(*) AS n, coalesce(sum(b.open_minor), 0) AS minor,
        -- An account is shown to its owner only: neither to whom one bill is sent, nor to whoever booked in their name.
        i.bill_mail = '' AND coalesce(nullif(j.mail, ''), c.mail) = c.mail AS isTheirs
      FROM invoices i JOIN customers c ON c.id = i.customer_id LEFT JOIN jobs j ON j.id = i.job_id
        JOIN invoice_balances b ON b.customer_id = i.customer_id AND b.open_minor > 0
      WHERE i.id = ?`,
  ).get(invoiceId)!;
  if (n < 2) return "";
  if (isTheirs) insertOnce(sql, "account_links", { id: customerId, nonce: nanoid(32) });
  return { alsoOpen: minor, currency: business.currency, link: isTheirs ? owedPlaceholder : "" };
}
