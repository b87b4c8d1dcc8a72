-- A repeat comes by a recurrence rule of RFC 5545. "On the 31st" was the last day of a short month until now: the rule says so.
ALTER TABLE repeats ADD COLUMN rule TEXT NOT NULL DEFAULT 'FREQ=YEARLY';
UPDATE repeats SET rule = 'FREQ=' || CASE unit WHEN 'day' THEN 'DAILY' WHEN 'week' THEN 'WEEKLY' WHEN 'month' THEN 'MONTHLY' ELSE 'YEARLY' END
  || iif(until_date IS NULL, '', ';UNTIL=' || replace(until_date, '-', ''))
  || iif(every > 1, ';INTERVAL=' || every, '')
  || CASE
    WHEN unit = 'month' AND start_date LIKE '%-29' THEN ';BYMONTHDAY=28,29;BYSETPOS=-1'
    WHEN unit = 'month' AND start_date LIKE '%-30' THEN ';BYMONTHDAY=28,29,30;BYSETPOS=-1'
    WHEN unit = 'month' AND start_date LIKE '%-31' THEN ';BYMONTHDAY=28,29,30,31;BYSETPOS=-1'
    WHEN unit = 'year' AND start_date LIKE '%-02-29' THEN ';BYMONTH=2;BYMONTHDAY=28,29;BYSETPOS=-1'
    ELSE '' END;
ALTER TABLE repeats DROP COLUMN every;
ALTER TABLE repeats DROP COLUMN unit;
ALTER TABLE repeats DROP COLUMN until_date;
-- What becomes of a date on which nobody comes.
ALTER TABLE repeats ADD COLUMN on_closed TEXT NOT NULL DEFAULT 'nearest' CHECK (on_closed IN ('nearest', 'later', 'earlier', 'skip'));

-- Terms that counted for the dates up to `until_date`, before they were changed from the next one on. Those in force stand in the repeat.
CREATE TABLE repeat_terms (
  repeat_id INTEGER NOT NULL REFERENCES repeats (id),
  until_date TEXT NOT NULL,
  start_date TEXT NOT NULL,
  rule TEXT NOT NULL,
  from_minute INTEGER NOT NULL,
  to_minute INTEGER NOT NULL,
  technician_id INTEGER REFERENCES technicians (id),
  on_closed TEXT NOT NULL CHECK (on_closed IN ('nearest', 'later', 'earlier', 'skip')),
  PRIMARY KEY (repeat_id, until_date)
) STRICT, WITHOUT ROWID;

-- What was agreed for one date: it is left out, or takes place on another day, in another window, or both.
CREATE TABLE repeat_exceptions (
  repeat_id INTEGER NOT NULL REFERENCES repeats (id),
  date TEXT NOT NULL,
  skip INTEGER NOT NULL CHECK (skip IN (0, 1)),
  to_date TEXT,
  from_minute INTEGER,
  to_minute INTEGER CHECK (to_minute >= from_minute),
  PRIMARY KEY (repeat_id, date),
  CHECK (skip = 0 OR to_date IS NULL),
  CHECK ((from_minute IS NULL) = (to_minute IS NULL))
) STRICT, WITHOUT ROWID;

CREATE TABLE repeat_pauses (
  id INTEGER PRIMARY KEY,
  repeat_id INTEGER NOT NULL REFERENCES repeats (id),
  first_date TEXT NOT NULL,
  last_date TEXT NOT NULL CHECK (last_date >= first_date)
) STRICT;
CREATE INDEX repeat_pauses_of ON repeat_pauses (repeat_id);

-- All terms as they were before the last change, so that it can be taken back; null where there is nothing to take back.
ALTER TABLE repeats ADD COLUMN terms_before TEXT CHECK (json_valid(terms_before));

-- All are laid out anew, for the year ahead.
UPDATE repeats SET grow_on = NULL;
