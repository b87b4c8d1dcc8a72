-- One word for one thing: what the trade calls possible duplicates.
ALTER TABLE alike RENAME TO possible_duplicates;
DROP INDEX alike_by_other;
CREATE INDEX possible_duplicates_by_other ON possible_duplicates (other_id);

-- The books are added up each time Money is looked at: from the indexes alone.
DROP INDEX journal_by_account;
CREATE INDEX journal_by_account ON journal (account, amount_minor);
CREATE INDEX journal_by_event ON journal (event, amount_minor);
