-- Work that falls due is found by an index and done once; what is bad is set aside; figures of money are read from views.

-- ---------------------------------------------------------------- what falls due

-- A repeat is looked at again on this day; null: at the next turn of the worker. And the number of the last change to
-- technicians' days that was known when room was looked for (plan_changes).
ALTER TABLE repeats ADD COLUMN grow_on TEXT;
ALTER TABLE repeats ADD COLUMN grow_seen INTEGER NOT NULL DEFAULT 0;
CREATE INDEX repeats_to_grow ON repeats (grow_on) WHERE state = 'active';
CREATE INDEX visits_forecast ON visits (date) WHERE state = 'forecast';

-- The window of which the customer has been reminded: another one is reminded of anew.
ALTER TABLE visits ADD COLUMN reminded_of INTEGER;
CREATE INDEX visits_to_remind ON visits (window_from) WHERE state = 'promised' AND reminded_of IS NULL;
UPDATE visits SET reminded_of = window_from WHERE EXISTS (SELECT 1 FROM messages m WHERE m.occasion LIKE 'visit reminder visit ' || visits.id || ' at ' || visits.window_from || ' %');
CREATE TRIGGER visits_moved_are_reminded_anew AFTER UPDATE OF window_from ON visits WHEN NEW.window_from <> OLD.window_from AND NEW.reminded_of IS NOT NULL
BEGIN
  UPDATE visits SET reminded_of = NULL WHERE id = NEW.id;
END;

-- The day of the next reminder; null: none any more.
ALTER TABLE invoices ADD COLUMN remind_on TEXT;
CREATE INDEX invoices_to_remind ON invoices (remind_on) WHERE remind_on IS NOT NULL;

CREATE INDEX jobs_awaiting_deposit ON jobs (booked_at) WHERE state = 'awaiting deposit';

-- What could not be done by itself: told to a person, and tried again when what it is about has changed.
CREATE TABLE failed_work (
  job TEXT NOT NULL,
  subject TEXT NOT NULL,
  words TEXT NOT NULL,
  problem TEXT NOT NULL,
  -- What it was about as it stood then.
  state_then TEXT NOT NULL,
  failed_at INTEGER NOT NULL,
  PRIMARY KEY (job, subject)
) STRICT, WITHOUT ROWID;

-- ---------------------------------------------------------------- what is kept, and for how long

-- Days for which the audit keeps what a row was before and after a change. Who, when and what are kept for ever.
ALTER TABLE business ADD COLUMN keep_changes_days INTEGER NOT NULL DEFAULT 180 CHECK (keep_changes_days BETWEEN 7 AND 3650);
-- How far the worker has come with something that goes on for ever.
CREATE TABLE worker_marks (
  name TEXT PRIMARY KEY,
  position INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
-- When an effect was done or given up.
ALTER TABLE outbox ADD COLUMN ended_at INTEGER;
UPDATE outbox SET ended_at = run_after WHERE state = 'done';
CREATE INDEX outbox_ended ON outbox (ended_at) WHERE state = 'done';
CREATE INDEX outbox_given_up ON outbox (id) WHERE state = 'given up';
CREATE INDEX sessions_by_end ON sessions (expires_at);
CREATE INDEX audit_by_time ON audit (at);

-- A refund that has gone out is refunded, in the word of the trade.
CREATE TABLE refunds_new (
  id INTEGER PRIMARY KEY,
  payment_id INTEGER NOT NULL REFERENCES payments (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  refund_key TEXT NOT NULL UNIQUE,
  state TEXT NOT NULL CHECK (state IN ('asked', 'refunded')),
  asked_at INTEGER NOT NULL,
  reason TEXT NOT NULL
) STRICT;
INSERT INTO refunds_new (id, payment_id, amount_minor, refund_key, state, asked_at, reason)
  SELECT id, payment_id, amount_minor, refund_key, iif(state = 'paid back', 'refunded', state), asked_at, reason FROM refunds;
DROP TRIGGER applications_within_both;
DROP TABLE refunds;
ALTER TABLE refunds_new RENAME TO refunds;
CREATE INDEX refunds_of_payment ON refunds (payment_id);
CREATE TRIGGER applications_within_both BEFORE INSERT ON applications
BEGIN
  SELECT RAISE(ABORT, 'more is applied than was received')
  WHERE NEW.amount_minor > (SELECT amount_minor FROM payments WHERE id = NEW.payment_id AND state = 'received')
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE payment_id = NEW.payment_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = NEW.payment_id)
    OR NOT EXISTS (SELECT 1 FROM payments WHERE id = NEW.payment_id AND state = 'received');
  SELECT RAISE(ABORT, 'more is applied than is due')
  WHERE NEW.amount_minor > (SELECT total_minor FROM invoices WHERE id = NEW.invoice_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE invoice_id = NEW.invoice_id);
END;
CREATE TRIGGER refunds_within_received BEFORE INSERT ON refunds
BEGIN
  SELECT RAISE(ABORT, 'more is refunded than is left of the payment')
  WHERE NEW.amount_minor > (SELECT amount_minor FROM payments WHERE id = NEW.payment_id AND state = 'received')
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE payment_id = NEW.payment_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = NEW.payment_id);
END;

