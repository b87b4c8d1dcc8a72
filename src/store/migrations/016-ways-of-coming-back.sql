-- How far ahead repeats are laid out; how many days before its date a forecast becomes a visit the customer is told of;
-- how many days before it is due somebody is asked first, and after how many they are asked once more.
ALTER TABLE business ADD COLUMN repeat_months INTEGER NOT NULL DEFAULT 14 CHECK (repeat_months BETWEEN 1 AND 36);
ALTER TABLE business ADD COLUMN promise_days INTEGER NOT NULL DEFAULT 14 CHECK (promise_days BETWEEN 1 AND 120);
ALTER TABLE business ADD COLUMN ask_days INTEGER NOT NULL DEFAULT 28 CHECK (ask_days BETWEEN 1 AND 120);
ALTER TABLE business ADD COLUMN ask_again_days INTEGER NOT NULL DEFAULT 7 CHECK (ask_again_days BETWEEN 1 AND 60);

-- How a service comes back where nothing else is agreed; in how many months somebody is asked again after it was done.
ALTER TABLE services ADD COLUMN comes TEXT NOT NULL DEFAULT 'set' CHECK (comes IN ('set', 'flexible', 'ask'));
ALTER TABLE services ADD COLUMN promise_days INTEGER CHECK (promise_days BETWEEN 1 AND 120);
ALTER TABLE services ADD COLUMN again_months INTEGER CHECK (again_months BETWEEN 1 AND 120);
ALTER TABLE visits ADD COLUMN again_months INTEGER CHECK (again_months BETWEEN 1 AND 120);

ALTER TABLE repeats ADD COLUMN comes TEXT NOT NULL DEFAULT 'set' CHECK (comes IN ('set', 'flexible', 'ask'));
-- Of a flexible repeat: so many days around its date; null is its week.
ALTER TABLE repeats ADD COLUMN leeway_days INTEGER CHECK (leeway_days BETWEEN 1 AND 30);
-- By the calendar, or from the last visit that was done.
ALTER TABLE repeats ADD COLUMN counted TEXT NOT NULL DEFAULT 'calendar' CHECK (counted IN ('calendar', 'done'));
ALTER TABLE repeats ADD COLUMN promise_days INTEGER CHECK (promise_days BETWEEN 1 AND 120);
-- Who is asked first: the customer by a link, or the office, to phone.
ALTER TABLE repeats ADD COLUMN asks TEXT NOT NULL DEFAULT 'customer' CHECK (asks IN ('customer', 'office'));
-- The visit after which it is time again; a visit brings at most one such repeat.
ALTER TABLE repeats ADD COLUMN after_visit_id INTEGER REFERENCES visits (id);
CREATE UNIQUE INDEX repeats_after_visit ON repeats (after_visit_id) WHERE after_visit_id IS NOT NULL;
ALTER TABLE repeats ADD COLUMN end_reason TEXT NOT NULL DEFAULT '';

-- What a visit costs: by the catalogue, a price of its own, or nothing, because a month or a year of so many visits is paid.
ALTER TABLE repeats ADD COLUMN price_per TEXT NOT NULL DEFAULT 'catalogue' CHECK (price_per IN ('catalogue', 'visit', 'month', 'year'));
ALTER TABLE repeats ADD COLUMN price_minor INTEGER CHECK (price_minor >= 0);
ALTER TABLE repeats ADD COLUMN price_visits INTEGER CHECK (price_visits BETWEEN 1 AND 400);
-- What a visit costs today, as it was worked out when the repeat was laid out last: lists and forecasts of money read it.
ALTER TABLE repeats ADD COLUMN value_minor INTEGER NOT NULL DEFAULT 0;
-- From this day on the price is another by so much; the customer hears of it so many days before.
ALTER TABLE repeats ADD COLUMN review_date TEXT;
ALTER TABLE repeats ADD COLUMN review_bp INTEGER CHECK (review_bp BETWEEN -10000 AND 10000);
ALTER TABLE repeats ADD COLUMN review_notice_days INTEGER CHECK (review_notice_days BETWEEN 0 AND 366);
ALTER TABLE repeats ADD COLUMN review_told_at INTEGER;

-- A customer who is asked about one date of a repeat. It waits for them, or for us; booked, declined or closed it waits no more.
CREATE TABLE repeat_asks (
  id INTEGER PRIMARY KEY,
  repeat_id INTEGER NOT NULL REFERENCES repeats (id),
  date TEXT NOT NULL,
  nonce TEXT NOT NULL UNIQUE,
  state TEXT NOT NULL CHECK (state IN ('asked', 'for us', 'booked', 'declined', 'closed')),
  made_at INTEGER NOT NULL,
  -- How often, and when last.
  times INTEGER NOT NULL DEFAULT 0,
  asked_on TEXT,
  answered_at INTEGER,
  answer TEXT NOT NULL DEFAULT '',
  job_id INTEGER REFERENCES jobs (id),
  handler_id INTEGER REFERENCES people (id),
  UNIQUE (repeat_id, date)
) STRICT;
CREATE INDEX repeat_asks_open ON repeat_asks (state, made_at) WHERE state IN ('asked', 'for us');
CREATE INDEX repeat_asks_of_job ON repeat_asks (job_id) WHERE job_id IS NOT NULL;

-- What was said about a repeat rather than about one booking, and the question whose link stands in the text.
ALTER TABLE messages ADD COLUMN repeat_id INTEGER REFERENCES repeats (id);
ALTER TABLE messages ADD COLUMN ask_id INTEGER REFERENCES repeat_asks (id);
CREATE INDEX messages_of_repeat ON messages (repeat_id, written_at) WHERE repeat_id IS NOT NULL;

-- How often the work of a quote comes back once it is accepted, at its price: none, or one [{ "every", "unit" }].
ALTER TABLE quotes ADD COLUMN repeats TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(repeats));
