import { invoiceState } from "@/core/money/applying";
import { Refusal } from "@/core/problems";
import { Nothing } from "@/schemas/money";
import { defineView } from "./view";

/** What a customer's private link opens: one job, its visits, its money. */
export const myVisit = defineView({
  name: "my-visit",
  access: "link",
  input: Nothing,
  read({ sql, actor, business, today }) {
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const { jobId } = actor;
    const job = sql<{ state: string; total_minor: number; deposit_minor: number; service: string; line: string; postcode: string; customer: string }>(
      `SELECT j.state, j.total_minor, j.deposit_minor, s.name AS service, t.line, t.postcode, c.name AS customer
       FROM jobs j JOIN services s ON s.id = j.service_id JOIN sites t ON t.id = j.site_id JOIN customers c ON c.id = j.customer_id WHERE j.id = ?`,
    ).get(jobId)!;
    const visits = sql<{ id: number; state: string; date: string; window_from: number; window_to: number; repeat_id: number | null }>(
      "SELECT id, state, date, window_from, window_to, repeat_id FROM visits WHERE job_id = ? ORDER BY window_from",
    ).all(jobId);
    // Of work of several days, the one that comes next; when all is over, the last.
    const visit = visits.find((v) => ["promised", "on the way", "on site"].includes(v.state)) ?? visits.at(-1)!;
    const technicians = sql<{ name: string }>("SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ? ORDER BY t.position").all(visit.id);
    const coming = visit.repeat_id
      ? sql<{ date: string; window_from: number; window_to: number }>("SELECT date, window_from, window_to FROM visits WHERE repeat_id = ? AND date > ? AND state IN ('forecast', 'promised') ORDER BY date LIMIT 4").all(visit.repeat_id, visit.date)
      : [];
    const lines = sql<{ description: string; amount_minor: number }>("SELECT description, amount_minor FROM job_lines WHERE job_id = ? ORDER BY position").all(jobId);
    const payments = sql<{ id: number; purpose: string; method: string; amount_minor: number; state: string; problem: string | null; step_address: string | null; settled_at: number | null }>(
      "SELECT id, purpose, method, amount_minor, state, problem, step_address, settled_at FROM payments WHERE job_id = ? ORDER BY id",
    ).all(jobId);
    const invoice = sql<{ number: number; due_date: string; total_minor: number; tax_minor: number; applied: number; cancelled_at: number | null }>(
      "SELECT i.*, coalesce((SELECT sum(amount_minor) FROM applications WHERE invoice_id = i.id), 0) AS applied FROM invoices i WHERE job_id = ?",
    ).get(jobId);
    return {
      business: { name: business.name, phone: business.phone, currency: business.currency, timeZone: business.time_zone, isDemo: business.demo_offset_ms !== null },
      job, visit, days: visits.filter((v) => v.state !== "cancelled").map((v) => v.date), lines, payments, coming,
      technicians: technicians.map((t) => t.name),
      invoice: invoice && {
        number: invoice.number, dueDate: invoice.due_date, totalMinor: invoice.total_minor, taxMinor: invoice.tax_minor, openMinor: invoice.total_minor - invoice.applied,
        state: invoiceState({ totalMinor: invoice.total_minor, appliedMinor: invoice.applied, dueDate: invoice.due_date, cancelled: invoice.cancelled_at !== null }, today),
      },
    };
  },
});
