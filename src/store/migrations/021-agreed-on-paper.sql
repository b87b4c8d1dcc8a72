-- What is agreed on paper: quotes to choose from and to sign, words of the owner's, late fees and tips.

-- What there is to choose from, all of it, the first as the quote stands: [{ "name", "items", "lines", "minutes", "crew",
-- "depositMinor" }]; none where there is no choice. The one that was chosen is copied into the quote.
ALTER TABLE quotes ADD COLUMN options TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(options));
ALTER TABLE quotes ADD COLUMN chosen TEXT NOT NULL DEFAULT '';
-- Whether its customer signs it; by what name, and with what drawing (a PNG as a data: address).
ALTER TABLE quotes ADD COLUMN signs INTEGER NOT NULL DEFAULT 0 CHECK (signs IN (0, 1));
ALTER TABLE quotes ADD COLUMN signed_by TEXT NOT NULL DEFAULT '';
ALTER TABLE quotes ADD COLUMN signature TEXT CHECK (signature LIKE 'data:image/png;base64,%');
-- The words below it as they stood when it was sent.
ALTER TABLE quotes ADD COLUMN terms TEXT NOT NULL DEFAULT '';
UPDATE quotes SET terms = coalesce((SELECT terms FROM business), '');
-- Days after it was sent on which somebody who has not answered is asked again.
ALTER TABLE business ADD COLUMN quote_follow_ups TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(quote_follow_ups));
ALTER TABLE quotes ADD COLUMN follow_up_on TEXT;
CREATE INDEX quotes_to_follow_up ON quotes (follow_up_on) WHERE follow_up_on IS NOT NULL;

-- Words on papers: of a kind of paper, above or below its lines, with a service or with all.
CREATE TABLE text_blocks (
  id INTEGER PRIMARY KEY,
  paper TEXT NOT NULL CHECK (paper IN ('invoice', 'quote', 'credit note', 'receipt', 'statement')),
  place TEXT NOT NULL CHECK (place IN ('before', 'after')),
  service_id INTEGER REFERENCES services (id),
  words TEXT NOT NULL CHECK (trim(words) <> '')
) STRICT;
ALTER TABLE credit_notes ADD COLUMN after_text TEXT NOT NULL DEFAULT '';
CREATE INDEX text_blocks_of_service ON text_blocks (service_id) WHERE service_id IS NOT NULL;

-- So many days after it was due, an invoice costs more: a sum, a share of what is open, or both. No days: never.
ALTER TABLE business ADD COLUMN late_fee_days INTEGER CHECK (late_fee_days > 0);
ALTER TABLE business ADD COLUMN late_fee_minor INTEGER NOT NULL DEFAULT 0 CHECK (late_fee_minor >= 0);
ALTER TABLE business ADD COLUMN late_fee_bp INTEGER NOT NULL DEFAULT 0 CHECK (late_fee_bp BETWEEN 0 AND 10000);
-- When that is looked at; why it was waived; and the invoice for whose lateness a fee is.
ALTER TABLE invoices ADD COLUMN late_fee_on TEXT;
ALTER TABLE invoices ADD COLUMN late_fee_waived TEXT NOT NULL DEFAULT '';
ALTER TABLE invoices ADD COLUMN fee_of_id INTEGER REFERENCES invoices (id);
CREATE INDEX invoices_to_charge_late ON invoices (late_fee_on) WHERE late_fee_on IS NOT NULL;
CREATE UNIQUE INDEX invoices_late_fee_once ON invoices (fee_of_id) WHERE fee_of_id IS NOT NULL;

-- What a customer gives beside what is due, for whoever came.
ALTER TABLE business ADD COLUMN tips INTEGER NOT NULL DEFAULT 0 CHECK (tips IN (0, 1));
ALTER TABLE payments ADD COLUMN tip_minor INTEGER NOT NULL DEFAULT 0 CHECK (tip_minor >= 0);
ALTER TABLE payments ADD COLUMN tip_for_id INTEGER REFERENCES technicians (id);

-- Whoever hands over signs for it.
ALTER TABLE handovers ADD COLUMN signature TEXT CHECK (signature LIKE 'data:image/png;base64,%');

-- What a card reader at the door waits for. It ends with a charge, or when nobody holds a card to it.
CREATE TABLE reader_asks (
  key TEXT PRIMARY KEY,
  visit_id INTEGER NOT NULL REFERENCES visits (id),
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  tip_minor INTEGER NOT NULL CHECK (tip_minor >= 0),
  asked_at INTEGER NOT NULL,
  ended_at INTEGER,
  payment_id INTEGER REFERENCES payments (id)
) STRICT, WITHOUT ROWID;
CREATE INDEX reader_asks_of_visit ON reader_asks (visit_id);
CREATE INDEX reader_asks_waiting ON reader_asks (technician_id) WHERE ended_at IS NULL;
