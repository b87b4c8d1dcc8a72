import { ageOf, ages } from "@/core/money/ages";
import { type Column, paidPart, type Report, type ReportName, sumsOf } from "@/core/money/reports";
import { groupBy } from "@/core/group";
import { sum } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { addDays, addMonths, type LocalDate } from "@/core/time/dates";
import { epochMinute, localDate } from "@/core/time/local";
import { dateWords, monthWords } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";

/** From one day to another, both included. */
export interface Stretch {
  from: LocalDate;
  to: LocalDate;
}

const text = (words: string): Column => ({ words, kind: "text" });
const money = (words: string): Column => ({ words, kind: "money" });
const number = (words: string): Column => ({ words, kind: "number" });

/** So many months are told apart, at most. */
const mostMonths = 36;

export function reportOf(context: ViewContext, name: ReportName, stretch: Stretch): Report {
  if (name === "tax by invoice" || name === "tax by payment") return taxReport(context, name, stretch);
  if (name === "deposits held") return depositsHeld(context);
  if (name === "aged debts") return agedDebts(context);
  if (name === "tips") return tipsReport(context, stretch);
  if (name === "gateway fees") return gatewayFees(context, stretch);
  if (name === "journal") return journal(context, stretch);
  return salesReport(context, name, stretch);
}

/** A stretch in epoch milliseconds: from its first moment to before its last. */
const momentsOf = ({ business }: ViewContext, { from, to }: Stretch) => ({
  begins: epochMinute(from, 0, business.time_zone) * 60_000,
  ends: epochMinute(addDays(to, 1), 0, business.time_zone) * 60_000,
});

/** The months of a stretch, the first and the last as far as they are in it. */
function monthsOf({ from, to }: Stretch): Stretch[] {
  const months: Stretch[] = [];
  for (let day = from; day <= to; day = addMonths(`${day.slice(0, 7)}-01`, 1)) {
    const last = addDays(addMonths(`${day.slice(0, 7)}-01`, 1), -1);
    months.push({ from: day, to: last < to ? last : to });
  }
  if (months.length > mostMonths)
    throw new Refusal("invalid-input", { fields: { "/from": `Choose at most ${mostMonths} months.` } });
  return months;
}

interface RateSums {
  taxBp: number;
  netMinor: number;
  taxMinor: number;
}

function taxReport(context: ViewContext, name: "tax by invoice" | "tax by payment", stretch: Stretch): Report {
  const read = name === "tax by invoice" ? taxInvoiced : taxPaid;
  const rows = monthsOf(stretch).flatMap((month) =>
    read(context, month).map(({ taxBp, netMinor, taxMinor }) => [
      monthWords(month.from),
      `${taxBp / 100}%`,
      netMinor,
      taxMinor,
      netMinor + taxMinor,
    ]),
  );
  const columns = [text("Month"), text("Rate"), money("Net"), money("Tax"), money("With tax")];
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: { of: 0, by: 3 } };
}

/** What the ledger has earned and owes of it to the state. */
const taxInvoiced = (context: ViewContext, stretch: Stretch): RateSums[] =>
  context
    .sql<RateSums>(
      `SELECT e.tax_bp AS taxBp, coalesce(-sum(e.amount_minor) FILTER (WHERE e.account = 'sales'), 0) AS netMinor,
          coalesce(-sum(e.amount_minor) FILTER (WHERE e.account = 'tax'), 0) AS taxMinor
        FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
        WHERE v.at >= @begins AND v.at < @ends AND e.account IN ('sales', 'tax') GROUP BY e.tax_bp ORDER BY e.tax_bp`,
    )
    .all(momentsOf(context, stretch));

/** Each payment pays its share of an invoice's rates. */
function taxPaid(context: ViewContext, stretch: Stretch): RateSums[] {
  const { sql } = context;
  const moments = momentsOf(context, stretch);
  const paid = sql<{ invoiceId: number; total: number; before: number; within: number }>(
    `SELECT i.id AS invoiceId, i.total_minor AS total,
        (SELECT coalesce(sum(b.amount_minor), 0) FROM allocations b WHERE b.invoice_id = i.id AND b.at < @begins) AS before,
        sum(a.amount_minor) AS within
      FROM allocations a JOIN invoices i ON i.id = a.invoice_id WHERE a.at >= @begins AND a.at < @ends GROUP BY i.id`,
  ).all(moments);
  const linesOf = sql<RateSums>(
    `SELECT tax_bp AS taxBp, sum(amount_minor - tax_minor) AS netMinor, sum(tax_minor) AS taxMinor
      FROM invoice_lines WHERE invoice_id = ? GROUP BY tax_bp`,
  );
  const parts = paid.flatMap(({ invoiceId, total, before, within }) =>
    linesOf.all(invoiceId).map(({ taxBp, netMinor, taxMinor }) => {
      const stretchPaid = { before, after: before + within };
      const tax = paidPart(taxMinor, total, stretchPaid);
      return { taxBp, netMinor: paidPart(netMinor + taxMinor, total, stretchPaid) - tax, taxMinor: tax };
    }),
  );
  return [...groupBy(parts, ({ taxBp }) => taxBp).entries()]
    .sort(([a], [b]) => a - b)
    .map(([taxBp, of]) => ({
      taxBp,
      netMinor: sum(of.map(({ netMinor }) => netMinor)),
      taxMinor: sum(of.map(({ taxMinor }) => taxMinor)),
    }));
}

