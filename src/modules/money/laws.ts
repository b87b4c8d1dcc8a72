import type { Law } from "@/kernel/laws";
import { brokenChain } from "@/store/ledger-chain";

const ledger: Law[] = [
  {
    says: "The entries of each event of the ledger add up to nothing.",
    breaks: `SELECT v.key || ' is off by ' || sum(e.amount_minor) AS what
      FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id GROUP BY v.id HAVING sum(e.amount_minor) <> 0`,
  },
  {
    says: "Each event of the ledger has entries.",
    breaks: `SELECT key || ' has none' AS what FROM ledger_events v
      WHERE NOT EXISTS (SELECT 1 FROM ledger_entries WHERE event_id = v.id)
        AND NOT (kind = 'invoice' AND EXISTS (SELECT 1 FROM invoices WHERE 'invoice ' || id = v.key AND total_minor = 0))`,
  },
  {
    says: "Events of the ledger are numbered without a gap: none is ever taken out.",
    breaks: `SELECT 'event ' || (id - 1) || ' is missing' AS what
      FROM ledger_events v WHERE id > 1 AND NOT EXISTS (SELECT 1 FROM ledger_events b WHERE b.id = v.id - 1)`,
  },
  {
    says: "Each event of the ledger is bound to all before it, and none of them has changed since.",
    breaks: brokenChain,
  },
  {
    says: "The trial balance is zero.",
    breaks: "SELECT 'it is ' || sum(amount_minor) AS what FROM ledger_entries HAVING sum(amount_minor) <> 0",
  },
  {
    says: "No more of a payment is used than was received.",
    breaks: `SELECT 'payment ' || payment_id || ', ' || account AS what
      FROM ledger_entries WHERE account IN ('deposits', 'credit', 'refunds')
      GROUP BY payment_id, account HAVING sum(amount_minor) > 0`,
  },
  {
    says: "No more is paid of an invoice than it asks.",
    breaks: `SELECT 'invoice ' || i.label AS what
      FROM ledger_entries e JOIN invoices i ON i.id = e.invoice_id WHERE e.account = 'receivable'
      GROUP BY i.id HAVING sum(e.amount_minor) < 0`,
  },
  {
    says: "An allocation is between the payment and the invoice that it names.",
    breaks: `SELECT v.key AS what
      FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id AND e.account = 'receivable'
      WHERE (v.kind = 'allocation' AND v.key || ', ' NOT LIKE 'payment ' || e.payment_id || ' to invoice ' || e.invoice_id || ', %')
        OR (v.kind = 'released' AND v.key || ', ' NOT LIKE 'payment ' || e.payment_id || ' released from invoice ' || e.invoice_id || ', %')`,
  },
];

const papers: Law[] = [
  {
    says: "An invoice asks what its lines come to.",
    breaks: `SELECT 'invoice ' || i.label AS what
      FROM invoices i LEFT JOIN invoice_lines l ON l.invoice_id = i.id
      GROUP BY i.id HAVING coalesce(sum(l.amount_minor), 0) <> i.total_minor OR coalesce(sum(l.tax_minor), 0) <> i.tax_minor`,
  },
  {
    says: "Each invoice is in the ledger as it was sent.",
    breaks: `SELECT 'invoice ' || i.label AS what
      FROM invoices i LEFT JOIN ledger_events v ON v.key = 'invoice ' || i.id
        LEFT JOIN ledger_entries e ON e.event_id = v.id AND e.invoice_id = i.id
      GROUP BY i.id HAVING count(v.id) = 0
        OR coalesce(sum(e.amount_minor) FILTER (WHERE e.account = 'receivable'), 0) <> i.total_minor
        OR coalesce(sum(e.amount_minor) FILTER (WHERE e.account = 'tax'), 0) <> -i.tax_minor`,
  },
  {
    says: "Each credit note is in the ledger, and comes to what its lines do.",
    breaks: `SELECT 'credit note ' || n.label AS what
      FROM credit_notes n
      WHERE n.total_minor <> (SELECT coalesce(sum(amount_minor), 0) FROM credit_note_lines WHERE note_id = n.id)
        OR n.total_minor <> (SELECT coalesce(-sum(e.amount_minor), 0) FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
          WHERE v.key = 'credit note ' || n.id AND e.account = 'receivable' AND e.invoice_id = n.invoice_id)`,
  },
  {
    says: "Each payment that came is in the ledger with its amount, and no other.",
    breaks: `SELECT 'payment ' || p.id AS what
      FROM payments p LEFT JOIN ledger_events v ON v.key = 'payment ' || p.id
        LEFT JOIN ledger_entries e ON e.event_id = v.id AND e.payment_id = p.id AND e.amount_minor > 0
      GROUP BY p.id HAVING coalesce(sum(e.amount_minor), 0) <> iif(p.state IN ('received', 'taken back'), p.amount_minor + p.tip_minor, 0)`,
  },
  {
    says: "What a technician has taken and not handed over is theirs in the ledger.",
    breaks: `SELECT t.name AS what
      FROM technicians t
      WHERE (SELECT coalesce(sum(amount_minor), 0) FROM ledger_entries WHERE account = 'cash out' AND technician_id = t.id)
        <> (SELECT coalesce(sum(amount_minor + tip_minor), 0) FROM payments
          WHERE technician_id = t.id AND handover_id IS NULL AND state = 'received' AND method IN ('cash', 'cheque'))`,
  },
  {
    says: "Each refund is in the ledger with its amount.",
    breaks: `SELECT 'refund ' || r.id AS what
      FROM refunds r
      WHERE r.amount_minor <> (SELECT coalesce(-sum(e.amount_minor), 0) FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
          WHERE v.key = 'refund ' || r.id || ' asked' AND e.account = 'refunds' AND e.payment_id = r.payment_id)
        OR iif(r.state = 'refunded', r.amount_minor, 0) <> (SELECT coalesce(sum(e.amount_minor), 0)
          FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
          WHERE v.key = 'refund ' || r.id AND e.account = 'refunds' AND e.payment_id = r.payment_id)`,
  },
];

