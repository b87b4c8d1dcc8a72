-- An invoice paid in dated parts. The first part that is open is what is due: `invoices.due_date` moves along with them.
CREATE TABLE invoice_parts (
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  position INTEGER NOT NULL,
  due_date TEXT NOT NULL,
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  PRIMARY KEY (invoice_id, position)
) STRICT, WITHOUT ROWID;

-- In how many monthly parts customers may pay by themselves, and from which sum on; 1 is not at all.
ALTER TABLE business ADD COLUMN parts_most INTEGER NOT NULL DEFAULT 1 CHECK (parts_most BETWEEN 1 AND 12);
ALTER TABLE business ADD COLUMN parts_from_minor INTEGER NOT NULL DEFAULT 20000 CHECK (parts_from_minor >= 0);
-- As it was agreed with the quote.
ALTER TABLE quotes ADD COLUMN parts INTEGER NOT NULL DEFAULT 1 CHECK (parts BETWEEN 1 AND 12);
ALTER TABLE jobs ADD COLUMN parts INTEGER NOT NULL DEFAULT 1 CHECK (parts BETWEEN 1 AND 12);
