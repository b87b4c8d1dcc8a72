-- Whether its customer had confirmed a window when that was given up: a move that is taken back at once gives it back.
ALTER TABLE promises ADD COLUMN confirmed_at INTEGER;

-- Promised visits that a change of set-up has made such that they cannot be kept as they are, until somebody has settled them.
CREATE TABLE unkept_promises (
  visit_id INTEGER PRIMARY KEY REFERENCES visits (id) ON DELETE CASCADE,
  -- Since when, epoch milliseconds.
  since INTEGER NOT NULL,
  -- A person keeps it all the same.
  kept INTEGER NOT NULL DEFAULT 0 CHECK (kept IN (0, 1))
) STRICT;

-- Zones have changed: the site up to which customers' zones are looked at anew; null where all are.
ALTER TABLE business ADD COLUMN zoned_to INTEGER;
