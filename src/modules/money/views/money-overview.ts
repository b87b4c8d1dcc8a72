import { type Age, ageOf, ages } from "@/core/money/ages";
import { datesFrom, addDays, type LocalDate } from "@/core/time/dates";
import { localDate } from "@/core/time/local";
import { Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";

/** So many days ahead it is shown what is due. */
const daysAhead = 14;
/** So many of what needs a person are shown. */
const most = 40;

/** What a bookkeeper needs first: what is owed by age, what is due on which day, what failed, and what technicians have taken. */
export const moneyOverview = defineView({
  name: "money-overview",
  access: "money.see of all",
  input: Nothing,
  read(context) {
    const { sql, today, business } = context;
    const due = sql<{ date: LocalDate; n: number; minor: number }>(
      `SELECT due_date AS date, count(*) AS n, sum(open_minor) AS minor FROM (${openInvoices}) GROUP BY due_date ORDER BY due_date`,
    ).all();
    const ofAge = new Map<Age, { n: number; minor: number }>(ages.map((age) => [age, { n: 0, minor: 0 }]));
    for (const { date, n, minor } of due) {
      const sums = ofAge.get(ageOf(date, today))!;
      sums.n += n;
      sums.minor += minor;
    }
    const dueOn = new Map(due.map(({ date, minor }) => [date, minor]));
    return {
      today,
      currency: business.currency,
      ages: [...ofAge].map(([age, sums]) => ({ age, ...sums })),
      coming: datesFrom(today, addDays(today, daysAhead - 1)).map((date) => ({
        date,
        minor: dueOn.get(date) ?? 0,
      })),
      /** What the card service has paid out and is not in the bank. */
      onTheWayMinor: sql<{ n: number }>(
        "SELECT coalesce(sum(amount_minor), 0) AS n FROM ledger_entries WHERE account = 'on the way'",
      ).get()!.n,
      declined: declinedCards(context),
      out: cashOut(context),
      /** Tips that technicians have not been given yet. */
      tips: sql<{ technicianId: number | null; technician: string | null; minor: number }>(
        `SELECT e.technician_id AS technicianId, t.name AS technician, -sum(e.amount_minor) AS minor
          FROM ledger_entries e LEFT JOIN technicians t ON t.id = e.technician_id
          WHERE e.account = 'tips' GROUP BY e.technician_id HAVING sum(e.amount_minor) < 0 ORDER BY t.position`,
      ).all(),
    };
  },
});

/** What customers owe, by invoice. */
const openInvoices = `SELECT i.id, i.due_date, sum(e.amount_minor) AS open_minor
  FROM ledger_entries e JOIN invoices i ON i.id = e.invoice_id WHERE e.account = 'receivable'
  GROUP BY i.id HAVING sum(e.amount_minor) > 0`;

/** Invoices still open whose last card was declined. */
const declinedCards = ({ sql }: ViewContext) =>
  sql<{ invoiceId: number; label: string; customer: string; openMinor: number; problem: string | null; times: number }>(
    `SELECT i.id AS invoiceId, i.label, c.name AS customer, b.open_minor AS openMinor, p.problem,
        (SELECT count(*) FROM payments o WHERE o.state = 'declined' AND (o.invoice_id = i.id OR o.job_id = i.job_id) AND o.purpose <> 'deposit') AS times
      FROM payments p JOIN invoices i ON i.id = p.invoice_id OR (i.job_id = p.job_id AND p.purpose = 'invoice')
        JOIN invoice_balances b ON b.invoice_id = i.id JOIN customers c ON c.id = i.customer_id
      WHERE p.state = 'declined' AND b.open_minor > 0
        AND p.id = (SELECT max(l.id) FROM payments l WHERE l.method = 'card' AND (l.invoice_id = i.id OR (l.job_id = i.job_id AND l.purpose = 'invoice')))
      ORDER BY p.id DESC LIMIT ${most}`,
  ).all();

/** Cash and cheques that technicians have taken and not handed over, by technician. */
function cashOut({ sql, business }: ViewContext) {
  const rows = sql<{
    technicianId: number;
    technician: string;
    id: number;
    customer: string;
    method: string;
    minor: number;
    at: number;
  }>(
    `SELECT t.id AS technicianId, t.name AS technician, p.id, c.name AS customer, p.method, p.amount_minor + p.tip_minor AS minor, p.settled_at AS at
      FROM payments p JOIN technicians t ON t.id = p.technician_id JOIN customers c ON c.id = p.customer_id
      WHERE p.handover_id IS NULL AND p.technician_id IS NOT NULL AND p.state = 'received' ORDER BY t.position, p.id LIMIT 500`,
  ).all();
  return [...new Set(rows.map(({ technicianId }) => technicianId))].map((technicianId) => {
    const own = rows.filter((row) => row.technicianId === technicianId);
    return {
      technicianId,
      technician: own[0]!.technician,
      payments: own.map(({ id, customer, method, minor, at }) => ({
        id,
        customer,
        method,
        minor,
        day: localDate(Math.floor(at / 60_000), business.time_zone),
      })),
    };
  });
}
