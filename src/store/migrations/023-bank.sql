-- Lines of the bank's statements, read from its files, and what each of them is. A check cannot be changed: the table of imports is made anew.
CREATE TABLE imports_anew (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('customers', 'services', 'extras', 'prices', 'repeats', 'bank lines')),
  file TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  made_by TEXT NOT NULL,
  -- `filling` while rows arrive, `checking` while they are looked over, `checked` when a person decides, then `taking` and
  -- `taken`, or `undoing` and `undone`; `stopped` is taking that a person has stopped.
  state TEXT NOT NULL CHECK (state IN ('filling', 'checking', 'checked', 'taking', 'stopped', 'taken', 'undoing', 'undone')),
  -- What each column of the file holds, by the name of the column; and how its dates are written.
  columns TEXT NOT NULL CHECK (json_valid(columns)),
  row_count INTEGER NOT NULL
) STRICT;
INSERT INTO imports_anew SELECT id, kind, file, made_at, made_by, state, columns, row_count FROM imports;
DROP TABLE imports;
ALTER TABLE imports_anew RENAME TO imports;
CREATE INDEX imports_under_way ON imports (id) WHERE state IN ('checking', 'taking', 'undoing');

CREATE TABLE bank_lines (
  id INTEGER PRIMARY KEY,
  -- What tells it from every other line, hashed: the bank's own number, or all that it says.
  key TEXT NOT NULL UNIQUE,
  date TEXT NOT NULL,
  -- Below nothing: it went out.
  amount_minor INTEGER NOT NULL CHECK (amount_minor <> 0),
  name TEXT NOT NULL,
  words TEXT NOT NULL,
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'matched', 'set aside')),
  -- What it is. A payment was recorded from the line, or was there before it.
  payment_id INTEGER UNIQUE REFERENCES payments (id),
  payout_id INTEGER UNIQUE REFERENCES payouts (id),
  refund_id INTEGER UNIQUE REFERENCES refunds (id),
  recorded INTEGER NOT NULL DEFAULT 0 CHECK (recorded IN (0, 1)),
  -- Why it is none of ours.
  why TEXT NOT NULL DEFAULT '',
  CHECK ((payment_id IS NOT NULL) + (payout_id IS NOT NULL) + (refund_id IS NOT NULL) = (state = 'matched')),
  CHECK ((state = 'set aside') = (why <> ''))
) STRICT;
CREATE INDEX bank_lines_by_date ON bank_lines (date);
CREATE INDEX bank_lines_open ON bank_lines (date) WHERE state = 'open';

-- What the card service takes at most, of one payment and on one day; null where it says nothing.
ALTER TABLE business ADD COLUMN card_most_minor INTEGER CHECK (card_most_minor > 0);
ALTER TABLE business ADD COLUMN card_day_minor INTEGER CHECK (card_day_minor > 0);
CREATE INDEX payments_by_card ON payments (asked_at) WHERE method = 'card';
CREATE INDEX payments_of_invoice ON payments (invoice_id) WHERE invoice_id IS NOT NULL;