type SalesBy = Extract<ReportName, `sales by ${string}`>;

/** By what a line is told apart: its job `j`, site `t`, first technician. A line without a job has none of them. */
const salesBy: Record<Exclude<SalesBy, "sales by month">, { words: string; of: string }> = {
  "sales by service": { words: "Service", of: "(SELECT name FROM services WHERE id = j.service_id)" },
  "sales by zone": { words: "Zone", of: "(SELECT name FROM zones WHERE id = t.zone_id)" },
  "sales by technician": {
    words: "Technician",
    of: `(SELECT w.name FROM visits v JOIN placements p ON p.visit_id = v.id JOIN technicians w ON w.id = p.technician_id
      WHERE v.job_id = j.id ORDER BY v.date, w.position LIMIT 1)`,
  },
  "sales by source": { words: "Source", of: "nullif(j.source, '')" },
};

/** Lines of invoices and of credit notes of a stretch, net, with the job they are about. */
const soldLines = `SELECT l.job_id, l.amount_minor - l.tax_minor AS net
      FROM invoices i JOIN invoice_lines l ON l.invoice_id = i.id WHERE i.issued_at >= @begins AND i.issued_at < @ends
    UNION ALL SELECT l.job_id, c.tax_minor - c.amount_minor
      FROM credit_notes n JOIN credit_note_lines c ON c.note_id = n.id
        JOIN invoice_lines l ON l.invoice_id = n.invoice_id AND l.position = c.position
      WHERE n.issued_at >= @begins AND n.issued_at < @ends`;

function salesReport(context: ViewContext, name: SalesBy, stretch: Stretch): Report {
  const { sql } = context;
  const by = name === "sales by month" ? null : salesBy[name];
  const columns = [text(by?.words ?? "Month"), number("Jobs"), money("Net")];
  const rows: (string | number)[][] =
    by === null
      ? monthsOf(stretch).map((month) => {
          const { jobs, net } = sql<{ jobs: number; net: number }>(
            `SELECT count(DISTINCT job_id) AS jobs, coalesce(sum(net), 0) AS net FROM (${soldLines})`,
          ).get(momentsOf(context, month))!;
          return [monthWords(month.from), jobs, net];
        })
      : sql<{ name: string | null; jobs: number; net: number }>(
          `SELECT ${by.of} AS name, count(DISTINCT s.job_id) AS jobs, sum(s.net) AS net
            FROM (${soldLines}) s LEFT JOIN jobs j ON j.id = s.job_id LEFT JOIN sites t ON t.id = j.site_id
            GROUP BY 1 ORDER BY net DESC`,
        )
          .all(momentsOf(context, stretch))
          .map(({ name: words, jobs, net }) => [words ?? "without", jobs, net]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: { of: 0, by: 2 } };
}

/** Tips by technician: those of the stretch, and what is theirs now. */
function tipsReport(context: ViewContext, stretch: Stretch): Report {
  const columns = [text("Technician"), money("Given"), money("Paid out"), money("Theirs still")];
  const rows = context
    .sql<{ name: string | null; given: number; paid: number; left: number }>(
      `SELECT t.name, coalesce(-sum(e.amount_minor) FILTER (WHERE v.kind <> 'tips paid' AND v.at >= @begins AND v.at < @ends), 0) AS given,
          coalesce(sum(e.amount_minor) FILTER (WHERE v.kind = 'tips paid' AND v.at >= @begins AND v.at < @ends), 0) AS paid,
          -sum(e.amount_minor) AS left
        FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id LEFT JOIN technicians t ON t.id = e.technician_id
        WHERE e.account = 'tips' GROUP BY t.id ORDER BY t.position`,
    )
    .all(momentsOf(context, stretch))
    .map(({ name, given, paid, left }) => [name ?? "everybody", given, paid, left]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: { of: 0, by: 1 } };
}

