-- What a change of a repeat is taken back to: its terms, what was agreed for single dates, and where each of its visits stood.
-- What was kept before this held the terms alone, and cannot bring the rest back.
UPDATE repeats SET terms_before = NULL;
ALTER TABLE repeats RENAME COLUMN terms_before TO before_change;
