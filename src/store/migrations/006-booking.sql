-- Booking to the full: several services in one order, and everything around it.

-- ---------------------------------------------------------------- what a job is made of

-- The services of a job, the main one first: how many of each, what was answered and chosen, its part
-- of the total, and its terms as they stood when it was agreed.
CREATE TABLE job_items (
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  position INTEGER NOT NULL,
  service_id INTEGER NOT NULL REFERENCES services (id),
  quantity INTEGER NOT NULL CHECK (quantity BETWEEN 1 AND 99),
  answers TEXT NOT NULL CHECK (json_valid(answers)),
  extras TEXT NOT NULL CHECK (json_valid(extras)),
  terms TEXT NOT NULL CHECK (json_valid(terms)),
  total_minor INTEGER NOT NULL CHECK (total_minor >= 0),
  PRIMARY KEY (job_id, position)
) STRICT, WITHOUT ROWID;
INSERT INTO job_items SELECT id, 0, service_id, 1, answers, extras, terms, total_minor FROM jobs;
ALTER TABLE jobs DROP COLUMN answers;
ALTER TABLE jobs DROP COLUMN extras;
ALTER TABLE jobs DROP COLUMN terms;

-- What is done on a visit, in words as agreed; and the services beside the main one: a list of ids.
ALTER TABLE visits ADD COLUMN title TEXT NOT NULL DEFAULT '';
ALTER TABLE visits ADD COLUMN also TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(also));
UPDATE visits SET title = (SELECT name FROM services s WHERE s.id = visits.service_id);

-- What comes again with a repeat: [{ "serviceId", "quantity", "answers", "extras" }], the main one first.
ALTER TABLE repeats ADD COLUMN items TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(items));
UPDATE repeats SET items = json_array(json_object('serviceId', service_id, 'quantity', 1, 'answers', json_extract(choice, '$.answers'), 'extras', json_extract(choice, '$.extras')));
ALTER TABLE repeats DROP COLUMN choice;

-- ---------------------------------------------------------------- what is asked and told while booking

-- What was answered to the owner's own fields, as core keeps answers.
ALTER TABLE jobs ADD COLUMN fields TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(fields));
-- Pictures sent with a booking beside those that answer a question: a list of tokens.
ALTER TABLE jobs ADD COLUMN photos TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(photos));

-- How the customer has chosen to pay what is not paid while booking.
ALTER TABLE jobs ADD COLUMN pays TEXT NOT NULL DEFAULT 'by invoice' CHECK (pays IN ('by invoice', 'at the door'));

-- How often customers may have a service come again, by themselves: [{ "every", "unit" }].
ALTER TABLE services ADD COLUMN repeats TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(repeats));

-- Whether somebody agreed to be written to about offers; and each yes and no, with the words as they were shown.
ALTER TABLE customers ADD COLUMN offers INTEGER NOT NULL DEFAULT 0 CHECK (offers IN (0, 1));
CREATE TABLE consents (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  kind TEXT NOT NULL CHECK (kind IN ('reminders', 'offers', 'card on file')),
  given INTEGER NOT NULL CHECK (given IN (0, 1)),
  words TEXT NOT NULL,
  at INTEGER NOT NULL
) STRICT;
CREATE INDEX consents_of_customer ON consents (customer_id);

-- Cards kept at the card service for later payments; here is only what finds them there.
CREATE TABLE cards (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  -- The booking whose link has kept it: no other one shows it or pays with it, but those that repeat it.
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  reference TEXT NOT NULL UNIQUE,
  label TEXT NOT NULL,
  kept_at INTEGER NOT NULL,
  removed_at INTEGER
) STRICT;
CREATE INDEX cards_of_customer ON cards (customer_id) WHERE removed_at IS NULL;

-- ---------------------------------------------------------------- the front door

-- A picture of the front door is a purpose of its own.
CREATE TABLE images_new (
  token TEXT PRIMARY KEY,
  purpose TEXT NOT NULL CHECK (purpose IN ('mark', 'technician', 'service', 'answer', 'door')),
  mime TEXT NOT NULL CHECK (mime IN ('image/png', 'image/jpeg')),
  width INTEGER NOT NULL CHECK (width > 0),
  height INTEGER NOT NULL CHECK (height > 0),
  bytes BLOB NOT NULL,
  made_at INTEGER NOT NULL
) STRICT;
INSERT INTO images_new SELECT * FROM images;
DROP TABLE images;
ALTER TABLE images_new RENAME TO images;

