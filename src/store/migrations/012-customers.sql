-- Customers: who they are and how they are reached, tags, notes, bills that go to somebody else, and how they are found.

ALTER TABLE customers ADD COLUMN reached_by TEXT NOT NULL DEFAULT 'any' CHECK (reached_by IN ('any', 'email', 'text', 'phone'));
-- Where they came from, in words of the office; a booking's own source stands in jobs.source.
ALTER TABLE customers ADD COLUMN source TEXT NOT NULL DEFAULT '';
-- Days to pay, where they are not those of the business.
ALTER TABLE customers ADD COLUMN payment_days INTEGER CHECK (payment_days BETWEEN 0 AND 365);
ALTER TABLE customers ADD COLUMN technician_note TEXT NOT NULL DEFAULT '';
-- For inside only: never on a technician's phone, never on a customer's page.
ALTER TABLE customers ADD COLUMN inside_note TEXT NOT NULL DEFAULT '';
-- Bills go there where a name stands here.
ALTER TABLE customers ADD COLUMN bill_name TEXT NOT NULL DEFAULT '';
ALTER TABLE customers ADD COLUMN bill_mail TEXT NOT NULL DEFAULT '';
ALTER TABLE customers ADD COLUMN bill_address TEXT NOT NULL DEFAULT '';
ALTER TABLE customers ADD COLUMN archived_at INTEGER;
ALTER TABLE customers ADD COLUMN erased_at INTEGER;
CREATE INDEX customers_archived ON customers (archived_at) WHERE archived_at IS NOT NULL;

ALTER TABLE sites ADD COLUMN name TEXT NOT NULL DEFAULT '';
ALTER TABLE sites ADD COLUMN parking TEXT NOT NULL DEFAULT '';
ALTER TABLE sites ADD COLUMN archived_at INTEGER;
CREATE INDEX sites_of_zone ON sites (zone_id);

CREATE TABLE customer_tags (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers,
  tag TEXT NOT NULL COLLATE NOCASE,
  UNIQUE (customer_id, tag)
) STRICT;
CREATE INDEX customer_tags_by_tag ON customer_tags (tag);

-- What the one that stays did not have and took over when two were merged, by column, so that it can be taken back.
ALTER TABLE possible_duplicates ADD COLUMN filled TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(filled));

-- To whom an invoice was addressed, as it stood when it was issued; empty: the customer.
ALTER TABLE invoices ADD COLUMN bill_name TEXT NOT NULL DEFAULT '';
ALTER TABLE invoices ADD COLUMN bill_mail TEXT NOT NULL DEFAULT '';
ALTER TABLE invoices ADD COLUMN bill_address TEXT NOT NULL DEFAULT '';

-- Filters of the list of customers under a name.
CREATE TABLE saved_views (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  filter TEXT NOT NULL CHECK (json_valid(filter)),
  made_at INTEGER NOT NULL
) STRICT;

-- ---------------------------------------------------------------- how they are found

-- Any part of anything is found by three letters in a row.
CREATE VIRTUAL TABLE customer_search USING fts5 (
  name, phone, mail, places, tags, notes, tokenize = 'trigram remove_diacritics 1'
);

-- What is looked for of each. Of a phone only its digits count; places twice, with and without the postcode's space.
CREATE VIEW customer_texts AS
SELECT c.id, c.name,
  replace(replace(replace(replace(replace(replace(replace(c.phone, '+', ''), ' ', ''), '-', ''), '.', ''), '(', ''), ')', ''), '/', '') AS phone,
  trim(c.mail || ' ' || c.bill_mail) AS mail,
  trim(coalesce((SELECT group_concat(s.name || ' ' || s.line || ' ' || s.postcode || ' ' || replace(s.postcode, ' ', ''), ' · ')
    FROM sites s WHERE s.customer_id = c.id), '') || ' ' || c.bill_address) AS places,
  coalesce((SELECT group_concat(t.tag, ' · ') FROM customer_tags t WHERE t.customer_id = c.id), '') AS tags,
  trim(c.bill_name || ' ' || c.technician_note || ' ' || c.inside_note) AS notes
