PRAGMA legacy_alter_table = ON;

-- Accounts of the owner's own, for what the business's bank says beside payments: the bank's fees, rent, interest.
CREATE TABLE own_accounts (
  id INTEGER PRIMARY KEY,
  -- As the bookkeeper numbers it.
  number TEXT NOT NULL DEFAULT '',
  name TEXT NOT NULL UNIQUE CHECK (name <> ''),
  active INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE ledger_events_anew (
  id INTEGER PRIMARY KEY,
  -- What happened, once: 'invoice 12', 'payment 5 to invoice 12'.
  key TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL CHECK (kind IN ('invoice', 'credit note', 'payment', 'allocation', 'released', 'refund asked', 'refund', 'write-off', 'cash handed over', 'reversal', 'tips paid', 'gateway fee', 'payout', 'payout arrived', 'dispute', 'dispute won', 'dispute lost', 'bank line')),
  at INTEGER NOT NULL,
  -- Why, where a person has said it.
  reason TEXT NOT NULL DEFAULT '',
  -- The event that this one takes back.
  reverses_id INTEGER UNIQUE REFERENCES ledger_events (id)
) STRICT;
INSERT INTO ledger_events_anew SELECT * FROM ledger_events;
DROP TABLE ledger_events;
ALTER TABLE ledger_events_anew RENAME TO ledger_events;
CREATE INDEX ledger_events_by_time ON ledger_events (at);

CREATE TABLE ledger_entries_anew (
  event_id INTEGER NOT NULL REFERENCES ledger_events (id),
  line INTEGER NOT NULL,
  account TEXT NOT NULL CHECK (account IN ('receivable', 'deposits', 'credit', 'refunds', 'card', 'bank', 'cash', 'cash out', 'sales', 'tax', 'tips', 'write-offs', 'gateway fees', 'on the way', 'disputed', 'cash differences', 'own')),
  -- Debits are positive, credits negative.
  amount_minor INTEGER NOT NULL CHECK (amount_minor <> 0),
  invoice_id INTEGER REFERENCES invoices (id),
  payment_id INTEGER REFERENCES payments (id),
  note_id INTEGER REFERENCES credit_notes (id),
  tax_bp INTEGER,
  technician_id INTEGER REFERENCES technicians (id),
  own_account_id INTEGER REFERENCES own_accounts (id),
  PRIMARY KEY (event_id, line),
  CHECK ((account = 'own') = (own_account_id IS NOT NULL))
) STRICT, WITHOUT ROWID;
INSERT INTO ledger_entries_anew SELECT *, NULL FROM ledger_entries;
DROP TABLE ledger_entries;
ALTER TABLE ledger_entries_anew RENAME TO ledger_entries;
CREATE INDEX ledger_by_account ON ledger_entries (account, amount_minor);
CREATE INDEX ledger_of_invoice ON ledger_entries (invoice_id, account, payment_id, note_id, amount_minor) WHERE invoice_id IS NOT NULL;
CREATE INDEX ledger_of_payment ON ledger_entries (payment_id, account, amount_minor) WHERE payment_id IS NOT NULL;
CREATE INDEX ledger_of_note ON ledger_entries (note_id, account, amount_minor) WHERE note_id IS NOT NULL;

-- Each event with all that it says of money, as one text.
CREATE VIEW ledger_texts AS
SELECT v.id AS event_id,
  json_array(v.id, v.kind, v.key, v.at, v.reverses_id,
    (SELECT json_group_array(json_array(line, account, amount_minor, invoice_id, payment_id, note_id, tax_bp, technician_id, own_account_id))
      FROM (SELECT * FROM ledger_entries WHERE event_id = v.id ORDER BY line))) AS text
FROM ledger_events v;
-- Each event's text hashed together with the hash of the event before (src/store/ledger-chain.ts): none can be taken out or changed unseen.
CREATE TABLE ledger_chain (
  event_id INTEGER PRIMARY KEY REFERENCES ledger_events (id),
  hash TEXT NOT NULL CHECK (length(hash) = 64)
) STRICT;
WITH RECURSIVE chain (event_id, hash) AS (
  SELECT event_id, sha256(text) FROM ledger_texts WHERE event_id = (SELECT min(id) FROM ledger_events)
  UNION ALL
  SELECT t.event_id, sha256(chain.hash || t.text)
    FROM chain CROSS JOIN ledger_texts t WHERE t.event_id = (SELECT min(id) FROM ledger_events WHERE id > chain.event_id)
)
INSERT INTO ledger_chain SELECT event_id, hash FROM chain;
CREATE TRIGGER ledger_chain_is_never_changed BEFORE UPDATE ON ledger_chain BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_chain_is_never_deleted BEFORE DELETE ON ledger_chain BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;

-- The words of an event may be about somebody who is erased; what it says of money is never changed.
CREATE TRIGGER ledger_events_are_never_changed BEFORE UPDATE OF id, key, kind, at, reverses_id ON ledger_events
  BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_events_are_never_deleted BEFORE DELETE ON ledger_events BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_entries_are_never_changed BEFORE UPDATE ON ledger_entries BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
CREATE TRIGGER ledger_entries_are_never_deleted BEFORE DELETE ON ledger_entries BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
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

CREATE TABLE account_numbers_anew (
  account TEXT PRIMARY KEY CHECK (account IN ('receivable', 'deposits', 'credit', 'refunds', 'card', 'bank', 'cash', 'cash out', 'sales', 'tax', 'tips', 'write-offs', 'gateway fees', 'on the way', 'disputed', 'cash differences', 'own')),
  number TEXT NOT NULL CHECK (trim(number) <> '')
) STRICT, WITHOUT ROWID;
INSERT INTO account_numbers_anew SELECT * FROM account_numbers;
DROP TABLE account_numbers;
ALTER TABLE account_numbers_anew RENAME TO account_numbers;

-- A payout is less by what the customers' banks have taken back, and more by what they gave again.
CREATE TABLE payout_items_anew (
  payout_id INTEGER NOT NULL REFERENCES payouts (id),
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('charge', 'refund', 'dispute')),
  reference TEXT NOT NULL,
  -- NULL: it matches nothing of ours.
  payment_id INTEGER REFERENCES payments (id),
  gross_minor INTEGER NOT NULL,
  fee_minor INTEGER NOT NULL,
  PRIMARY KEY (payout_id, position)
) STRICT, WITHOUT ROWID;
INSERT INTO payout_items_anew SELECT * FROM payout_items;
DROP TABLE payout_items;
ALTER TABLE payout_items_anew RENAME TO payout_items;
CREATE INDEX payout_items_of_payment ON payout_items (payment_id) WHERE payment_id IS NOT NULL;

