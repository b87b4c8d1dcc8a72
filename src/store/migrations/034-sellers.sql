-- The business as it stood on an invoice or credit note when that was made: what was sent does not change with it.
CREATE TABLE sellers (
  id INTEGER PRIMARY KEY,
  -- What was printed of it, and how it wrote its prices.
  told TEXT NOT NULL UNIQUE CHECK (json_valid(told))
) STRICT;
ALTER TABLE invoices ADD COLUMN seller_id INTEGER REFERENCES sellers (id);
ALTER TABLE credit_notes ADD COLUMN seller_id INTEGER REFERENCES sellers (id);
INSERT INTO sellers (told)
  SELECT json_object('name', name, 'address', address, 'taxNumber', tax_number, 'registration', registration,
      'bankAccount', bank_account, 'mail', mail, 'phone', phone, 'site', site, 'mark', mark, 'pricesIncludeTax', prices_include_tax)
    FROM business;
UPDATE invoices SET seller_id = (SELECT id FROM sellers);
UPDATE credit_notes SET seller_id = (SELECT id FROM sellers);
-- The words of an event may be about somebody who is erased; what it says of money is never changed.
DROP TRIGGER ledger_events_are_never_changed;
CREATE TRIGGER ledger_events_are_never_changed BEFORE UPDATE OF id, key, kind, at, reverses_id ON ledger_events
  BEGIN SELECT RAISE(ABORT, 'the ledger is only added to'); END;
