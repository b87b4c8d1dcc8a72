-- Invoices as papers: how they are numbered and when they are due, whom they are for, and bills by period.

-- What stands before the year in a number.
ALTER TABLE business ADD COLUMN invoice_prefix TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN credit_prefix TEXT NOT NULL DEFAULT 'C-';
ALTER TABLE business ADD COLUMN bank_account TEXT NOT NULL DEFAULT '';
-- The sentence on an invoice to somebody who pays no tax.
ALTER TABLE business ADD COLUMN exempt_words TEXT NOT NULL DEFAULT '';
-- From when the days are counted in which an invoice is due.
ALTER TABLE business ADD COLUMN payment_from TEXT NOT NULL DEFAULT 'invoice' CHECK (payment_from IN ('invoice', 'end of month'));
ALTER TABLE customers ADD COLUMN payment_from TEXT NOT NULL DEFAULT 'invoice' CHECK (payment_from IN ('invoice', 'end of month'));
-- By job, as soon as it is done; all of a month on one invoice; or when somebody makes it. NULL: as the business.
ALTER TABLE business ADD COLUMN billing TEXT NOT NULL DEFAULT 'job' CHECK (billing IN ('job', 'month', 'hand'));
ALTER TABLE customers ADD COLUMN billing TEXT CHECK (billing IN ('job', 'month', 'hand'));
-- Since when work that is done waits for its invoice.
ALTER TABLE jobs ADD COLUMN to_bill TEXT;
CREATE INDEX jobs_to_bill ON jobs (to_bill, customer_id) WHERE to_bill IS NOT NULL;
ALTER TABLE customers ADD COLUMN tax_kind TEXT NOT NULL DEFAULT 'standard' CHECK (tax_kind IN ('standard', 'reverse charge', 'exempt'));
ALTER TABLE customers ADD COLUMN tax_number TEXT NOT NULL DEFAULT '';

-- Which month or year of a flat price stands on which invoice: once.
CREATE TABLE repeat_bills (
  repeat_id INTEGER NOT NULL REFERENCES repeats (id),
  -- The first day of the month, or of the year of the agreement.
  period TEXT NOT NULL,
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  PRIMARY KEY (repeat_id, period)
) STRICT, WITHOUT ROWID;
CREATE INDEX repeat_bills_of_invoice ON repeat_bills (invoice_id);
-- The next month or year of a flat price to be billed; what was agreed before this was counted begins with the next month.
ALTER TABLE repeats ADD COLUMN bill_from TEXT;
UPDATE repeats SET bill_from = date('now', 'start of month', '+1 month') WHERE price_per IN ('month', 'year');
CREATE INDEX repeats_to_bill ON repeats (bill_from) WHERE bill_from IS NOT NULL AND state = 'active';

-- A message about an invoice carries the link of the invoice.
ALTER TABLE messages ADD COLUMN invoice_id INTEGER REFERENCES invoices (id);

-- The owner's own number of an account, for whoever keeps the books elsewhere.
CREATE TABLE account_numbers (
  account TEXT PRIMARY KEY CHECK (account IN ('receivable', 'deposits', 'credit', 'refunds', 'card', 'bank', 'cash', 'cash out', 'sales', 'tax', 'tips', 'write-offs', 'gateway fees', 'on the way', 'disputed')),
  number TEXT NOT NULL CHECK (trim(number) <> '')
) STRICT, WITHOUT ROWID;
