-- The windows engine at full strength: patterns, capacity, limits, hours of single days, errands,
-- who serves which zone and service, work of several days, exact times.

-- ---------------------------------------------------------------- rules

ALTER TABLE business ADD COLUMN capacity TEXT NOT NULL DEFAULT 'route' CHECK (capacity IN ('route', 'count', 'open', 'ask'));
-- How much room forecasts keep from new bookings: all, that of every other one, none.
ALTER TABLE business ADD COLUMN forecast_room TEXT NOT NULL DEFAULT 'full' CHECK (forecast_room IN ('full', 'half', 'none'));
-- For estimates where no roads are known: how much longer than the straight line, and how fast.
ALTER TABLE business ADD COLUMN winding_percent INTEGER NOT NULL DEFAULT 135 CHECK (winding_percent BETWEEN 100 AND 400);
ALTER TABLE business ADD COLUMN kmh INTEGER NOT NULL DEFAULT 35 CHECK (kmh BETWEEN 5 AND 130);
ALTER TABLE zones ADD COLUMN winding_percent INTEGER CHECK (winding_percent BETWEEN 100 AND 400);
ALTER TABLE zones ADD COLUMN kmh INTEGER CHECK (kmh BETWEEN 5 AND 130);

CREATE TABLE patterns (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(name) > 0)
) STRICT;
INSERT INTO patterns (id, name) VALUES (1, 'Our windows');

-- Minutes of the day. A window lasts from one to the other; stepping ones of some length begin every
-- step; exact times come every step; continuous ones as soon as somebody can be there.
CREATE TABLE pattern_parts (
  pattern_id INTEGER NOT NULL REFERENCES patterns (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('window', 'stepping', 'exact', 'continuous')),
  weekdays INTEGER NOT NULL CHECK (weekdays BETWEEN 1 AND 127),
  from_minute INTEGER NOT NULL CHECK (from_minute BETWEEN 0 AND 1439),
  to_minute INTEGER NOT NULL CHECK (to_minute > from_minute AND to_minute <= 1440),
  length INTEGER CHECK (length BETWEEN 5 AND 1440),
  step INTEGER CHECK (step BETWEEN 5 AND 1440),
  PRIMARY KEY (pattern_id, position),
  CHECK ((kind = 'stepping') = (length IS NOT NULL)),
  CHECK ((kind IN ('stepping', 'exact')) = (step IS NOT NULL))
) STRICT, WITHOUT ROWID;
INSERT INTO pattern_parts (pattern_id, position, kind, weekdays, from_minute, to_minute)
  SELECT 1, row_number() OVER (ORDER BY from_minute, to_minute, id) - 1, 'window', weekdays, from_minute, to_minute FROM windows;
DROP TABLE windows;

ALTER TABLE services ADD COLUMN pattern_id INTEGER REFERENCES patterns (id);
ALTER TABLE services ADD COLUMN capacity TEXT CHECK (capacity IN ('route', 'count', 'open', 'ask'));
ALTER TABLE services ADD COLUMN notice_minutes INTEGER NOT NULL DEFAULT 0 CHECK (notice_minutes >= 0);
ALTER TABLE services ADD COLUMN days INTEGER NOT NULL DEFAULT 1 CHECK (days BETWEEN 1 AND 10);
-- Whether customers may wish for a technician.
ALTER TABLE services ADD COLUMN wish TEXT NOT NULL DEFAULT 'none' CHECK (wish IN ('none', 'preferred', 'only'));

CREATE TABLE service_hours (
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= 1440),
  PRIMARY KEY (service_id, weekday, opens)
) STRICT, WITHOUT ROWID;

-- No rows: everybody with the skills. Rows: only those named.
CREATE TABLE service_technicians (
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  PRIMARY KEY (service_id, technician_id)
) STRICT, WITHOUT ROWID;
CREATE TABLE zone_technicians (
  zone_id INTEGER NOT NULL REFERENCES zones (id) ON DELETE CASCADE,
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  PRIMARY KEY (zone_id, technician_id)
) STRICT, WITHOUT ROWID;

ALTER TABLE service_skills ADD COLUMN level INTEGER NOT NULL DEFAULT 1 CHECK (level BETWEEN 1 AND 3);

