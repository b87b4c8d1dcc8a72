-- Quotes: what a person of the office offers for work, until a day, to be accepted by the customer.

CREATE TABLE quotes (
  id INTEGER PRIMARY KEY,
  -- The request it answers; null where it took the place of a booking.
  request_id INTEGER REFERENCES requests (id),
  made_at INTEGER NOT NULL,
  made_by TEXT NOT NULL,
  name TEXT NOT NULL,
  mail TEXT NOT NULL,
  phone TEXT NOT NULL,
  line TEXT NOT NULL,
  postcode TEXT NOT NULL,
  lng REAL NOT NULL,
  lat REAL NOT NULL,
  zone_id INTEGER REFERENCES zones (id),
  -- What is done, as a booking has it: [{ "serviceId", "quantity", "answers", "extras" }]; what was asked for, in their words; photos.
  items TEXT NOT NULL CHECK (json_valid(items)),
  note TEXT NOT NULL,
  photos TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(photos)),
  -- What is offered: lines with their amounts and tax as they stood; what the customer reads above them.
  lines TEXT NOT NULL CHECK (json_valid(lines)),
  words TEXT NOT NULL,
  total_minor INTEGER NOT NULL CHECK (total_minor >= 0),
  deposit_minor INTEGER NOT NULL CHECK (deposit_minor BETWEEN 0 AND total_minor),
  minutes INTEGER NOT NULL CHECK (minutes > 0),
  crew INTEGER NOT NULL CHECK (crew > 0),
  valid_until TEXT NOT NULL,
  state TEXT NOT NULL DEFAULT 'sent' CHECK (state IN ('sent', 'accepted', 'booked', 'declined', 'withdrawn')),
  answered_at INTEGER,
  -- What the customer said with the answer.
  answer TEXT NOT NULL DEFAULT '',
  handler_id INTEGER REFERENCES people (id),
  job_id INTEGER REFERENCES jobs (id),
  -- Seals the link by which it is read and accepted.
  nonce TEXT NOT NULL,
  CHECK ((state = 'booked') = (job_id IS NOT NULL))
) STRICT;
CREATE INDEX quotes_open ON quotes (id) WHERE state IN ('sent', 'accepted', 'declined');

-- The card to be kept when this charge has gone through: a declined one is not. Emptied when it is settled.
ALTER TABLE payments ADD COLUMN keep_token TEXT;

-- When a booking that waited was confirmed: until then its windows were pencilled in, not promised. Null where none waited.
ALTER TABLE jobs ADD COLUMN given_at INTEGER;

-- Whether a repeat was ended by its customer: then, and only then, the customer may take it up again.
ALTER TABLE repeats ADD COLUMN ended_by_customer INTEGER NOT NULL DEFAULT 0 CHECK (ended_by_customer IN (0, 1));
