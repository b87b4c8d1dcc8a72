-- Set-up to the full: who the business is and when it is open, what its people cost and may do, how
-- services are shown and on what terms, zones on a map, pictures.

-- ---------------------------------------------------------------- pictures

-- Resized and stripped of all data but the picture itself; found by a token that cannot be guessed.
CREATE TABLE images (
  token TEXT PRIMARY KEY,
  purpose TEXT NOT NULL CHECK (purpose IN ('mark', 'technician', 'service', 'answer')),
  mime TEXT NOT NULL CHECK (mime IN ('image/png', 'image/jpeg')),
  width INTEGER NOT NULL CHECK (width > 0),
  height INTEGER NOT NULL CHECK (height > 0),
  bytes BLOB NOT NULL,
  made_at INTEGER NOT NULL
) STRICT;

-- ---------------------------------------------------------------- the business

ALTER TABLE business ADD COLUMN address TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN site TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN registration TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN tax_number TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN mark TEXT REFERENCES images (token);
-- 0 is Monday.
ALTER TABLE business ADD COLUMN week_start INTEGER NOT NULL DEFAULT 0 CHECK (week_start BETWEEN 0 AND 6);
ALTER TABLE business ADD COLUMN clock_hours INTEGER NOT NULL DEFAULT 24 CHECK (clock_hours IN (12, 24));
-- Texts for documents and the front door.
ALTER TABLE business ADD COLUMN terms TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN quote_text TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN invoice_text TEXT NOT NULL DEFAULT '';
-- What happens with addresses in no zone: a kind refusal, or a request that a person answers.
ALTER TABLE business ADD COLUMN outside TEXT NOT NULL DEFAULT 'refuse' CHECK (outside IN ('refuse', 'request'));
-- Who handles incoming; null is whoever may.
ALTER TABLE business ADD COLUMN incoming_person_id INTEGER REFERENCES people (id);

CREATE TABLE tax_rates (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(name) > 0),
  rate_bp INTEGER NOT NULL CHECK (rate_bp BETWEEN 0 AND 10000),
  position INTEGER NOT NULL
) STRICT;
INSERT INTO tax_rates (name, rate_bp, position)
  SELECT printf('%g%%', tax_bp / 100.0), tax_bp, row_number() OVER (ORDER BY count(*) DESC) - 1 FROM services GROUP BY tax_bp;

-- No rows: open whenever somebody works.
CREATE TABLE opening_hours (
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= 1440),
  PRIMARY KEY (weekday, opens)
) STRICT, WITHOUT ROWID;

-- Days with other hours, or closed where there are no spans: [[540, 720]]. Yearly ones ignore the year.
CREATE TABLE special_days (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL CHECK (length(name) > 0),
  first_date TEXT NOT NULL,
  last_date TEXT NOT NULL CHECK (last_date >= first_date),
  yearly INTEGER NOT NULL CHECK (yearly IN (0, 1)),
  spans TEXT NOT NULL CHECK (json_valid(spans)),
  UNIQUE (name, first_date)
) STRICT;
INSERT INTO special_days (name, first_date, last_date, yearly, spans) SELECT reason, date, date, 0, '[]' FROM closed_days;
DROP TABLE closed_days;

-- ---------------------------------------------------------------- the team

ALTER TABLE technicians ADD COLUMN kind TEXT NOT NULL DEFAULT 'employee' CHECK (kind IN ('employee', 'subcontractor'));
ALTER TABLE technicians ADD COLUMN mail TEXT NOT NULL DEFAULT '';
ALTER TABLE technicians ADD COLUMN photo TEXT REFERENCES images (token);
ALTER TABLE technicians ADD COLUMN hue INTEGER NOT NULL DEFAULT 0 CHECK (hue BETWEEN 0 AND 7);
UPDATE technicians SET hue = position % 8;
ALTER TABLE technicians ADD COLUMN start_line TEXT NOT NULL DEFAULT '';
ALTER TABLE technicians ADD COLUMN end_line TEXT NOT NULL DEFAULT '';
-- Whether customers may be offered them; the office can always place.
ALTER TABLE technicians ADD COLUMN offered INTEGER NOT NULL DEFAULT 1 CHECK (offered IN (0, 1));
-- Most minutes of work on one day; null is no limit.
ALTER TABLE technicians ADD COLUMN most_minutes INTEGER CHECK (most_minutes > 0);
-- By the hour, or a salary for a month of so many hours; the employer adds so much on top.
ALTER TABLE technicians ADD COLUMN pay_kind TEXT NOT NULL DEFAULT 'none' CHECK (pay_kind IN ('none', 'hourly', 'salary'));
ALTER TABLE technicians ADD COLUMN pay_minor INTEGER NOT NULL DEFAULT 0 CHECK (pay_minor >= 0);
ALTER TABLE technicians ADD COLUMN pay_hours INTEGER NOT NULL DEFAULT 160 CHECK (pay_hours > 0);
ALTER TABLE technicians ADD COLUMN employer_bp INTEGER NOT NULL DEFAULT 0 CHECK (employer_bp >= 0);