-- At most so many visits. The business's own have subject 0.
CREATE TABLE limits (
  scope TEXT NOT NULL CHECK (scope IN ('business', 'zone', 'service', 'technician')),
  subject_id INTEGER NOT NULL,
  per TEXT NOT NULL CHECK (per IN ('window', 'day', 'week')),
  most INTEGER NOT NULL CHECK (most >= 0),
  PRIMARY KEY (scope, subject_id, per),
  CHECK ((scope = 'business') = (subject_id = 0))
) STRICT, WITHOUT ROWID;

-- ---------------------------------------------------------------- technicians' days

-- Hours of a single date, in place of the week's.
CREATE TABLE day_hours (
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  date TEXT NOT NULL,
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= 1440),
  PRIMARY KEY (technician_id, date, opens)
) STRICT, WITHOUT ROWID;

-- Whole days where null; otherwise these minutes of each day.
ALTER TABLE time_off ADD COLUMN from_minute INTEGER CHECK (from_minute BETWEEN 0 AND 1439);
ALTER TABLE time_off ADD COLUMN to_minute INTEGER CHECK (to_minute > from_minute AND to_minute <= 1440);

-- A blocked time, in epoch minutes, with or without a place to be at.
CREATE TABLE errands (
  id INTEGER PRIMARY KEY,
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  date TEXT NOT NULL,
  begins INTEGER NOT NULL,
  ends INTEGER NOT NULL CHECK (ends > begins),
  title TEXT NOT NULL CHECK (length(title) > 0),
  place TEXT NOT NULL,
  lng REAL,
  lat REAL,
  CHECK ((lng IS NULL) = (lat IS NULL))
) STRICT;
CREATE INDEX errands_of_day ON errands (date, technician_id);

-- ---------------------------------------------------------------- visits: exact times, work of several days

CREATE TABLE visits_new (
  id INTEGER PRIMARY KEY,
  state TEXT NOT NULL CHECK (state IN ('held', 'forecast', 'promised', 'on the way', 'on site', 'done', 'no access', 'cancelled')),
  job_id INTEGER REFERENCES jobs (id),
  repeat_id INTEGER REFERENCES repeats (id),
  repeat_date TEXT,
  -- The first day of work of several days; null where this is it.
  first_visit_id INTEGER REFERENCES visits (id),
  service_id INTEGER NOT NULL REFERENCES services (id),
  zone_id INTEGER REFERENCES zones (id),
  date TEXT NOT NULL,
  window_from INTEGER NOT NULL,
  -- The same as the beginning where an exact time is promised.
  window_to INTEGER NOT NULL CHECK (window_to >= window_from),
  minutes INTEGER NOT NULL CHECK (minutes > 0),
  before_minutes INTEGER NOT NULL CHECK (before_minutes >= 0),
  after_minutes INTEGER NOT NULL CHECK (after_minutes >= 0),
  crew INTEGER NOT NULL CHECK (crew > 0),
  -- The common start of a crew of several, fixed when it is placed.
  meet_at INTEGER,
  lng REAL NOT NULL,
  lat REAL NOT NULL,
  held_until INTEGER,
  hold_key TEXT UNIQUE,
  started_at INTEGER,
  ended_at INTEGER,
  UNIQUE (repeat_id, repeat_date),
  CHECK (job_id IS NOT NULL OR state IN ('held', 'forecast', 'cancelled')),
  CHECK ((state = 'held') = (held_until IS NOT NULL)),
  CHECK (state <> 'forecast' OR repeat_id IS NOT NULL)
) STRICT;
INSERT INTO visits_new
  SELECT id, state, job_id, repeat_id, repeat_date, NULL, service_id, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, meet_at, lng, lat, held_until, hold_key, started_at, ended_at FROM visits;
DROP TABLE visits;
ALTER TABLE visits_new RENAME TO visits;
CREATE INDEX visits_by_date ON visits (date);
CREATE INDEX visits_of_job ON visits (job_id);
CREATE INDEX visits_held ON visits (held_until) WHERE state = 'held';
CREATE INDEX visits_after_first ON visits (first_visit_id) WHERE first_visit_id IS NOT NULL;

-- ---------------------------------------------------------------- what changed in whose day

-- For caches of prepared days: the number of the last change to a technician's day. A date of ''
-- stands for all of a technician's days, technician 0 for everybody's. Written by triggers
-- (store/plan-changes.ts); derived, never shown.
CREATE TABLE plan_changes (
  technician_id INTEGER NOT NULL,
  date TEXT NOT NULL,
  version INTEGER NOT NULL,
  PRIMARY KEY (technician_id, date)
) STRICT, WITHOUT ROWID;
CREATE INDEX plan_changes_by_version ON plan_changes (version);