-- ---------------------------------------------------------------- figures of money, computed in one place

-- What is left of a payment, and what is open on an invoice.
CREATE VIEW payment_balances AS
  SELECT payment_id, customer_id, job_id, state, method, amount_minor, applied_minor, refunded_minor,
    iif(state = 'received', amount_minor, 0) - applied_minor - refunded_minor AS left_minor
  FROM (
    SELECT p.id AS payment_id, p.customer_id, p.job_id, p.state, p.method, p.amount_minor,
      (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE payment_id = p.id) AS applied_minor,
      (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = p.id) AS refunded_minor
    FROM payments p
  );

CREATE VIEW invoice_balances AS
  SELECT invoice_id, customer_id, job_id, due_date, applied_minor, iif(cancelled_at IS NULL, total_minor - applied_minor, 0) AS open_minor
  FROM (
    SELECT i.id AS invoice_id, i.customer_id, i.job_id, i.due_date, i.total_minor, i.cancelled_at,
      (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE invoice_id = i.id) AS applied_minor
    FROM invoices i
  );

UPDATE invoices SET remind_on = date(due_date, '+1 day') WHERE (SELECT open_minor FROM invoice_balances b WHERE b.invoice_id = invoices.id) > 0;

-- What the work of a job, or the fee that stands in its place, comes to; what was received for it and not given back; and
-- what is still to be paid.
CREATE VIEW job_balances AS
  SELECT job_id, asked_minor, received_minor, max(0, asked_minor - received_minor) AS due_minor
  FROM (
    SELECT j.id AS job_id,
      coalesce((SELECT amount_minor FROM fees WHERE job_id = j.id), iif(j.state = 'cancelled', 0, j.total_minor)) AS asked_minor,
      (SELECT coalesce(sum(p.amount_minor - (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = p.id)), 0)
       FROM payments p WHERE p.job_id = j.id AND p.state = 'received') AS received_minor
    FROM jobs j
  );

-- ---------------------------------------------------------------- indexes for lists and look-ups

CREATE INDEX messages_of_job ON messages (job_id, written_at);
CREATE INDEX messages_bounced ON messages (customer_id) WHERE state = 'bounced';
CREATE INDEX messages_by_time ON messages (written_at);
CREATE INDEX jobs_of_site ON jobs (site_id);
CREATE INDEX jobs_by_time ON jobs (booked_at);
CREATE INDEX links_of_job ON links (job_id);
CREATE INDEX visits_of_service ON visits (service_id, date) WHERE state = 'promised';
CREATE INDEX visits_of_repeat ON visits (repeat_id, date) WHERE repeat_id IS NOT NULL;
CREATE INDEX journal_by_account ON journal (account);
CREATE INDEX invoices_by_due_date ON invoices (due_date);
CREATE INDEX invoices_by_time ON invoices (issued_at);
CREATE INDEX cards_of_job ON cards (job_id);
CREATE INDEX quotes_of_job ON quotes (job_id) WHERE job_id IS NOT NULL;
CREATE INDEX alike_by_other ON alike (other_id);
CREATE INDEX payments_declined ON payments (settled_at) WHERE state = 'declined';
CREATE INDEX payments_of_customer ON payments (customer_id);
CREATE INDEX replies_by_time ON replies (received_at);
CREATE INDEX repeats_of_site ON repeats (site_id);
CREATE INDEX repeats_by_state ON repeats (state, id);
