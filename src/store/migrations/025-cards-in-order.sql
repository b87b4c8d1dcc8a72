-- Since when the owner of a card knows that it is about to expire (epoch milliseconds).
ALTER TABLE cards ADD COLUMN expiry_told INTEGER;
CREATE INDEX cards_that_expire ON cards (expires) WHERE collects = 1 AND removed_at IS NULL AND expiry_told IS NULL;
-- By which the card service knows the same card again; null where it does not say.
ALTER TABLE cards ADD COLUMN fingerprint TEXT;
-- Whether what is due of new customers is collected by itself once they have agreed; and of an invoice another card than their first.
ALTER TABLE business ADD COLUMN collect_new INTEGER NOT NULL DEFAULT 1 CHECK (collect_new IN (0, 1));
ALTER TABLE invoices ADD COLUMN collect_card_id INTEGER;
