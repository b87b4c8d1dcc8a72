-- Questions and extras: what an answer changes of price, minutes, skills, crew and parts.

-- A list of questions as core/catalogue/questions.ts has them; validated by the door.
ALTER TABLE services ADD COLUMN questions TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(questions));

CREATE TABLE extras (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(name) > 0),
  unit TEXT NOT NULL,
  price_minor INTEGER NOT NULL CHECK (price_minor >= 0),
  cost_minor INTEGER NOT NULL CHECK (cost_minor >= 0),
  tax_bp INTEGER NOT NULL CHECK (tax_bp BETWEEN 0 AND 10000),
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;

-- Which extras can be added to which service, and how many of each.
CREATE TABLE service_extras (
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  extra_id INTEGER NOT NULL REFERENCES extras (id),
  position INTEGER NOT NULL,
  most INTEGER NOT NULL CHECK (most BETWEEN 1 AND 999),
  PRIMARY KEY (service_id, extra_id)
) STRICT, WITHOUT ROWID;

-- What was answered, in words for people and as it was given: [{ "id", "question", "words", "value" }]; and the extras chosen.
ALTER TABLE jobs ADD COLUMN answers TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(answers));
ALTER TABLE jobs ADD COLUMN extras TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(extras));

-- What it was booked with, by its service and by the answers: [{ "skill", "level" }]. A later change
-- of the service asks no more of those who have it.
ALTER TABLE visits ADD COLUMN skills TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(skills));
UPDATE visits SET skills = (SELECT json_group_array(json_object('skill', CAST(skill_id AS TEXT), 'level', level)) FROM service_skills s WHERE s.service_id = visits.service_id);

-- What an hour of a technician costs the business, all in: for margins.
ALTER TABLE business ADD COLUMN labour_cost_minor INTEGER NOT NULL DEFAULT 3000 CHECK (labour_cost_minor >= 0);

-- What was answered and chosen when the repeat was made: each of its visits is priced by it.
ALTER TABLE repeats ADD COLUMN choice TEXT NOT NULL DEFAULT '{"answers":{},"extras":[]}' CHECK (json_valid(choice));