CREATE TABLE bank_lines_anew (
  id INTEGER PRIMARY KEY,
  -- What tells it from every other line, hashed: the bank's own number, or all that it says.
  key TEXT NOT NULL UNIQUE,
  date TEXT NOT NULL,
  -- Below nothing: it went out.
  amount_minor INTEGER NOT NULL CHECK (amount_minor <> 0),
  name TEXT NOT NULL,
  words TEXT NOT NULL,
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'matched', 'set aside', 'posted')),
  -- What it is. A payment was recorded from the line, or was there before it.
  payment_id INTEGER UNIQUE REFERENCES payments (id),
  payout_id INTEGER UNIQUE REFERENCES payouts (id),
  refund_id INTEGER UNIQUE REFERENCES refunds (id),
  recorded INTEGER NOT NULL DEFAULT 0 CHECK (recorded IN (0, 1)),
  -- Why it is none of ours.
  why TEXT NOT NULL DEFAULT '',
  -- Where it is posted, as none of our payments.
  own_account_id INTEGER REFERENCES own_accounts (id),
  -- The payment that the bank has taken back by it.
  returned_id INTEGER UNIQUE REFERENCES payments (id),
  CHECK ((payment_id IS NOT NULL) + (payout_id IS NOT NULL) + (refund_id IS NOT NULL) + (returned_id IS NOT NULL) = (state = 'matched')),
  CHECK ((state = 'set aside') = (why <> '')),
  CHECK ((state = 'posted') = (own_account_id IS NOT NULL))
) STRICT;
INSERT INTO bank_lines_anew SELECT *, NULL, NULL FROM bank_lines;
DROP TABLE bank_lines;
ALTER TABLE bank_lines_anew RENAME TO bank_lines;
CREATE INDEX bank_lines_by_date ON bank_lines (date);
CREATE INDEX bank_lines_open ON bank_lines (date) WHERE state = 'open';

-- Of a card that pays several invoices at once: so much of which.
ALTER TABLE payments ADD COLUMN pays TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(pays));
-- Up to this day the books are closed: nothing is posted into it any more.
ALTER TABLE business ADD COLUMN books_closed_to TEXT;
-- What the customer says against it; nobody reminds, charges or adds a fee until somebody has answered.
ALTER TABLE invoices ADD COLUMN objected_at INTEGER;
ALTER TABLE invoices ADD COLUMN objection TEXT NOT NULL DEFAULT '';
-- What was counted beyond (below) what should have been there, and why.
ALTER TABLE handovers ADD COLUMN difference_minor INTEGER NOT NULL DEFAULT 0;
ALTER TABLE handovers ADD COLUMN difference_reason TEXT NOT NULL DEFAULT '';

-- How the first and the last month of a flat price are billed, where only a part of them is agreed.
ALTER TABLE business ADD COLUMN part_months TEXT NOT NULL DEFAULT 'whole' CHECK (part_months IN ('whole', 'days'));
-- From which day on a flat price was agreed; NULL: it is none, or was agreed before this was kept.
ALTER TABLE repeats ADD COLUMN bill_since TEXT;
-- What was agreed with whoever is kept of two who were merged, before and after that.
ALTER TABLE possible_duplicates ADD COLUMN terms TEXT NOT NULL DEFAULT '{"columns":{},"withheld":[]}' CHECK (json_valid(terms));

PRAGMA legacy_alter_table = OFF;
