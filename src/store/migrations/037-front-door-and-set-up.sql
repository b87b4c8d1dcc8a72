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

-- Spans and windows may end after midnight: minutes beyond 1440 are of the night that follows.
CREATE TABLE working_spans_new (
  technician_id INTEGER NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= opens + 1440),
  PRIMARY KEY (technician_id, weekday, opens)
) STRICT, WITHOUT ROWID;
INSERT INTO working_spans_new SELECT * FROM working_spans;
DROP TABLE working_spans;
ALTER TABLE working_spans_new RENAME TO working_spans;

CREATE TABLE service_hours_new (
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= opens + 1440),
  PRIMARY KEY (service_id, weekday, opens)
) STRICT, WITHOUT ROWID;
INSERT INTO service_hours_new SELECT * FROM service_hours;
DROP TABLE service_hours;
ALTER TABLE service_hours_new RENAME TO service_hours;

CREATE TABLE day_hours_new (
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  date TEXT NOT NULL,
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= opens + 1440),
  PRIMARY KEY (technician_id, date, opens)
) STRICT, WITHOUT ROWID;
INSERT INTO day_hours_new SELECT * FROM day_hours;
DROP TABLE day_hours;
ALTER TABLE day_hours_new RENAME TO day_hours;

CREATE TABLE opening_hours_new (
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= opens + 1440),
  PRIMARY KEY (weekday, opens)
) STRICT, WITHOUT ROWID;
INSERT INTO opening_hours_new SELECT * FROM opening_hours;
DROP TABLE opening_hours;
ALTER TABLE opening_hours_new RENAME TO opening_hours;

CREATE TABLE pattern_parts_new (
  pattern_id INTEGER NOT NULL REFERENCES patterns (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('window', 'stepping', 'exact', 'continuous')),
  weekdays INTEGER NOT NULL CHECK (weekdays BETWEEN 1 AND 127),
  from_minute INTEGER NOT NULL CHECK (from_minute BETWEEN 0 AND 1439),
  to_minute INTEGER NOT NULL CHECK (to_minute BETWEEN from_minute + (kind <> 'exact') AND from_minute + 1440),
  length INTEGER CHECK (length BETWEEN 5 AND 1440),
  step INTEGER CHECK (step BETWEEN 5 AND 1440),
  PRIMARY KEY (pattern_id, position),
  CHECK ((kind = 'stepping') = (length IS NOT NULL)),
  CHECK ((kind IN ('stepping', 'exact')) = (step IS NOT NULL))
) STRICT, WITHOUT ROWID;
INSERT INTO pattern_parts_new SELECT * FROM pattern_parts;
DROP TABLE pattern_parts;
ALTER TABLE pattern_parts_new RENAME TO pattern_parts;

-- A zone that is served past midnight: so many minutes after it; serve_to is the end of the day then.
ALTER TABLE zones ADD COLUMN serve_past INTEGER NOT NULL DEFAULT 0 CHECK (serve_past = 0 OR (serve_to = 1440 AND serve_past BETWEEN 1 AND serve_from));