function gatewayFees(context: ViewContext, stretch: Stretch): Report {
  const { sql } = context;
  const columns = [text("Month"), money("By card"), money("Kept")];
  const rows = monthsOf(stretch).map((month) => {
    const { taken, kept } = sql<{ taken: number; kept: number }>(
      `SELECT coalesce(sum(e.amount_minor) FILTER (WHERE e.account = 'card' AND v.kind = 'payment'), 0) AS taken,
          coalesce(sum(e.amount_minor) FILTER (WHERE e.account = 'gateway fees'), 0) AS kept
        FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
        WHERE v.at >= @begins AND v.at < @ends AND e.account IN ('card', 'gateway fees')`,
    ).get(momentsOf(context, month))!;
    return [monthWords(month.from), taken, kept];
  });
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: { of: 0, by: 2 } };
}

/** What customers have paid ahead, as the ledger has it now. */
function depositsHeld({ sql, business }: ViewContext): Report {
  const columns = [text("Customer"), text("Paid on"), text("For"), money("Held")];
  const rows = sql<{ customer: string; at: number; work: string; held: number }>(
    `SELECT c.name AS customer, p.settled_at AS at, s.name AS work, -sum(e.amount_minor) AS held
      FROM ledger_entries e JOIN payments p ON p.id = e.payment_id JOIN customers c ON c.id = p.customer_id
        JOIN jobs j ON j.id = p.job_id JOIN services s ON s.id = j.service_id
      WHERE e.account = 'deposits' GROUP BY p.id HAVING sum(e.amount_minor) <> 0 ORDER BY p.settled_at, p.id`,
  )
    .all()
    .map(({ customer, at, work, held }) => [
      customer,
      dateWords(localDate(Math.floor(at / 60_000), business.time_zone)),
      work,
      held,
    ]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

function agedDebts({ sql, today }: ViewContext): Report {
  const columns = [text("Customer"), ...ages.map(money), money("All")];
  const open = sql<{ customerId: number; customer: string; due: LocalDate; minor: number }>(
    `SELECT c.id AS customerId, c.name AS customer, i.due_date AS due, sum(e.amount_minor) AS minor
      FROM ledger_entries e JOIN invoices i ON i.id = e.invoice_id JOIN customers c ON c.id = i.customer_id
      WHERE e.account = 'receivable' GROUP BY i.id HAVING sum(e.amount_minor) > 0 ORDER BY c.name COLLATE NOCASE, c.id`,
  ).all();
  const rows = [...groupBy(open, ({ customerId }) => customerId).values()].map((own) => [
    own[0]!.customer,
    ...ages.map((age) => sum(own.filter(({ due }) => ageOf(due, today) === age).map(({ minor }) => minor))),
    sum(own.map(({ minor }) => minor)),
  ]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

/** So many entries are read at once; a longer stretch is read in parts. */
const mostEntries = 20_000;

/** Each entry with the owner's own number of its account, where they have given one; debits and credits apart. */
function journal(context: ViewContext, stretch: Stretch): Report {
  const { sql, business } = context;
  const columns = [
    text("Date"),
    text("Event"),
    text("Account"),
    text("Number"),
    text("Paper"),
    text("Why"),
    money("Debit"),
    money("Credit"),
  ];
  const entries = sql<{
    at: number;
    kind: Rows["ledger_events"]["kind"];
    reason: string;
    account: string;
    number: string | null;
    paper: string | null;
    minor: number;
  }>(
    `SELECT v.at, v.kind, v.reason, e.account, a.number, coalesce(n.label, i.label, 'payment ' || e.payment_id) AS paper, e.amount_minor AS minor
      FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id LEFT JOIN account_numbers a ON a.account = e.account
        LEFT JOIN invoices i ON i.id = e.invoice_id LEFT JOIN credit_notes n ON n.id = e.note_id
      WHERE v.at >= @begins AND v.at < @ends ORDER BY v.at, v.id, e.line LIMIT ${mostEntries + 1}`,
  ).all(momentsOf(context, stretch));
  if (entries.length > mostEntries)
    throw new Refusal("invalid-input", {
      fields: { "/from": "These are very many entries: choose fewer days at once." },
    });
  const rows = entries.map(({ at, kind, reason, account, number: own, paper, minor }) => [
    localDate(Math.floor(at / 60_000), business.time_zone),
    kind,
    account,
    own ?? "",
    paper ?? "",
    reason,
    Math.max(0, minor),
    Math.max(0, -minor),
  ]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}