FROM customers c;

CREATE TRIGGER customers_are_found_new AFTER INSERT ON customers BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = NEW.id;
END;
CREATE TRIGGER customers_are_found AFTER UPDATE OF name, phone, mail, bill_name, bill_mail, bill_address, technician_note, inside_note ON customers BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = NEW.id;
END;
CREATE TRIGGER customers_are_found_gone AFTER DELETE ON customers BEGIN
  DELETE FROM customer_search WHERE rowid = OLD.id;
END;
CREATE TRIGGER sites_are_found_new AFTER INSERT ON sites BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = NEW.customer_id;
END;
CREATE TRIGGER sites_are_found AFTER UPDATE OF customer_id, name, line, postcode ON sites BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes)
    SELECT * FROM customer_texts WHERE id IN (OLD.customer_id, NEW.customer_id);
END;
CREATE TRIGGER sites_are_found_gone AFTER DELETE ON sites BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = OLD.customer_id;
END;
CREATE TRIGGER tags_are_found_new AFTER INSERT ON customer_tags BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = NEW.customer_id;
END;
CREATE TRIGGER tags_are_found AFTER UPDATE ON customer_tags BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes)
    SELECT * FROM customer_texts WHERE id IN (OLD.customer_id, NEW.customer_id);
END;
CREATE TRIGGER tags_are_found_gone AFTER DELETE ON customer_tags BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = OLD.customer_id;
END;
INSERT INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts;

-- ---------------------------------------------------------------- import

-- A file that is brought in: looked over row by row, then taken when a person says so, then perhaps undone.
CREATE TABLE imports (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('customers', 'services', 'extras', 'prices')),
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
CREATE INDEX imports_under_way ON imports (id) WHERE state IN ('checking', 'taking', 'undoing');

CREATE TABLE import_rows (
  id INTEGER PRIMARY KEY,
  import_id INTEGER NOT NULL REFERENCES imports,
  -- Where it stands in the file: the first row under the head is 1.
  number INTEGER NOT NULL,
  cells TEXT NOT NULL CHECK (json_valid(cells)),
  -- `waiting` is not looked at yet; `wrong` cannot be taken; `new` is nobody known; `certain` and `likely` are as `same_id`,
  -- or as the row `same_row` of this file.
  verdict TEXT NOT NULL DEFAULT 'waiting' CHECK (verdict IN ('waiting', 'wrong', 'new', 'certain', 'likely')),
  problems TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(problems)),
  same_id INTEGER,
  same_row INTEGER,
  decision TEXT CHECK (decision IN ('take', 'join', 'leave out')),
  -- What taking it has made and changed, for the undo; null while it has not been taken.
  done TEXT CHECK (json_valid(done)),
  -- An undo that could not take it back: it has been used since.
  kept INTEGER NOT NULL DEFAULT 0 CHECK (kept IN (0, 1)),
  UNIQUE (import_id, number)
) STRICT;
CREATE INDEX import_rows_to_check ON import_rows (import_id, number) WHERE verdict = 'waiting';
CREATE INDEX import_rows_by_verdict ON import_rows (import_id, verdict, number);
CREATE INDEX import_rows_to_take ON import_rows (import_id, number) WHERE done IS NULL AND decision IN ('take', 'join');
CREATE INDEX import_rows_taken ON import_rows (import_id, number) WHERE done IS NOT NULL;

-- What tells the rows of one file apart.
CREATE TABLE import_keys (
  import_id INTEGER NOT NULL,
  key TEXT NOT NULL,
  number INTEGER NOT NULL,
  PRIMARY KEY (import_id, key, number)
) STRICT, WITHOUT ROWID;