/** What the key of an event of a kind names, where it begins with that: for each event there is a row that allows it. */
const about: { kind: string; key: string; allows: string }[] = [
  { kind: "invoice", key: "'invoice ' || id", allows: "FROM invoices" },
  { kind: "credit note", key: "'credit note ' || id", allows: "FROM credit_notes" },
  { kind: "payment", key: "'payment ' || id", allows: "FROM payments WHERE state IN ('received', 'taken back')" },
  { kind: "refund asked", key: "'refund ' || id || ' asked'", allows: "FROM refunds" },
  { kind: "refund", key: "'refund ' || id", allows: "FROM refunds WHERE state = 'refunded'" },
  { kind: "cash handed over", key: "'handover ' || id", allows: "FROM handovers" },
  { kind: "payout", key: "'payout ' || id", allows: "FROM payouts" },
  { kind: "payout arrived", key: "'payout ' || id || ' arrived'", allows: "FROM payouts WHERE arrived_on IS NOT NULL" },
  {
    kind: "gateway fee",
    key: "'fee of ' || kind || ' ' || reference",
    allows: "FROM payout_items WHERE fee_minor > 0",
  },
  { kind: "dispute", key: "'dispute ' || id", allows: "FROM disputes" },
  { kind: "dispute won", key: "'dispute ' || id || ' won'", allows: "FROM disputes WHERE state = 'won'" },
  {
    kind: "dispute lost",
    key: "'dispute ' || id || ' lost'",
    allows: "FROM disputes WHERE state = 'lost' AND lost_minor > 0",
  },
];

/** Both ways: for each event its row, and for each row its event. */
const whatTheyAreAbout: Law[] = about.map(({ kind, key, allows }) => ({
  says: `For each ${kind} in the ledger there is what it is about, and the other way round.`,
  breaks: `SELECT key || ' is about nothing' AS what FROM ledger_events
      WHERE kind = '${kind}' AND key NOT IN (SELECT ${key} ${allows})
    UNION ALL SELECT ${key} || ' is not in the ledger' FROM (SELECT * ${allows})
      WHERE ${key} NOT IN (SELECT key FROM ledger_events WHERE kind = '${kind}')`,
}));

/** The sum that an event has on an account. */
const posted = (key: string, account: string): string =>
  `(SELECT coalesce(sum(e.amount_minor), 0) FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
    WHERE v.key = ${key} AND e.account = '${account}')`;

