import { paymentRemindersDue, visitReminderAt, withinAllowedHours } from "@/core/messages/moments";
import { addDays } from "@/core/time/local";
import { Nothing } from "@/schemas/money";
import { stopRepeatsOf } from "./repeats";
import { releaseHold } from "./booking";
import { cancelJob } from "./cancel-visit";
import { defineOperation } from "./door";
import { invoiceFields, tellCustomer } from "./messaging";
import { reopenQuote } from "./quotes";

/** Days after the due date on which an unpaid invoice is reminded of. */
export const paymentReminderDays = [3, 10, 20];

/** Gives back holds that ran out, and bookings whose deposit never came. */
export const releaseLapsed = defineOperation({
  name: "release-lapsed",
  access: "system",
  input: Nothing,
  run(context) {
    const { sql, now, business } = context;
    const holds = sql<{ id: number }>("SELECT id FROM visits WHERE state = 'held' AND held_until < ?").all(now);
    for (const { id } of holds) releaseHold(context, id);
    const unpaid = sql<{ id: number }>(
      `SELECT id FROM jobs j WHERE state = 'awaiting deposit' AND booked_at < ?
       AND NOT EXISTS (SELECT 1 FROM payments WHERE job_id = j.id AND state = 'asked')`,
    ).all(now - business.deposit_minutes * 60_000);
    for (const { id } of unpaid) {
      stopRepeatsOf(context, id);
      cancelJob(context, id, true);
      reopenQuote(context, id);
      tellCustomer(context, { jobId: id, occasion: "deposit lapsed", about: `job ${id}` });
    }
    return { holds: holds.length, unpaid: unpaid.length };
  },
});

/** Writes the reminders whose moment has come: of visits to customers who agreed to them, and of unpaid invoices. */
export const writeReminders = defineOperation({
  name: "write-reminders",
  access: "system",
  input: Nothing,
  run(context) {
    const { sql, minute, today, business } = context;
    const hours = { from: business.message_from, to: business.message_to };
    if (withinAllowedHours(minute, hours, business.time_zone) !== minute) return;
    const visits = sql<{ id: number; job_id: number; window_from: number; booked_at: number }>(
      `SELECT v.id, v.job_id, v.window_from, j.booked_at FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
       WHERE v.state = 'promised' AND j.state = 'agreed' AND j.approval = 'given' AND coalesce(j.reminders, c.reminders) = 1 AND v.date BETWEEN ? AND ? AND v.window_from > ?`,
    ).all(today, addDays(today, Math.ceil(business.reminder_hours / 24) + 1), minute);
    for (const visit of visits) {
      const at = visitReminderAt(visit.window_from, business.reminder_hours, hours, business.time_zone);
      // Whoever booked after the moment of the reminder has just been told.
      if (at <= minute && visit.booked_at / 60_000 < at)
        tellCustomer(context, {
          jobId: visit.job_id,
          visitId: visit.id,
          occasion: "visit reminder",
          about: `visit ${visit.id} at ${visit.window_from}`,
        });
    }
    const invoices = sql<{
      id: number;
      job_id: number;
      number: number;
      due_date: string;
      total_minor: number;
      applied: number;
      reminders: number;
    }>(
      `SELECT i.*, coalesce((SELECT sum(amount_minor) FROM applications WHERE invoice_id = i.id), 0) AS applied FROM invoices i
       JOIN customers c ON c.id = i.customer_id WHERE i.cancelled_at IS NULL AND i.due_date < ?
       AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.job_id = i.job_id AND p.state = 'asked')`,
    ).all(today);
    for (const invoice of invoices) {
      const openMinor = invoice.total_minor - invoice.applied;
      const number =
        openMinor > 0 ? paymentRemindersDue(invoice.due_date, paymentReminderDays, today).at(-1) : undefined;
      if (number)
        tellCustomer(context, {
          jobId: invoice.job_id,
          occasion: "invoice reminder",
          about: `invoice ${invoice.id}, ${number}`,
          fields: invoiceFields(business.currency, { ...invoice, openMinor }),
        });
    }
  },
});
