-- Work from afar: a call, for which nobody drives. SQLite cannot widen a CHECK, so the columns are made anew.
ALTER TABLE services ADD COLUMN done_where TEXT NOT NULL DEFAULT 'site' CHECK (done_where IN ('site', 'ours', 'afar'));
UPDATE services SET done_where = work_place WHERE work_place <> 'site';
ALTER TABLE services DROP COLUMN work_place;
ALTER TABLE services RENAME COLUMN done_where TO work_place;
-- As it was agreed: a later change of the service does not touch it. `lng` and `lat` say where the technician has to be; from
-- afar that is wherever they are.
ALTER TABLE visits ADD COLUMN done_where TEXT NOT NULL DEFAULT 'site' CHECK (done_where IN ('site', 'ours', 'afar'));
UPDATE visits SET done_where = work_place WHERE work_place <> 'site';
ALTER TABLE visits DROP COLUMN work_place;
ALTER TABLE visits RENAME COLUMN done_where TO work_place;

-- A time with several seats: so many customers at once, each with a booking of their own. 0: every customer has a time of their own.
ALTER TABLE services ADD COLUMN seats INTEGER NOT NULL DEFAULT 0 CHECK (seats = 0 OR seats BETWEEN 2 AND 500);
CREATE TABLE shared_times (
  id INTEGER PRIMARY KEY,
  service_id INTEGER NOT NULL REFERENCES services (id)
) STRICT;
-- How many seats this booking takes, and the time it shares.
ALTER TABLE visits ADD COLUMN seats INTEGER NOT NULL DEFAULT 0 CHECK (seats >= 0);
ALTER TABLE visits ADD COLUMN shared_id INTEGER REFERENCES shared_times (id);
CREATE INDEX visits_sharing ON visits (shared_id) WHERE shared_id IS NOT NULL;
CREATE INDEX visits_shared_times ON visits (service_id, date) WHERE shared_id IS NOT NULL;
CREATE TRIGGER visits_seats_are_sold_once BEFORE UPDATE OF shared_id ON visits
WHEN NEW.shared_id IS NOT NULL AND NEW.shared_id IS NOT OLD.shared_id
  AND (SELECT sum(seats) FROM visits WHERE shared_id = NEW.shared_id AND id <> NEW.id AND state <> 'cancelled') + NEW.seats
    > (SELECT seats FROM services WHERE id = NEW.service_id)
BEGIN
  SELECT RAISE(ABORT, 'a seat is taken once');
END;

-- Beside a call, only the work itself may not overlap: driving pauses for it. Whoever shares a time is there together.
DROP TRIGGER placements_never_overlap;
CREATE TRIGGER placements_never_overlap BEFORE INSERT ON placements
WHEN NEW.settled = 0 AND EXISTS (
  SELECT 1 FROM placements p JOIN visits v ON v.id = p.visit_id JOIN visits n ON n.id = NEW.visit_id
  WHERE p.technician_id = NEW.technician_id AND p.date = NEW.date AND p.settled = 0
    AND (v.shared_id IS NULL OR v.shared_id IS NOT n.shared_id)
    AND iif(v.work_place = 'afar' OR n.work_place = 'afar', p.arrives, p.drive_from) < NEW.leaves
    AND p.leaves > iif(v.work_place = 'afar' OR n.work_place = 'afar', NEW.arrives, NEW.drive_from)
)
BEGIN
  SELECT RAISE(ABORT, 'a technician cannot be in two places');
END;

-- A course begins once a day: the first exact time may be the last.
CREATE TABLE pattern_parts_new (
  pattern_id INTEGER NOT NULL REFERENCES patterns (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('window', 'stepping', 'exact', 'continuous')),
  weekdays INTEGER NOT NULL CHECK (weekdays BETWEEN 1 AND 127),
  from_minute INTEGER NOT NULL CHECK (from_minute BETWEEN 0 AND 1439),
  to_minute INTEGER NOT NULL CHECK (to_minute BETWEEN from_minute + (kind <> 'exact') AND 1440),
  length INTEGER CHECK (length BETWEEN 5 AND 1440),
  step INTEGER CHECK (step BETWEEN 5 AND 1440),
  PRIMARY KEY (pattern_id, position),
  CHECK ((kind = 'stepping') = (length IS NOT NULL)),
  CHECK ((kind IN ('stepping', 'exact')) = (step IS NOT NULL))
) STRICT, WITHOUT ROWID;
INSERT INTO pattern_parts_new SELECT * FROM pattern_parts;
DROP TABLE pattern_parts;
ALTER TABLE pattern_parts_new RENAME TO pattern_parts;
