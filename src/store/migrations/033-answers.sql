-- The other visits that a message asks about: an answer is about all of them.
ALTER TABLE messages ADD COLUMN also_visits TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(also_visits));
-- Words by which customers say that they are in danger, by language; null: those that ship.
ALTER TABLE business ADD COLUMN danger_words TEXT CHECK (json_valid(danger_words));
-- Visits that wait to be settled, however long ago they were.
CREATE INDEX visits_by_state ON visits (state, date);
