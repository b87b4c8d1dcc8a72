-- A named piece of work: services with what is answered and added, and what its owner knows better than their sums.
CREATE TABLE job_patterns (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (trim(name) <> ''),
  items TEXT NOT NULL CHECK (json_valid(items)),
  -- For whoever does it.
  note TEXT NOT NULL DEFAULT '',
  -- Ticked off on site, beside what its services ask.
  checklist TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(checklist)),
  -- Null: as its services have it.
  minutes INTEGER CHECK (minutes BETWEEN 5 AND 1440),
  crew INTEGER CHECK (crew BETWEEN 1 AND 9),
  active INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1))
) STRICT;

-- By which pattern a job was agreed, and what that told the technician then.
ALTER TABLE job_items ADD COLUMN pattern_id INTEGER REFERENCES job_patterns (id);
ALTER TABLE jobs ADD COLUMN instructions TEXT NOT NULL DEFAULT '';

-- What is done at the dates of a repeat: its pattern in place of its items, another the first time, another every so many times.
ALTER TABLE repeats ADD COLUMN pattern_id INTEGER REFERENCES job_patterns (id);
ALTER TABLE repeats ADD COLUMN first_pattern_id INTEGER REFERENCES job_patterns (id);
ALTER TABLE repeats ADD COLUMN nth INTEGER CHECK (nth BETWEEN 2 AND 60);
ALTER TABLE repeats ADD COLUMN nth_pattern_id INTEGER REFERENCES job_patterns (id);
-- How many dates came before its start date: where it is counted from the last visit, the start moves on.
ALTER TABLE repeats ADD COLUMN dates_before INTEGER NOT NULL DEFAULT 0 CHECK (dates_before >= 0);
-- Repeats that were agreed together, for several sites of one customer, by the first of them.
ALTER TABLE repeats ADD COLUMN agreed_with_id INTEGER REFERENCES repeats (id);
CREATE INDEX repeats_agreed_with ON repeats (agreed_with_id) WHERE agreed_with_id IS NOT NULL;
-- What was changed for many at once, so that it can be taken back as one.
CREATE TABLE repeat_batches (
  id INTEGER PRIMARY KEY,
  words TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  made_by TEXT NOT NULL,
  undone_at INTEGER
) STRICT;
ALTER TABLE repeats ADD COLUMN batch_id INTEGER REFERENCES repeat_batches (id);
CREATE INDEX repeats_of_batch ON repeats (batch_id) WHERE batch_id IS NOT NULL;

-- Who of the office is on it, while it needs a person.
ALTER TABLE repeats ADD COLUMN handler_id INTEGER REFERENCES people (id);

-- For one date alone: somebody else, or other work.
ALTER TABLE repeat_exceptions ADD COLUMN technician_id INTEGER REFERENCES technicians (id);
ALTER TABLE repeat_exceptions ADD COLUMN pattern_id INTEGER REFERENCES job_patterns (id);

-- What a forecast will cost by its repeat's terms, as it was worked out when that was laid out last; null where it is not one.
ALTER TABLE visits ADD COLUMN forecast_minor INTEGER;
-- By which change of technicians' days (plan_changes) a forecast without room has last been looked for; NULL: not yet.
ALTER TABLE visits ADD COLUMN room_asked INTEGER;
-- How many days were looked at for it so far, its own first: the rest comes in the next transaction.
ALTER TABLE visits ADD COLUMN room_days INTEGER NOT NULL DEFAULT 0;

-- Until when a card can be charged: the last month, as YYYY-MM; unknown for those kept before.
ALTER TABLE cards ADD COLUMN expires TEXT CHECK (expires GLOB '[0-9][0-9][0-9][0-9]-[0-1][0-9]');

-- A date on which nobody comes may also wait for a person. A check cannot be changed: the column is made anew.
ALTER TABLE repeats ADD COLUMN closed_way TEXT NOT NULL DEFAULT 'nearest' CHECK (closed_way IN ('nearest', 'later', 'earlier', 'skip', 'ask'));
UPDATE repeats SET closed_way = on_closed;
ALTER TABLE repeats DROP COLUMN on_closed;
ALTER TABLE repeats RENAME COLUMN closed_way TO on_closed;
ALTER TABLE repeat_terms ADD COLUMN closed_way TEXT NOT NULL DEFAULT 'nearest' CHECK (closed_way IN ('nearest', 'later', 'earlier', 'skip', 'ask'));
UPDATE repeat_terms SET closed_way = on_closed;
ALTER TABLE repeat_terms DROP COLUMN on_closed;
ALTER TABLE repeat_terms RENAME COLUMN closed_way TO on_closed;
