-- What is due comes in by itself: cards that may be charged, runs with their notices, promises of payment, and payouts.

-- How a card paid: by a link, held to a reader, typed in at the door, or kept by us.
ALTER TABLE payments ADD COLUMN card_how TEXT CHECK (card_how IN ('link', 'reader', 'typed', 'on file'));
-- What helps after a decline: trying later, another card, or nothing.
ALTER TABLE payments ADD COLUMN decline_kind TEXT CHECK (decline_kind IN ('later', 'another', 'never'));

-- Whether its owner has agreed that what is due is charged to it by itself, and to which words. Cards are tried in their order.
ALTER TABLE cards ADD COLUMN collects INTEGER NOT NULL DEFAULT 0 CHECK (collects IN (0, 1));
ALTER TABLE cards ADD COLUMN agreed_words TEXT NOT NULL DEFAULT '';
ALTER TABLE cards ADD COLUMN position INTEGER NOT NULL DEFAULT 0;

ALTER TABLE business ADD COLUMN collects INTEGER NOT NULL DEFAULT 0 CHECK (collects IN (0, 1));
-- Bit 0 is Monday; the time is a minute of the day.
ALTER TABLE business ADD COLUMN collect_weekdays INTEGER NOT NULL DEFAULT 31 CHECK (collect_weekdays BETWEEN 1 AND 127);
ALTER TABLE business ADD COLUMN collect_at INTEGER NOT NULL DEFAULT 540 CHECK (collect_at BETWEEN 0 AND 1439);
ALTER TABLE business ADD COLUMN collect_days INTEGER NOT NULL DEFAULT 0 CHECK (collect_days BETWEEN 0 AND 365);
ALTER TABLE business ADD COLUMN collect_smallest_minor INTEGER NOT NULL DEFAULT 0 CHECK (collect_smallest_minor >= 0);
ALTER TABLE business ADD COLUMN collect_cards INTEGER NOT NULL DEFAULT 2 CHECK (collect_cards BETWEEN 1 AND 3);
-- Days after which a card that could not pay is tried again, one try after the other.
ALTER TABLE business ADD COLUMN collect_again TEXT NOT NULL DEFAULT '[3,7]' CHECK (json_valid(collect_again));

ALTER TABLE customers ADD COLUMN collect_never INTEGER NOT NULL DEFAULT 0 CHECK (collect_never IN (0, 1));
-- Not by itself; on a day of its own; and since when it stands as it is (epoch milliseconds).
ALTER TABLE invoices ADD COLUMN collect_never INTEGER NOT NULL DEFAULT 0 CHECK (collect_never IN (0, 1));
ALTER TABLE invoices ADD COLUMN collect_on TEXT;
ALTER TABLE invoices ADD COLUMN collect_known INTEGER NOT NULL DEFAULT 0;
UPDATE invoices SET collect_known = issued_at;

-- What a customer was told that a run will take, and whether they objected. Without it nothing is charged.
CREATE TABLE collection_notices (
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  run_date TEXT NOT NULL,
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  card_id INTEGER NOT NULL REFERENCES cards (id),
  told_at INTEGER NOT NULL,
  objected_at INTEGER,
  PRIMARY KEY (invoice_id, run_date)
) STRICT, WITHOUT ROWID;
CREATE INDEX collection_notices_of_run ON collection_notices (run_date);

CREATE TABLE collection_runs (
  run_date TEXT PRIMARY KEY,
  begun_at INTEGER NOT NULL,
  ended_at INTEGER
) STRICT, WITHOUT ROWID;

-- What a run did about an invoice: each card that was tried, or why it was left out.
CREATE TABLE collection_items (
  run_date TEXT NOT NULL REFERENCES collection_runs (run_date),
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  attempt INTEGER NOT NULL,
  payment_id INTEGER UNIQUE REFERENCES payments (id),
  -- The card that was tried: it may be erased since.
  card_id INTEGER,
  left_out TEXT,
  -- What was done about its outcome.
  followed INTEGER NOT NULL DEFAULT 0 CHECK (followed IN (0, 1)),
  CHECK ((payment_id IS NULL) <> (left_out IS NULL)),
  PRIMARY KEY (run_date, invoice_id, attempt)
) STRICT, WITHOUT ROWID;
CREATE INDEX collection_items_of_invoice ON collection_items (invoice_id);
CREATE INDEX collection_items_open ON collection_items (run_date) WHERE followed = 0;

-- "Pays on Friday": until then nobody is reminded or charged.
CREATE TABLE pay_promises (
  id INTEGER PRIMARY KEY,
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  day TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  made_by TEXT NOT NULL,
  ended TEXT CHECK (ended IN ('kept', 'broken', 'changed'))
) STRICT;
CREATE UNIQUE INDEX pay_promises_open ON pay_promises (invoice_id) WHERE ended IS NULL;
CREATE INDEX pay_promises_watched ON pay_promises (day) WHERE ended IS NULL;
CREATE INDEX pay_promises_of_invoice ON pay_promises (invoice_id);

-- What the card service has paid out, and what was in it.
CREATE TABLE payouts (
  id INTEGER PRIMARY KEY,
  reference TEXT NOT NULL UNIQUE,
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  -- For paying out at once.
  fee_minor INTEGER NOT NULL DEFAULT 0 CHECK (fee_minor >= 0),
  paid_at INTEGER NOT NULL,
  arrived_on TEXT
) STRICT;
CREATE INDEX payouts_by_time ON payouts (paid_at);
CREATE TABLE payout_items (
  payout_id INTEGER NOT NULL REFERENCES payouts (id),
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('charge', 'refund')),
  reference TEXT NOT NULL,
  -- NULL: it matches nothing of ours.
  payment_id INTEGER REFERENCES payments (id),
  gross_minor INTEGER NOT NULL,
  fee_minor INTEGER NOT NULL,
  PRIMARY KEY (payout_id, position)
) STRICT, WITHOUT ROWID;
CREATE INDEX payout_items_of_payment ON payout_items (payment_id) WHERE payment_id IS NOT NULL;

-- Days after the due date on which an open invoice is reminded of; below nothing before it.
ALTER TABLE business ADD COLUMN reminder_days TEXT NOT NULL DEFAULT '[3,10,20]' CHECK (json_valid(reminder_days));
-- What was said on the phone about an invoice that no reminder has helped.
CREATE TABLE money_calls (
  id INTEGER PRIMARY KEY,
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  at INTEGER NOT NULL,
  said_by TEXT NOT NULL,
  words TEXT NOT NULL CHECK (trim(words) <> '')
) STRICT;
CREATE INDEX money_calls_of_invoice ON money_calls (invoice_id);

-- A customer's bank asks a payment back: the card service holds it until that is decided.
CREATE TABLE disputes (
  id INTEGER PRIMARY KEY,
  reference TEXT NOT NULL UNIQUE,
  payment_id INTEGER NOT NULL REFERENCES payments (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  reason TEXT NOT NULL,
  opened_at INTEGER NOT NULL,
  -- Until when one can answer.
  answer_by TEXT,
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'won', 'lost')),
  -- What was the customer's of it when it was lost; the rest had been given back before.
  lost_minor INTEGER NOT NULL DEFAULT 0 CHECK (lost_minor BETWEEN 0 AND amount_minor),
  ended_at INTEGER
) STRICT;
CREATE INDEX disputes_of_payment ON disputes (payment_id);
CREATE INDEX disputes_open ON disputes (answer_by) WHERE state = 'open';
