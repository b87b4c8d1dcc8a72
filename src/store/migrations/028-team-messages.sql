-- When our own people get their lists and summaries (minutes of the day).
ALTER TABLE business ADD COLUMN evening_at INTEGER NOT NULL DEFAULT 1080 CHECK (evening_at BETWEEN 0 AND 1439);
ALTER TABLE business ADD COLUMN morning_at INTEGER NOT NULL DEFAULT 390 CHECK (morning_at BETWEEN 0 AND 1439);
-- A technician's day as they know it: the stops they were told of, and when.
CREATE TABLE told_days (
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  date TEXT NOT NULL,
  stops TEXT NOT NULL CHECK (json_valid(stops)),
  told_at INTEGER NOT NULL,
  PRIMARY KEY (technician_id, date)
) STRICT;
