import { visitReminderAt, withinAllowedHours } from "@/core/messages/moments";
import type { Hogar } from "@/kernel/hogar";
import type { ViewContext } from "@/kernel/operation";
import { daysColumn } from "@/store/columns";

/** No reminder of a visit is moved forward by more than a night. */
const nightMinutes = 1440;

/** Visits and invoices whose reminder has fallen due and is not written yet: their ids. Nothing within the quiet hours. */
export function remindersDue(
  hogar: Hogar,
  { business, minute, today }: ViewContext,
): { visits: number[]; invoices: number[] } {
  const { sql } = hogar.store;
  const hours = { from: business.message_from, to: business.message_to };
  if (withinAllowedHours(minute, hours, business.time_zone) !== minute) return { visits: [], invoices: [] };
  const visits = sql<{ id: number; window_from: number }>(
    `SELECT v.id, v.window_from FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
     WHERE v.state = 'promised' AND v.reminded_of IS NULL AND v.window_from > @minute AND v.window_from <= @latest
       AND j.state = 'agreed' AND j.approval = 'given' AND coalesce(j.reminders, c.reminders) = 1
     ORDER BY v.window_from, v.id`,
  ).all({ minute, latest: minute + business.reminder_hours * 60 + nightMinutes });
  const invoices = sql<{ id: number }>(
    `SELECT id
      FROM invoices i WHERE remind_on <= ?
        AND NOT EXISTS (SELECT 1 FROM payments p WHERE (p.job_id = i.job_id OR p.invoice_id = i.id) AND p.state = 'asked')
      ORDER BY remind_on, id LIMIT 500`,
  ).all(today);
  return {
    visits: visits
      .filter((v) => visitReminderAt(v.window_from, business.reminder_hours, hours, business.time_zone) <= minute)
      .map(({ id }) => id),
    invoices: invoices.map(({ id }) => id),
  };
}

/** Days after the due date on which an open invoice is reminded of, as the owner has set them. */
export const reminderDays = ({ business }: ViewContext): number[] => daysColumn.read(business.reminder_days);
