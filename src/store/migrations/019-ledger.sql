-- The books become the truth: one double-entry ledger, only ever added to, of which every figure of money is a sum. What
-- stood beside it (applications, journal) is carried over, and the sums are proved at the end.

CREATE TABLE ledger_events (
  id INTEGER PRIMARY KEY,
  -- What happened, once: 'invoice 12', 'payment 5 to invoice 12'.
  key TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL CHECK (kind IN ('invoice', 'credit note', 'payment', 'allocation', 'released', 'refund asked', 'refund', 'write-off', 'cash handed over', 'reversal', 'tips paid', 'gateway fee', 'payout', 'payout arrived', 'dispute', 'dispute won', 'dispute lost')),
  at INTEGER NOT NULL,
  -- Why, where a person has said it.
  reason TEXT NOT NULL DEFAULT '',
  -- The event that this one takes back.
  reverses_id INTEGER UNIQUE REFERENCES ledger_events (id)
) STRICT;
CREATE INDEX ledger_events_by_time ON ledger_events (at);

-- A credit note takes an invoice back, in full or in part; what had paid that part is the customer's again before.
CREATE TABLE credit_notes (
  id INTEGER PRIMARY KEY,
  -- Numbers run without gaps within a year; the label is the number as it is printed.
  year INTEGER NOT NULL,
  number INTEGER NOT NULL,
  label TEXT NOT NULL UNIQUE,
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  issued_at INTEGER NOT NULL,
  total_minor INTEGER NOT NULL CHECK (total_minor > 0),
  tax_minor INTEGER NOT NULL CHECK (tax_minor >= 0),
  reason TEXT NOT NULL CHECK (trim(reason) <> ''),
  UNIQUE (year, number)
) STRICT;
CREATE INDEX credit_notes_of_invoice ON credit_notes (invoice_id);
CREATE INDEX credit_notes_of_customer ON credit_notes (customer_id);
CREATE TABLE credit_note_lines (
  note_id INTEGER NOT NULL REFERENCES credit_notes (id),
  -- That of the invoice's line which it takes back.
  position INTEGER NOT NULL,
  description TEXT NOT NULL,
  tax_bp INTEGER NOT NULL CHECK (tax_bp BETWEEN 0 AND 10000),
  amount_minor INTEGER NOT NULL,
  tax_minor INTEGER NOT NULL,
  PRIMARY KEY (note_id, position)
) STRICT, WITHOUT ROWID;

-- Cash and cheques that a technician has taken are counted by somebody and handed over.
CREATE TABLE handovers (
  id INTEGER PRIMARY KEY,
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  counted_at INTEGER NOT NULL,
  counted_by TEXT NOT NULL
) STRICT;

-- Payments belong to a customer; what they pay is an allocation. Who has taken cash, until it is handed over.
CREATE TABLE payments_anew (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  job_id INTEGER REFERENCES jobs (id),
  purpose TEXT NOT NULL CHECK (purpose IN ('deposit', 'invoice', 'account')),
  method TEXT NOT NULL CHECK (method IN ('card', 'cash', 'bank', 'cheque')),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  state TEXT NOT NULL CHECK (state IN ('asked', 'second step', 'received', 'declined', 'taken back')),
  -- One charge per key, here and at the card gateway.
  charge_key TEXT NOT NULL UNIQUE,
  gateway_reference TEXT UNIQUE,
  problem TEXT,
  step_address TEXT,
  asked_at INTEGER NOT NULL,
  settled_at INTEGER,
  keep_token TEXT,
  from_address TEXT,
  -- As the paper says it: a cheque's number, what a transfer was marked with.
  note TEXT NOT NULL DEFAULT '',
  technician_id INTEGER REFERENCES technicians (id),
  -- When it was handed over by whoever had taken it.
  handover_id INTEGER REFERENCES handovers (id),
  -- Of a card that pays an invoice about several jobs or none: which.
  invoice_id INTEGER REFERENCES invoices (id),
  CHECK (state <> 'received' OR settled_at IS NOT NULL),
  CHECK ((job_id IS NULL) = (purpose = 'account'))
) STRICT;
INSERT INTO payments_anew (id, customer_id, job_id, purpose, method, amount_minor, state, charge_key, gateway_reference, problem, step_address, asked_at, settled_at, keep_token, from_address)
  SELECT id, customer_id, job_id, purpose, method, amount_minor, state, charge_key, gateway_reference, problem, step_address, asked_at, settled_at, keep_token, from_address FROM payments;

