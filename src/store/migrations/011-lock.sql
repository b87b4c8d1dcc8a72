-- The lock: who keeps room without having proved who they are, what has been tried, and second factors.

-- ---------------------------------------------------------------- room, and who keeps it

-- Keys of holds are kept as hashes from now on; those of before have run out.
UPDATE visits SET hold_key = NULL WHERE hold_key IS NOT NULL;

-- Keyed hashes of the network address and the browser a hold or a booking came from, for counting.
ALTER TABLE visits ADD COLUMN from_address TEXT;
ALTER TABLE visits ADD COLUMN from_browser TEXT;
CREATE INDEX visits_held_of_day ON visits (date) WHERE state = 'held';

-- What was typed for a booking stays with it. `proof`: whether somebody has shown to be reached as they typed: `known` is
-- a booking of the office's or of a repeat, `none` has shown nothing, `asked` waits for a code, `paid` has paid something,
-- `given` has typed a code.
ALTER TABLE jobs ADD COLUMN name TEXT NOT NULL DEFAULT '';
ALTER TABLE jobs ADD COLUMN proof TEXT NOT NULL DEFAULT 'known' CHECK (proof IN ('known', 'none', 'asked', 'paid', 'given'));
ALTER TABLE jobs ADD COLUMN code_hash TEXT;
-- When a booking that waits for a code lapses, or one whose card nobody has given out.
ALTER TABLE jobs ADD COLUMN lapses_at INTEGER;
ALTER TABLE jobs ADD COLUMN code_tries INTEGER NOT NULL DEFAULT 0;
ALTER TABLE jobs ADD COLUMN from_address TEXT;
ALTER TABLE jobs ADD COLUMN from_browser TEXT;
CREATE INDEX jobs_unproved ON jobs (booked_at) WHERE proof IN ('none', 'asked');

-- What unproved visitors may keep of a day, in percent of its work; and how many bookings that pay nothing may come from
-- unknown people on a day before a code is asked.
ALTER TABLE business ADD COLUMN unproved_percent INTEGER NOT NULL DEFAULT 60 CHECK (unproved_percent BETWEEN 1 AND 100);
-- Holds and unproved bookings of one browser, and of one email or phone; three times as many of one network address.
ALTER TABLE business ADD COLUMN unproved_each INTEGER NOT NULL DEFAULT 3 CHECK (unproved_each BETWEEN 1 AND 10000);
ALTER TABLE business ADD COLUMN unproved_a_day INTEGER NOT NULL DEFAULT 20 CHECK (unproved_a_day BETWEEN 0 AND 10000);

-- ---------------------------------------------------------------- fees, cards, pictures

-- What moving does inside the time in which cancelling costs a fee: it takes the fee along, or is refused.
ALTER TABLE business ADD COLUMN late_moves TEXT NOT NULL DEFAULT 'fee' CHECK (late_moves IN ('fee', 'refused'));
-- The fee a booking has taken along by being moved late: cancelling costs at least this.
ALTER TABLE jobs ADD COLUMN moved_fee_minor INTEGER NOT NULL DEFAULT 0 CHECK (moved_fee_minor >= 0);

ALTER TABLE payments ADD COLUMN from_address TEXT;
CREATE INDEX payments_declined_by_time ON payments (settled_at) WHERE state = 'declined';

ALTER TABLE images ADD COLUMN from_address TEXT;
ALTER TABLE images ADD COLUMN used INTEGER NOT NULL DEFAULT 0 CHECK (used IN (0, 1));
UPDATE images SET used = 1;
CREATE INDEX images_unused ON images (from_address, purpose) WHERE used = 0;

-- ---------------------------------------------------------------- people

ALTER TABLE sessions ADD COLUMN browser TEXT NOT NULL DEFAULT '';
ALTER TABLE sessions ADD COLUMN address TEXT NOT NULL DEFAULT '';
CREATE INDEX sessions_of_person ON sessions (person_id) WHERE ended_at IS NULL;

-- The shared secret of an authenticator app (sealed with the installation's), the last time step that was used, and
-- hashes of recovery codes that are left.
ALTER TABLE people ADD COLUMN totp_sealed TEXT;
ALTER TABLE people ADD COLUMN totp_step INTEGER NOT NULL DEFAULT 0;
ALTER TABLE people ADD COLUMN recovery_hashes TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(recovery_hashes));
-- Roles whose people must have a second factor.
ALTER TABLE business ADD COLUMN second_factor_roles TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(second_factor_roles));

-- What has to do with the lock, for the owner to read: refused sign-ins, wrong codes, ended links, changed rights.
CREATE TABLE security_events (
  id INTEGER PRIMARY KEY,
  at INTEGER NOT NULL,
  kind TEXT NOT NULL,
  -- Who it was about or who did it, in words.
  who TEXT NOT NULL,
  words TEXT NOT NULL,
  -- The network address, as far as it is known.
  address TEXT NOT NULL
) STRICT;
CREATE INDEX security_events_by_time ON security_events (at);

-- Who did what is looked for by time, by operation and by what was changed.
CREATE INDEX audit_by_operation ON audit (operation, id);
CREATE INDEX audit_by_actor ON audit (actor, id);

-- When somebody of the office last took a customer's link: it leaves by that operation alone.
ALTER TABLE links ADD COLUMN copied_at INTEGER;

-- How often an address was written to on a day.
CREATE INDEX messages_by_recipient ON messages (recipient, written_at);
