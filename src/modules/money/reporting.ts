import { ageOf, ages } from "@/core/money/ages";
import { type Column, type OfRate, paidByRate, type Report, type ReportName, sumsOf } from "@/core/money/reports";
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
  if (name === "deposits held") return depositsHeld(context, stretch);
  if (name === "aged debts") return agedDebts(context, stretch);
  if (name === "bank against books") return bankAgainstBooks(context, stretch);
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
  /** Why there is none on it, where there is none. */
  kind: Rows["invoices"]["tax_kind"] | Rows["invoices"]["zero_kind"];
  netMinor: number;
  taxMinor: number;
}

function taxReport(context: ViewContext, name: "tax by invoice" | "tax by payment", stretch: Stretch): Report {
  const read = name === "tax by invoice" ? taxInvoiced : taxPaid;
  const rows = monthsOf(stretch).flatMap((month) =>
    read(context, month).map(({ taxBp, kind, netMinor, taxMinor }) => [
      monthWords(month.from),
      kind === "standard" ? `${taxBp / 100}%` : `${taxBp / 100}%, ${kind}`,
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
      `SELECT e.tax_bp AS taxBp, iif(i.tax_kind = 'standard' AND e.tax_bp = 0, i.zero_kind, i.tax_kind) AS kind, coalesce(-sum(e.amount_minor) FILTER (WHERE e.account = 'sales'), 0) AS netMinor,
          coalesce(-sum(e.amount_minor) FILTER (WHERE e.account = 'tax'), 0) AS taxMinor
        FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id JOIN invoices i ON i.id = e.invoice_id
        WHERE v.at >= @begins AND v.at < @ends AND e.account IN ('sales', 'tax')
        GROUP BY 1, 2 ORDER BY 1, 2`,
    )
    .all(momentsOf(context, stretch));

/** What of each rate had been paid by the end of a stretch, less what had been by its beginning. */
function taxPaid(context: ViewContext, stretch: Stretch): RateSums[] {
  const { sql } = context;
  const { begins, ends } = momentsOf(context, stretch);
  const touched = sql<Pick<Rows["invoices"], "id" | "tax_kind" | "zero_kind">>(
    `SELECT i.id, i.tax_kind, i.zero_kind FROM invoices i JOIN (
      SELECT invoice_id AS id FROM allocations WHERE at >= @begins AND at < @ends
      UNION SELECT invoice_id FROM credit_notes WHERE issued_at >= @begins AND issued_at < @ends) USING (id)`,
  ).all({ begins, ends });
  const rates = sql<OfRate>(
    `SELECT tax_bp AS taxBp, sum(amount_minor) AS amountMinor, sum(tax_minor) AS taxMinor
      FROM (SELECT tax_bp, amount_minor, tax_minor FROM invoice_lines WHERE invoice_id = @id
        UNION ALL SELECT c.tax_bp, -c.amount_minor, -c.tax_minor
          FROM credit_notes n JOIN credit_note_lines c ON c.note_id = n.id WHERE n.invoice_id = @id AND n.issued_at < @before)
      GROUP BY tax_bp ORDER BY tax_bp`,
  );
  const paid = sql<{ n: number }>(
    "SELECT coalesce(sum(amount_minor), 0) AS n FROM allocations WHERE invoice_id = @id AND at < @before",
  );
  const by = (id: number, before: number) => paidByRate(rates.all({ id, before }), paid.get({ id, before })!.n);
  const parts = touched.flatMap(({ id, tax_kind, zero_kind }) => {
    const kindOf = (taxBp: number) => (tax_kind === "standard" && taxBp === 0 ? zero_kind : tax_kind);
    return [
      ...by(id, ends).map((part) => ({ ...part, kind: kindOf(part.taxBp) })),
      ...by(id, begins).map(({ taxBp, netMinor, taxMinor }) => ({
        taxBp,
        kind: kindOf(taxBp),
        netMinor: -netMinor,
        taxMinor: -taxMinor,
      })),
    ];
  });
  return [...groupBy(parts, ({ taxBp, kind }) => `${taxBp} ${kind}`).values()]
    .sort(([a], [b]) => a!.taxBp - b!.taxBp || a!.kind.localeCompare(b!.kind))
    .map((of) => ({
      taxBp: of[0]!.taxBp,
      kind: of[0]!.kind,
      netMinor: sum(of.map(({ netMinor }) => netMinor)),
      taxMinor: sum(of.map(({ taxMinor }) => taxMinor)),
    }))
    .filter(({ netMinor, taxMinor }) => netMinor !== 0 || taxMinor !== 0);
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

/** What customers had paid ahead at the end of the last day. */
function depositsHeld(context: ViewContext, stretch: Stretch): Report {
  const { sql, business } = context;
  const columns = [text("Customer"), text("Paid on"), text("For"), money("Held")];
  const rows = sql<{ customer: string; at: number; work: string; held: number }>(
    `SELECT c.name AS customer, p.settled_at AS at, s.name AS work, -sum(e.amount_minor) AS held
      FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id JOIN payments p ON p.id = e.payment_id
        JOIN customers c ON c.id = p.customer_id JOIN jobs j ON j.id = p.job_id JOIN services s ON s.id = j.service_id
      WHERE e.account = 'deposits' AND v.at < @ends
      GROUP BY p.id HAVING sum(e.amount_minor) <> 0 ORDER BY p.settled_at, p.id`,
  )
    .all({ ends: momentsOf(context, stretch).ends })
    .map(({ customer, at, work, held }) => [
      customer,
      dateWords(localDate(Math.floor(at / 60_000), business.time_zone)),
      work,
      held,
    ]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

/** What was owed at the end of the last day, by its age then. */
function agedDebts(context: ViewContext, stretch: Stretch): Report {
  const { sql } = context;
  const columns = [text("Customer"), ...ages.map(money), money("All")];
  const open = sql<{ customerId: number; customer: string; due: LocalDate; minor: number }>(
    `SELECT c.id AS customerId, c.name AS customer, i.due_date AS due, sum(e.amount_minor) AS minor
      FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id JOIN invoices i ON i.id = e.invoice_id
        JOIN customers c ON c.id = i.customer_id
      WHERE e.account = 'receivable' AND v.at < @ends
      GROUP BY i.id HAVING sum(e.amount_minor) > 0 ORDER BY c.name COLLATE NOCASE, c.id`,
  ).all({ ends: momentsOf(context, stretch).ends });
  const rows = [...groupBy(open, ({ customerId }) => customerId).values()].map((own) => [
    own[0]!.customer,
    ...ages.map((age) => sum(own.filter(({ due }) => ageOf(due, stretch.to) === age).map(({ minor }) => minor))),
    sum(own.map(({ minor }) => minor)),
  ]);
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

/**
 * What the books have in the bank, and what makes it differ from the bank's own statement: what is booked and stands on no
 * line, and lines that are booked nowhere. With these, the last sum is what the statement should end with, if it began with nothing.
 */
function bankAgainstBooks(context: ViewContext, stretch: Stretch): Report {
  const { sql, business } = context;
  const { ends } = momentsOf(context, stretch);
  const columns = [text("What"), text("Date"), text("Who"), money("Amount")];
  const { booked } = sql<{ booked: number }>(
    `SELECT coalesce(sum(e.amount_minor), 0) AS booked FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id
      WHERE e.account = 'bank' AND v.at < ?`,
  ).get(ends)!;
  const onNoLine = sql<{ at: number; who: string; minor: number }>(
    `SELECT p.settled_at AS at, c.name AS who, p.amount_minor + p.tip_minor AS minor FROM payments p JOIN customers c ON c.id = p.customer_id
      WHERE p.method IN ('bank', 'cheque') AND p.state = 'received' AND (p.technician_id IS NULL OR p.handover_id IS NOT NULL)
        AND p.settled_at < @ends AND NOT EXISTS (SELECT 1 FROM bank_lines b WHERE b.payment_id = p.id AND b.date <= @to)
    UNION ALL SELECT v.at, 'payout ' || o.reference, o.amount_minor FROM payouts o JOIN ledger_events v ON v.key = 'payout ' || o.id || ' arrived'
      WHERE v.at < @ends AND NOT EXISTS (SELECT 1 FROM bank_lines b WHERE b.payout_id = o.id AND b.date <= @to)
    UNION ALL SELECT r.asked_at, c.name, -r.amount_minor FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN customers c ON c.id = p.customer_id
      WHERE r.method = 'bank' AND r.state = 'refunded' AND r.asked_at < @ends
        AND NOT EXISTS (SELECT 1 FROM bank_lines b WHERE b.refund_id = r.id AND b.date <= @to)
    ORDER BY 1`,
  ).all({ ends, to: stretch.to });
  const inNoBook = sql<{ date: LocalDate; who: string; minor: number }>(
    `SELECT date, name AS who, amount_minor AS minor FROM bank_lines
      WHERE state IN ('open', 'set aside') AND date <= ? ORDER BY date, id`,
  ).all(stretch.to);
  const day = (at: number) => dateWords(localDate(Math.floor(at / 60_000), business.time_zone));
  const rows = [
    ["in the bank, by the books", dateWords(stretch.to), "", booked],
    ...onNoLine.map(({ at, who, minor }) => ["booked, on no line yet", day(at), who, 0 - minor]),
    ...inNoBook.map(({ date, who, minor }) => ["on a line, not booked", dateWords(date), who, minor]),
  ];
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

/** Each entry with the owner's own number of its account, where they have given one; debits and credits apart. */
function journal(context: ViewContext, stretch: Stretch): Report {
  const { sql, business } = context;
  const columns = [
    text("Date"),
    text("Event"),
    text("Account"),
    text("Number"),
    text("Customer"),
    text("Paper"),
    text("Why"),
    money("Debit"),
    money("Credit"),
  ];
  const rows = sql<{
    at: number;
    kind: Rows["ledger_events"]["kind"];
    reason: string;
    account: string;
    number: string | null;
    customer: string | null;
    paper: string | null;
    minor: number;
  }>(
    `SELECT v.at, v.kind, v.reason, coalesce(o.name, e.account) AS account, coalesce(nullif(o.number, ''), a.number) AS number, c.name AS customer,
        coalesce(n.label, i.label, 'payment ' || e.payment_id) AS paper, e.amount_minor AS minor
      FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id LEFT JOIN account_numbers a ON a.account = e.account
        LEFT JOIN own_accounts o ON o.id = e.own_account_id
        LEFT JOIN invoices i ON i.id = e.invoice_id LEFT JOIN credit_notes n ON n.id = e.note_id
        LEFT JOIN payments p ON p.id = e.payment_id LEFT JOIN customers c ON c.id = coalesce(i.customer_id, p.customer_id)
      WHERE v.at >= @begins AND v.at < @ends ORDER BY v.at, v.id, e.line LIMIT ${mostEntries + 1}`,
  )
    .all(momentsOf(context, stretch))
    .map(({ at, kind, reason, account, number: own, customer, paper, minor }) => [
      localDate(Math.floor(at / 60_000), business.time_zone),
      kind,
      account,
      own ?? "",
      customer ?? "",
      paper ?? "",
      reason,
      Math.max(0, minor),
      Math.max(0, -minor),
    ]);
  if (rows.length > mostEntries)
    throw new Refusal("invalid-input", {
      fields: { "/from": "These are more than a hundred thousand entries: choose fewer days at once." },
    });
  return { columns, rows, sums: sumsOf({ columns, rows }), chart: null };
}

/** So many entries are read at once, which is more than a year of a large business; a longer stretch is read in parts. */
const mostEntries = 100_000;