-- An invoice is about a job, about several, or about none; what it asks stands on its lines, as it was sent.
CREATE TABLE invoices_anew (
  id INTEGER PRIMARY KEY,
  -- Numbers run without gaps within a year (0: before they were counted by year): an invoice is never deleted and never
  -- changed; a credit note takes it back. The label is the number as it is printed.
  year INTEGER NOT NULL,
  number INTEGER NOT NULL,
  label TEXT NOT NULL UNIQUE,
  -- Its page is opened by a link of its own.
  nonce TEXT NOT NULL UNIQUE,
  -- The job for which it stands; none where a credit note has taken it back whole, or where it is about several.
  job_id INTEGER REFERENCES jobs (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  issued_at INTEGER NOT NULL,
  due_date TEXT NOT NULL,
  total_minor INTEGER NOT NULL CHECK (total_minor >= 0),
  tax_minor INTEGER NOT NULL,
  remind_on TEXT,
  -- Where it goes instead of to its customer.
  bill_name TEXT NOT NULL DEFAULT '',
  bill_mail TEXT NOT NULL DEFAULT '',
  bill_address TEXT NOT NULL DEFAULT '',
  -- To whom it is made out, as it stood then.
  buyer_name TEXT NOT NULL DEFAULT '',
  buyer_address TEXT NOT NULL DEFAULT '',
  buyer_tax_number TEXT NOT NULL DEFAULT '',
  -- Why there is no tax on it, and the sentence that says so.
  tax_kind TEXT NOT NULL DEFAULT 'standard' CHECK (tax_kind IN ('standard', 'reverse charge', 'exempt')),
  tax_words TEXT NOT NULL DEFAULT '',
  -- Of the form on which somebody made it, so that sending it twice makes one.
  form_key TEXT UNIQUE,
  before_text TEXT NOT NULL DEFAULT '',
  after_text TEXT NOT NULL DEFAULT '',
  UNIQUE (year, number)
) STRICT;
INSERT INTO invoices_anew (id, year, number, label, nonce, job_id, customer_id, issued_at, due_date, total_minor, tax_minor, remind_on, bill_name, bill_mail, bill_address, buyer_name, buyer_address)
  SELECT i.id, 0, i.number, CAST(i.number AS TEXT), lower(hex(randomblob(16))), i.job_id, i.customer_id, i.issued_at, i.due_date, i.total_minor, i.tax_minor, i.remind_on, i.bill_name,
    i.bill_mail, i.bill_address, iif(i.bill_name <> '', i.bill_name, c.name), iif(i.bill_name <> '', i.bill_address, t.line || ', ' || t.postcode)
  FROM invoices i JOIN customers c ON c.id = i.customer_id LEFT JOIN jobs j ON j.id = i.job_id LEFT JOIN sites t ON t.id = j.site_id;
CREATE TABLE invoice_lines (
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  position INTEGER NOT NULL,
  job_id INTEGER REFERENCES jobs (id),
  description TEXT NOT NULL,
  quantity REAL NOT NULL,
  unit_minor REAL NOT NULL,
  tax_bp INTEGER NOT NULL CHECK (tax_bp BETWEEN 0 AND 10000),
  amount_minor INTEGER NOT NULL,
  tax_minor INTEGER NOT NULL,
  -- What is taken off its price, and the day on which the work was done.
  discount_bp INTEGER NOT NULL DEFAULT 0 CHECK (discount_bp BETWEEN 0 AND 10000),
  date TEXT,
  PRIMARY KEY (invoice_id, position)
) STRICT, WITHOUT ROWID;
CREATE INDEX invoice_lines_of_job ON invoice_lines (job_id) WHERE job_id IS NOT NULL;
INSERT INTO invoice_lines (invoice_id, position, job_id, description, quantity, unit_minor, tax_bp, amount_minor, tax_minor)
  SELECT i.id, 0, i.job_id, f.description, 1, f.amount_minor, f.tax_bp, f.amount_minor, f.tax_minor
    FROM invoices i JOIN fees f ON f.job_id = i.job_id
  UNION ALL SELECT i.id, l.position, i.job_id, l.description, l.quantity, l.unit_minor, l.tax_bp, l.amount_minor, l.tax_minor
    FROM invoices i JOIN job_lines l ON l.job_id = i.job_id WHERE NOT EXISTS (SELECT 1 FROM fees WHERE job_id = i.job_id);
-- An invoice whose lines do not come to its sum keeps its sum.
INSERT INTO invoice_lines (invoice_id, position, job_id, description, quantity, unit_minor, tax_bp, amount_minor, tax_minor)
  SELECT i.id, 1000, i.job_id, 'As invoiced', 1, i.total_minor - coalesce(sum(l.amount_minor), 0), coalesce(max(l.tax_bp), 0),
      i.total_minor - coalesce(sum(l.amount_minor), 0), i.tax_minor - coalesce(sum(l.tax_minor), 0)
    FROM invoices i LEFT JOIN invoice_lines l ON l.invoice_id = i.id
    GROUP BY i.id HAVING coalesce(sum(l.amount_minor), 0) <> i.total_minor OR coalesce(sum(l.tax_minor), 0) <> i.tax_minor;

-- Refunds go to where the money came from, or are noted as handed back.
CREATE TABLE refunds_anew (
  id INTEGER PRIMARY KEY,
  payment_id INTEGER NOT NULL REFERENCES payments (id),
  method TEXT NOT NULL CHECK (method IN ('card', 'cash', 'bank', 'cheque')),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  refund_key TEXT NOT NULL UNIQUE,
  state TEXT NOT NULL CHECK (state IN ('asked', 'refunded')),
  asked_at INTEGER NOT NULL,
  reason TEXT NOT NULL
) STRICT;
INSERT INTO refunds_anew SELECT r.id, r.payment_id, p.method, r.amount_minor, r.refund_key, r.state, r.asked_at, r.reason
  FROM refunds r JOIN payments p ON p.id = r.payment_id;

CREATE TABLE ledger_entries (
  event_id INTEGER NOT NULL REFERENCES ledger_events (id),
  line INTEGER NOT NULL,
  account TEXT NOT NULL CHECK (account IN ('receivable', 'deposits', 'credit', 'refunds', 'card', 'bank', 'cash', 'cash out', 'sales', 'tax', 'tips', 'write-offs', 'gateway fees', 'on the way', 'disputed')),
  -- Debits are positive, credits negative.
  amount_minor INTEGER NOT NULL CHECK (amount_minor <> 0),
  invoice_id INTEGER REFERENCES invoices (id),
  payment_id INTEGER REFERENCES payments (id),
  note_id INTEGER REFERENCES credit_notes (id),
  tax_bp INTEGER,
  technician_id INTEGER REFERENCES technicians (id),
  PRIMARY KEY (event_id, line)
) STRICT, WITHOUT ROWID;

INSERT INTO ledger_events (key, kind, at)
  SELECT key, kind, at FROM (
    SELECT 'invoice ' || id AS key, 'invoice' AS kind, issued_at AS at, 1 AS nth, id FROM invoices
    UNION ALL SELECT 'payment ' || id, 'payment', settled_at, 2, id FROM payments WHERE state = 'received'
    UNION ALL SELECT 'payment ' || payment_id || ' to invoice ' || invoice_id, 'allocation', applied_at, 3, payment_id FROM applications
    UNION ALL SELECT 'refund ' || id || ' asked', 'refund asked', asked_at, 4, id FROM refunds
    UNION ALL SELECT 'refund ' || id, 'refund', coalesce((SELECT max(at) FROM journal WHERE event = 'refund ' || refunds.id), asked_at), 5, id FROM refunds WHERE state = 'refunded'
  ) ORDER BY at, nth, id;

INSERT INTO ledger_entries (event_id, line, account, amount_minor, invoice_id, payment_id, tax_bp)
  SELECT e.id, row_number() OVER (PARTITION BY e.id ORDER BY x.nth, x.tax_bp) - 1, x.account, x.amount, x.invoice_id, x.payment_id, x.tax_bp
  FROM (
    SELECT 'invoice ' || id AS key, 0 AS nth, 'receivable' AS account, total_minor AS amount, id AS invoice_id, NULL AS payment_id, NULL AS tax_bp FROM invoices
    UNION ALL SELECT 'invoice ' || invoice_id, 1, 'sales', sum(tax_minor - amount_minor), invoice_id, NULL, tax_bp FROM invoice_lines GROUP BY invoice_id, tax_bp
    UNION ALL SELECT 'invoice ' || invoice_id, 2, 'tax', -sum(tax_minor), invoice_id, NULL, tax_bp FROM invoice_lines GROUP BY invoice_id, tax_bp
    UNION ALL SELECT 'payment ' || id, 0, method, amount_minor, NULL, id, NULL FROM payments WHERE state = 'received'
    UNION ALL SELECT 'payment ' || id, 1, iif(purpose = 'deposit', 'deposits', 'credit'), -amount_minor, NULL, id, NULL FROM payments WHERE state = 'received'
    UNION ALL SELECT 'payment ' || a.payment_id || ' to invoice ' || a.invoice_id, 0, iif(p.purpose = 'deposit', 'deposits', 'credit'), a.amount_minor, NULL, a.payment_id, NULL
      FROM applications a JOIN payments p ON p.id = a.payment_id
    UNION ALL SELECT 'payment ' || payment_id || ' to invoice ' || invoice_id, 1, 'receivable', -amount_minor, invoice_id, payment_id, NULL FROM applications
    UNION ALL SELECT 'refund ' || r.id || ' asked', 0, iif(p.purpose = 'deposit', 'deposits', 'credit'), r.amount_minor, NULL, p.id, NULL
      FROM refunds r JOIN payments p ON p.id = r.payment_id
    UNION ALL SELECT 'refund ' || id || ' asked', 1, 'refunds', -amount_minor, NULL, payment_id, NULL FROM refunds
    UNION ALL SELECT 'refund ' || id, 0, 'refunds', amount_minor, NULL, payment_id, NULL FROM refunds WHERE state = 'refunded'
    UNION ALL SELECT 'refund ' || r.id, 1, p.method, -r.amount_minor, NULL, p.id, NULL
      FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE r.state = 'refunded'
  ) x JOIN ledger_events e ON e.key = x.key WHERE x.amount <> 0;

-- Proved: every event balances, and every account holds what the journal held. `held` was what customers had with us, less
-- nothing for refunds on their way.
CREATE TABLE proof (holds INTEGER NOT NULL CHECK (holds));
INSERT INTO proof SELECT NOT EXISTS (SELECT 1 FROM ledger_entries GROUP BY event_id HAVING sum(amount_minor) <> 0);
INSERT INTO proof SELECT coalesce((SELECT sum(amount_minor) FROM ledger_entries WHERE account IN ('deposits', 'credit', 'refunds')), 0)
  = coalesce((SELECT sum(amount_minor) FROM journal WHERE account = 'held'), 0);
INSERT INTO proof SELECT NOT EXISTS (
  SELECT 1 FROM (SELECT account, sum(amount_minor) AS n FROM journal WHERE account <> 'held' GROUP BY account) old
  WHERE old.n <> coalesce((SELECT sum(amount_minor) FROM ledger_entries e WHERE e.account = old.account), 0));
DROP TABLE proof;

DROP VIEW job_balances;
DROP VIEW invoice_balances;
DROP VIEW payment_balances;
DROP TABLE applications;
DROP TABLE journal;
DROP TABLE refunds;
DROP TABLE payments;
DROP TABLE invoices;
ALTER TABLE payments_anew RENAME TO payments;
ALTER TABLE invoices_anew RENAME TO invoices;
ALTER TABLE refunds_anew RENAME TO refunds;

CREATE INDEX payments_of_job ON payments (job_id) WHERE job_id IS NOT NULL;
CREATE INDEX payments_of_customer ON payments (customer_id);
-- While one charge for a job's deposit or invoice is under way, no second one can start.
CREATE UNIQUE INDEX payments_one_under_way ON payments (job_id, purpose) WHERE state IN ('asked', 'second step');
CREATE UNIQUE INDEX payments_one_for_invoice ON payments (invoice_id) WHERE invoice_id IS NOT NULL AND state IN ('asked', 'second step');
-- A deposit is received once.
CREATE UNIQUE INDEX payments_one_deposit ON payments (job_id) WHERE purpose = 'deposit' AND state = 'received';
CREATE INDEX payments_out ON payments (technician_id) WHERE technician_id IS NOT NULL AND handover_id IS NULL;
CREATE INDEX payments_declined ON payments (settled_at) WHERE state = 'declined';
CREATE UNIQUE INDEX invoices_of_job ON invoices (job_id) WHERE job_id IS NOT NULL;
CREATE INDEX invoices_of_customer ON invoices (customer_id);
CREATE INDEX invoices_to_remind ON invoices (remind_on) WHERE remind_on IS NOT NULL;
CREATE INDEX invoices_by_due_date ON invoices (due_date);
CREATE INDEX invoices_by_time ON invoices (issued_at);
CREATE INDEX refunds_of_payment ON refunds (payment_id);
CREATE INDEX ledger_by_account ON ledger_entries (account, amount_minor);
CREATE INDEX ledger_of_invoice ON ledger_entries (invoice_id, account, payment_id, note_id, amount_minor) WHERE invoice_id IS NOT NULL;
CREATE INDEX ledger_of_payment ON ledger_entries (payment_id, account, amount_minor) WHERE payment_id IS NOT NULL;
CREATE INDEX ledger_of_note ON ledger_entries (note_id, account, amount_minor) WHERE note_id IS NOT NULL;

-- ---------------------------------------------------------------- what must always be true

CREATE TRIGGER ledger_events_are_never_changed BEFORE UPDATE ON ledger_events BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_events_are_never_deleted BEFORE DELETE ON ledger_events BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_entries_are_never_changed BEFORE UPDATE ON ledger_entries BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_entries_are_never_deleted BEFORE DELETE ON ledger_entries BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER invoice_lines_are_never_changed BEFORE UPDATE ON invoice_lines BEGIN SELECT RAISE(ABORT, 'an invoice is never changed'); END;
CREATE TRIGGER invoice_lines_are_never_deleted BEFORE DELETE ON invoice_lines BEGIN SELECT RAISE(ABORT, 'an invoice is never changed'); END;
CREATE TRIGGER invoices_are_never_changed BEFORE UPDATE OF year, number, label, issued_at, total_minor, tax_minor ON invoices
BEGIN SELECT RAISE(ABORT, 'an invoice is never changed'); END;
CREATE TRIGGER invoices_are_never_deleted BEFORE DELETE ON invoices BEGIN SELECT RAISE(ABORT, 'an invoice is never changed'); END;
CREATE TRIGGER ledger_never_overdraws BEFORE INSERT ON ledger_entries WHEN NEW.account IN ('deposits', 'credit', 'refunds') AND NEW.amount_minor > 0
BEGIN
  SELECT RAISE(ABORT, 'more is used of a payment than is left of it')
  WHERE NEW.payment_id IS NULL OR NEW.amount_minor >
    -(SELECT coalesce(sum(amount_minor), 0) FROM ledger_entries WHERE payment_id = NEW.payment_id AND account = NEW.account);
END;
CREATE TRIGGER ledger_never_overpays BEFORE INSERT ON ledger_entries WHEN NEW.account = 'receivable' AND NEW.amount_minor < 0
BEGIN
  SELECT RAISE(ABORT, 'more is allocated to an invoice than is open on it')
  WHERE -NEW.amount_minor > (SELECT coalesce(sum(amount_minor), 0) FROM ledger_entries WHERE invoice_id = NEW.invoice_id AND account = 'receivable');
END;

-- ---------------------------------------------------------------- figures of money, computed in one place

-- What is left of a payment: what was received, less what was allocated to invoices and what goes back.
CREATE VIEW payment_balances AS
  SELECT p.id AS payment_id, p.customer_id, p.job_id, p.state, p.method, p.amount_minor,
    (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE payment_id = p.id AND account = 'receivable') AS applied_minor,
    (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE payment_id = p.id AND account = 'refunds' AND amount_minor < 0) AS refunded_minor,
    (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE payment_id = p.id AND account IN ('deposits', 'credit')) AS left_minor
  FROM payments p;

-- What is open on an invoice; how much of it payments have paid, and credit notes have taken back.
CREATE VIEW invoice_balances AS
  SELECT i.id AS invoice_id, i.customer_id, i.job_id, i.due_date,
    (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE invoice_id = i.id AND account = 'receivable' AND payment_id IS NOT NULL) AS applied_minor,
    (SELECT coalesce(-sum(amount_minor), 0) FROM ledger_entries WHERE invoice_id = i.id AND account = 'receivable' AND note_id IS NOT NULL) AS credited_minor,
    (SELECT coalesce(sum(amount_minor), 0) FROM ledger_entries WHERE invoice_id = i.id AND account = 'receivable') AS open_minor
  FROM invoices i;

-- On which invoice that stands a job is; `shared` where it is about other work too.
CREATE VIEW job_bills AS
  SELECT l.job_id, i.id AS invoice_id, i.job_id IS NULL AS shared, sum(l.amount_minor) AS amount_minor
  FROM invoice_lines l JOIN invoices i ON i.id = l.invoice_id
  WHERE l.job_id IS NOT NULL
    AND (i.total_minor = 0 OR i.total_minor > (SELECT coalesce(sum(total_minor), 0) FROM credit_notes WHERE invoice_id = i.id))
  GROUP BY l.job_id, i.id;

-- What the work of a job, or the fee that stands in its place, comes to; what was received for it and not given back; and
-- what is still to be paid.
CREATE VIEW job_balances AS
  SELECT job_id, asked_minor, received_minor, coalesce(open_minor, max(0, asked_minor - received_minor)) AS due_minor
  FROM (
    SELECT j.id AS job_id,
      coalesce((SELECT amount_minor FROM fees WHERE job_id = j.id), iif(j.state = 'cancelled', 0, j.total_minor)) AS asked_minor,
      coalesce((SELECT applied_minor FROM invoice_balances WHERE job_id = j.id), 0)
        + (SELECT coalesce(sum(b.left_minor), 0) FROM payment_balances b WHERE b.job_id = j.id) AS received_minor,
      coalesce(
        (SELECT open_minor FROM invoice_balances WHERE job_id = j.id),
        (SELECT min(o.amount_minor, b.open_minor) FROM job_bills o JOIN invoice_balances b USING (invoice_id) WHERE o.job_id = j.id AND o.shared)
      ) AS open_minor
    FROM jobs j
  );

-- Which payment has paid how much of which invoice; where that was taken back, an amount below nothing.
CREATE VIEW allocations AS
  SELECT e.invoice_id, e.payment_id, -e.amount_minor AS amount_minor, v.at, v.id AS event_id
  FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id WHERE e.account = 'receivable' AND e.payment_id IS NOT NULL;