-- No rows: everywhere, everything. Rows: only there, only those.
CREATE TABLE technician_zones (
  technician_id INTEGER NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  zone_id INTEGER NOT NULL REFERENCES zones (id) ON DELETE CASCADE,
  PRIMARY KEY (technician_id, zone_id)
) STRICT, WITHOUT ROWID;
CREATE TABLE technician_services (
  technician_id INTEGER NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  PRIMARY KEY (technician_id, service_id)
) STRICT, WITHOUT ROWID;

-- What somebody may do beyond the role, and what the role allows but this person not: lists of permissions.
ALTER TABLE people ADD COLUMN given TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(given));
ALTER TABLE people ADD COLUMN taken TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(taken));

-- ---------------------------------------------------------------- services

CREATE TABLE categories (
  name TEXT PRIMARY KEY COLLATE NOCASE CHECK (length(name) > 0),
  position INTEGER NOT NULL,
  hue INTEGER NOT NULL CHECK (hue BETWEEN 0 AND 7)
) STRICT, WITHOUT ROWID;
INSERT INTO categories SELECT category, row_number() OVER (ORDER BY category) - 1, min(hue) FROM services GROUP BY category COLLATE NOCASE;

ALTER TABLE services ADD COLUMN picture TEXT REFERENCES images (token);
-- A price, a price to begin from, or one that is told after we have seen it.
ALTER TABLE services ADD COLUMN price_kind TEXT NOT NULL DEFAULT 'fixed' CHECK (price_kind IN ('fixed', 'from', 'quote'));
ALTER TABLE services ADD COLUMN shows_price INTEGER NOT NULL DEFAULT 1 CHECK (shows_price IN (0, 1));
ALTER TABLE services ADD COLUMN shows_minutes INTEGER NOT NULL DEFAULT 1 CHECK (shows_minutes IN (0, 1));
ALTER TABLE services ADD COLUMN may_pay_all INTEGER NOT NULL DEFAULT 0 CHECK (may_pay_all IN (0, 1));
-- Cancelled later than so many hours before the window, this is asked.
ALTER TABLE services ADD COLUMN late_hours INTEGER NOT NULL DEFAULT 24 CHECK (late_hours >= 0);
ALTER TABLE services ADD COLUMN late_fee_kind TEXT NOT NULL DEFAULT 'none' CHECK (late_fee_kind IN ('none', 'percent', 'fixed'));
ALTER TABLE services ADD COLUMN late_fee_value INTEGER NOT NULL DEFAULT 0 CHECK (late_fee_value >= 0);
ALTER TABLE services ADD COLUMN no_access_minor INTEGER NOT NULL DEFAULT 0 CHECK (no_access_minor >= 0);
-- Not shown at the front door, but bookable by its own link and by the office.
ALTER TABLE services ADD COLUMN hidden INTEGER NOT NULL DEFAULT 0 CHECK (hidden IN (0, 1));
ALTER TABLE services ADD COLUMN slug TEXT;
CREATE UNIQUE INDEX services_by_slug ON services (slug) WHERE slug IS NOT NULL;
-- What is ticked off on site: [{ "id", "words", "required" }].
ALTER TABLE services ADD COLUMN checklist TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(checklist));
ALTER TABLE services ADD COLUMN position INTEGER NOT NULL DEFAULT 0;
UPDATE services SET position = (SELECT count(*) FROM services o WHERE o.category = services.category AND o.name < services.name);

-- A visit's list, as it was agreed, and what of it is done: [{ "id", "words", "required", "done" }].
ALTER TABLE visits ADD COLUMN checklist TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(checklist));

-- ---------------------------------------------------------------- zones

-- Of zones that overlap, the one with the highest priority; then the one that names the address most exactly.
ALTER TABLE zones ADD COLUMN priority INTEGER NOT NULL DEFAULT 0 CHECK (priority BETWEEN -100 AND 100);
-- Polygon or MultiPolygon (RFC 7946); null where the zone goes by postcodes and towns alone.
ALTER TABLE zones ADD COLUMN area TEXT CHECK (json_valid(area));
ALTER TABLE zones ADD COLUMN towns TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(towns));
-- Minutes on top of the drive into the zone and out of it, such as a ferry.
ALTER TABLE zones ADD COLUMN extra_minutes INTEGER NOT NULL DEFAULT 0 CHECK (extra_minutes BETWEEN 0 AND 240);

-- Somebody asks for a visit that cannot be booked as it stands; a person answers.
CREATE TABLE requests (
  id INTEGER PRIMARY KEY,
  made_at INTEGER NOT NULL,
  about TEXT NOT NULL CHECK (about IN ('outside our zones', 'no window suits', 'a time to be agreed')),
  service_id INTEGER REFERENCES services (id),
  address TEXT NOT NULL,
  lng REAL,
  lat REAL,
  name TEXT NOT NULL,
  mail TEXT NOT NULL,
  phone TEXT NOT NULL,
  wishes TEXT NOT NULL,
  answered_at INTEGER
) STRICT;
