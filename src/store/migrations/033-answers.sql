-- The other visits that a message asks about: an answer is about all of them.
ALTER TABLE messages ADD COLUMN also_visits TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(also_visits));
-- Words by which customers say that they are in danger, by language; null: those that ship.
ALTER TABLE business ADD COLUMN danger_words TEXT CHECK (json_valid(danger_words));
-- Visits that wait to be settled, however long ago they were.
CREATE INDEX visits_by_state ON visits (state, date);
-- A change of a visit is told at night too, where the visit begins within so many minutes after the allowed hours do.
ALTER TABLE business ADD COLUMN urgent_minutes INTEGER NOT NULL DEFAULT 180 CHECK (urgent_minutes BETWEEN 0 AND 2880);