/** Where money lies: with the card service, in the bank, in somebody's hands. */
const places: Law[] = [
  {
    says: "A payout is in the ledger with its sum and its fee, on its way and arrived.",
    breaks: `SELECT 'payout ' || o.id AS what FROM payouts o
      WHERE ${posted("'payout ' || o.id", "on the way")} <> amount_minor
        OR ${posted("'payout ' || o.id", "gateway fees")} <> fee_minor
        OR ${posted("'payout ' || o.id || ' arrived'", "bank")} <> iif(arrived_on IS NULL, 0, amount_minor)`,
  },
  {
    says: "What the card service kept is in the ledger.",
    breaks: `SELECT kind || ' ' || reference AS what FROM payout_items i
      WHERE fee_minor > 0 AND ${posted("'fee of ' || i.kind || ' ' || i.reference", "gateway fees")} <> fee_minor`,
  },
  {
    says: "What was handed over is what its payments come to, and what was counted beside that is in the ledger.",
    breaks: `SELECT 'handover ' || h.id AS what FROM handovers h
      WHERE h.amount_minor <> (SELECT coalesce(sum(amount_minor + tip_minor), 0) FROM payments WHERE handover_id = h.id)
        OR -${posted("'handover ' || h.id", "cash out")} <> h.amount_minor
        OR -${posted("'handover ' || h.id", "cash differences")} <> h.difference_minor`,
  },
  {
    says: "A line of the bank that is matched has the sum of what it is.",
    breaks: `SELECT 'line ' || l.id || ' of ' || l.date AS what
      FROM bank_lines l LEFT JOIN payments p ON p.id = l.payment_id LEFT JOIN payouts o ON o.id = l.payout_id
        LEFT JOIN refunds r ON r.id = l.refund_id
      WHERE l.state = 'matched'
        AND l.amount_minor - coalesce(p.amount_minor + p.tip_minor, o.amount_minor, -r.amount_minor,
          -(SELECT amount_minor FROM payments WHERE id = l.returned_id))
          <> ${posted("'line ' || l.id || ' beside'", "bank")}`,
  },
  {
    says: "A line of the bank that is posted to an account of one's own is in the ledger, once.",
    breaks: `SELECT 'line ' || l.id || ' of ' || l.date AS what FROM bank_lines l
      WHERE (SELECT coalesce(sum(e.amount_minor), 0) FROM ledger_events v JOIN ledger_entries e ON e.event_id = v.id
        WHERE e.account = 'bank' AND (v.key = 'line ' || l.id OR v.key LIKE 'line ' || l.id || ', %'
          OR v.key LIKE 'line ' || l.id || ' taken back%')) <> iif(l.state = 'posted', l.amount_minor, 0)`,
  },
  {
    says: "A dispute is in the ledger with its sum.",
    breaks: `SELECT 'dispute ' || d.id AS what FROM disputes d
      WHERE ${posted("'dispute ' || d.id", "disputed")} <> amount_minor
        OR -${posted("'dispute ' || d.id || ' won'", "disputed")} <> iif(state = 'won', amount_minor, 0)
        OR -${posted("'dispute ' || d.id || ' lost'", "disputed")} <> iif(state = 'lost', lost_minor, 0)`,
  },
];

const points: Law[] = [
  {
    says: "Nobody has more points of a payment than it has given, and none of what has gone back whole.",
    breaks: `SELECT 'payment ' || p.payment_id AS what
      FROM points p JOIN payment_balances b ON b.payment_id = p.payment_id
      GROUP BY p.payment_id HAVING sum(p.points) < 0 OR (b.applied_minor + b.left_minor <= 0 AND sum(p.points) <> 0)`,
  },
  {
    says: "Points are used for bookings that stand, and given back by those that do not.",
    breaks: `SELECT 'job ' || j.id AS what
      FROM points p JOIN jobs j ON j.id = p.job_id GROUP BY j.id HAVING sum(p.points) > 0 OR (j.state = 'cancelled' AND sum(p.points) <> 0)`,
  },
];

const numbered = [
  { table: "invoices", name: "invoices" },
  { table: "credit_notes", name: "credit notes" },
];
const withoutGaps = ({ table, name }: { table: string; name: string }): Law => ({
  says: `The numbers of ${name} run without a gap in each year.`,
  breaks: `SELECT number + 1 || iif(year > 0, ' of ' || year, '') || ' is missing' AS what FROM ${table} t
    WHERE number < (SELECT max(number) FROM ${table} WHERE year = t.year) AND NOT EXISTS (SELECT 1 FROM ${table} WHERE year = t.year AND number = t.number + 1)
    UNION ALL SELECT '1 of ' || year || ' is missing' FROM ${table} WHERE year > 0 GROUP BY year HAVING min(number) > 1`,
});

export const moneyLaws: readonly Law[] = [
  ...ledger,
  ...papers,
  ...whatTheyAreAbout,
  ...places,
  ...points,
  ...numbered.map(withoutGaps),
];