-- How the front door looks and what it says.
CREATE TABLE front_door (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  welcome TEXT NOT NULL DEFAULT '',
  picture TEXT REFERENCES images (token),
  -- Colours as #rrggbb; empty: our own.
  accent TEXT NOT NULL DEFAULT '',
  ground TEXT NOT NULL DEFAULT '',
  -- [{ "question", "answer" }]
  answers TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(answers)),
  -- Asked of every customer: questions as core/catalogue/questions.ts has them, without effects.
  fields TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(fields)),
  pays_at_door INTEGER NOT NULL DEFAULT 0 CHECK (pays_at_door IN (0, 1)),
  -- What customers see when they have booked: words, or an address of the owner's instead.
  done_words TEXT NOT NULL DEFAULT '',
  done_address TEXT NOT NULL DEFAULT '',
  shows_contact INTEGER NOT NULL DEFAULT 1 CHECK (shows_contact IN (0, 1)),
  takes_wishes INTEGER NOT NULL DEFAULT 1 CHECK (takes_wishes IN (0, 1)),
  -- Sites on which it may stand in a frame: a list of origins.
  sites TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(sites)),
  -- Whether directories may read what we do.
  listed INTEGER NOT NULL DEFAULT 0 CHECK (listed IN (0, 1)),
  -- Who in the office is told of new bookings: [{ "way": "mail" or "text", "to" }].
  tells TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(tells))
) STRICT;
INSERT INTO front_door (id) VALUES (1);

-- ---------------------------------------------------------------- what waits for a person

-- Whether a person confirms each booking of a service.
ALTER TABLE services ADD COLUMN confirm INTEGER NOT NULL DEFAULT 0 CHECK (confirm IN (0, 1));
-- Where a booking stands with us: placed by itself or confirmed; waiting; or another time proposed, and
-- the customer to answer. And who of the office is on it.
ALTER TABLE jobs ADD COLUMN approval TEXT NOT NULL DEFAULT 'given' CHECK (approval IN ('given', 'waiting', 'proposed'));
ALTER TABLE jobs ADD COLUMN handler_id INTEGER REFERENCES people (id);
CREATE INDEX jobs_to_approve ON jobs (id) WHERE approval <> 'given';

-- What is asked for, as in a booking: the address's id, the services, photos; days and times that would suit
-- ({ "weekdays", "from", "to", "until" }, null where none were named); who is on it, and how it ended.
ALTER TABLE requests ADD COLUMN address_id TEXT;
ALTER TABLE requests ADD COLUMN items TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(items));
ALTER TABLE requests ADD COLUMN photos TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(photos));
ALTER TABLE requests ADD COLUMN wish TEXT CHECK (json_valid(wish));
ALTER TABLE requests ADD COLUMN handler_id INTEGER REFERENCES people (id);
ALTER TABLE requests ADD COLUMN outcome TEXT NOT NULL DEFAULT 'open' CHECK (outcome IN ('open', 'answered', 'declined', 'booked', 'withdrawn'));
UPDATE requests SET outcome = 'answered' WHERE answered_at IS NOT NULL;
UPDATE requests SET items = json_array(json_object('serviceId', service_id, 'quantity', 1, 'answers', json_object(), 'extras', json_array())) WHERE service_id IS NOT NULL;
ALTER TABLE requests DROP COLUMN service_id;
ALTER TABLE requests ADD COLUMN job_id INTEGER REFERENCES jobs (id);
-- Seals the link by which a wish is taken; and the window that was last told: it is told once.
ALTER TABLE requests ADD COLUMN nonce TEXT NOT NULL DEFAULT '';
ALTER TABLE requests ADD COLUMN told TEXT CHECK (json_valid(told));
CREATE INDEX requests_open ON requests (id) WHERE outcome = 'open';

-- ---------------------------------------------------------------- one person, one customer

-- Where a booking's own messages go: what was typed for it, which may differ from what the customer had.
ALTER TABLE jobs ADD COLUMN mail TEXT NOT NULL DEFAULT '';
ALTER TABLE jobs ADD COLUMN phone TEXT NOT NULL DEFAULT '';
-- The customer into whom this one was merged; then it is no longer shown.
ALTER TABLE customers ADD COLUMN merged_into INTEGER REFERENCES customers (id);

-- Two who may be the same person: for somebody of the office to say. `moved` is what a merge has moved, by table,
-- so that it can be undone.
CREATE TABLE alike (
  id INTEGER PRIMARY KEY,
  one_id INTEGER NOT NULL REFERENCES customers (id),
  other_id INTEGER NOT NULL REFERENCES customers (id),
  found_at INTEGER NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('open', 'two people', 'merged')),
  moved TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(moved)),
  UNIQUE (one_id, other_id),
  CHECK (one_id < other_id)
) STRICT;

-- ---------------------------------------------------------------- windows on our way

-- What is taken off where hardly any driving is added, in basis points; and whether a hold was such a one.
ALTER TABLE business ADD COLUMN on_our_way_bp INTEGER NOT NULL DEFAULT 0 CHECK (on_our_way_bp BETWEEN 0 AND 5000);
ALTER TABLE visits ADD COLUMN on_our_way INTEGER NOT NULL DEFAULT 0 CHECK (on_our_way IN (0, 1));

-- A category in the words of directories: a kind of business as schema.org names them; empty where none fits.
ALTER TABLE categories ADD COLUMN kind TEXT NOT NULL DEFAULT '';
