-- Languages in which customers are written to, their own time zone, and how much is written on one day.
ALTER TABLE business ADD COLUMN language TEXT NOT NULL DEFAULT 'en' CHECK (language IN ('en', 'es'));
ALTER TABLE business ADD COLUMN most_messages INTEGER NOT NULL DEFAULT 4 CHECK (most_messages BETWEEN 1 AND 50);
-- What one part of a text costs, in thousandths of the currency's unit.
ALTER TABLE business ADD COLUMN text_part_milli INTEGER NOT NULL DEFAULT 0 CHECK (text_part_milli >= 0);
ALTER TABLE business ADD COLUMN counts_opened INTEGER NOT NULL DEFAULT 0 CHECK (counts_opened IN (0, 1));
ALTER TABLE customers ADD COLUMN language TEXT CHECK (language IN ('en', 'es'));
ALTER TABLE customers ADD COLUMN time_zone TEXT;

-- Occasions as the owner has them, where that differs from how they begin.
CREATE TABLE occasions (
  occasion TEXT PRIMARY KEY,
  is_on INTEGER NOT NULL CHECK (is_on IN (0, 1)),
  channels TEXT NOT NULL CHECK (json_valid(channels)),
  -- On each of its channels, or by the first that works.
  each INTEGER NOT NULL CHECK (each IN (0, 1)),
  outside TEXT NOT NULL CHECK (outside IN ('earlier', 'later', 'drop', 'other'))
) STRICT;

-- The owner's own words, in place of those a business starts with.
CREATE TABLE templates (
  occasion TEXT NOT NULL,
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text', 'voice')),
  language TEXT NOT NULL CHECK (language IN ('en', 'es')),
  subject TEXT NOT NULL,
  body TEXT NOT NULL CHECK (trim(body) <> ''),
  PRIMARY KEY (occasion, channel, language)
) STRICT;

-- When reminders of a visit fall: at a time of day so many days before, or so many minutes before its window opens.
CREATE TABLE reminder_rules (
  id INTEGER PRIMARY KEY,
  days_before INTEGER CHECK (days_before BETWEEN 0 AND 60),
  at_minute INTEGER CHECK (at_minute BETWEEN 0 AND 1439),
  minutes_before INTEGER CHECK (minutes_before BETWEEN 1 AND 86400),
  outside TEXT NOT NULL CHECK (outside IN ('earlier', 'later', 'drop')),
  -- Whether it asks its reader to confirm.
  asks INTEGER NOT NULL CHECK (asks IN (0, 1)),
  CHECK (iif(minutes_before IS NULL, days_before IS NOT NULL AND at_minute IS NOT NULL, days_before IS NULL AND at_minute IS NULL))
) STRICT;
INSERT INTO reminder_rules (id, minutes_before, outside, asks)
  SELECT 1, reminder_hours * 60, 'earlier', 0 FROM business WHERE reminder_hours > 0;
ALTER TABLE business DROP COLUMN reminder_hours;

-- Which rule has reminded of which promise: once each, whatever happens.
CREATE TABLE reminded (
  visit_id INTEGER NOT NULL,
  rule_id INTEGER NOT NULL,
  window_from INTEGER NOT NULL,
  PRIMARY KEY (visit_id, rule_id, window_from)
) STRICT, WITHOUT ROWID;
INSERT INTO reminded (visit_id, rule_id, window_from) SELECT id, 1, reminded_of FROM visits WHERE reminded_of IS NOT NULL;
DROP INDEX visits_to_remind;
DROP TRIGGER visits_moved_are_reminded_anew;
ALTER TABLE visits DROP COLUMN reminded_of;

-- When a promised visit is looked at for reminders again (epoch minutes), and up to when it has been.
CREATE TABLE reminder_looks (
  visit_id INTEGER PRIMARY KEY,
  looked_at INTEGER NOT NULL,
  next_at INTEGER NOT NULL
) STRICT;
CREATE INDEX reminder_looks_due ON reminder_looks (next_at);
INSERT INTO reminder_looks (visit_id, looked_at, next_at) SELECT id, 0, 0 FROM visits WHERE state = 'promised';
CREATE TRIGGER promised_visits_are_looked_at AFTER INSERT ON visits WHEN NEW.state = 'promised' BEGIN
  INSERT INTO reminder_looks (visit_id, looked_at, next_at) VALUES (NEW.id, 0, 0);
END;
CREATE TRIGGER changed_visits_are_looked_at AFTER UPDATE OF state, window_from ON visits WHEN NEW.state = 'promised' BEGIN
  INSERT INTO reminder_looks (visit_id, looked_at, next_at) VALUES (NEW.id, 0, 0)
    ON CONFLICT (visit_id) DO UPDATE SET next_at = 0;
END;

-- What its reader has ended, by the address they have on a channel; and what a customer does not want on a channel of those they have.
CREATE TABLE stops (
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text', 'voice')),
  address TEXT NOT NULL,
  since INTEGER NOT NULL,
  -- In whose words: STOP by text, the link in an email, or somebody of the office.
  how TEXT NOT NULL,
  PRIMARY KEY (channel, address)
) STRICT;
CREATE TABLE withheld (
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  purpose TEXT NOT NULL CHECK (purpose IN ('reminders', 'offers')),
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text', 'voice')),
  PRIMARY KEY (customer_id, purpose, channel)
) STRICT;
-- Null: on every channel.
ALTER TABLE consents ADD COLUMN channel TEXT CHECK (channel IN ('mail', 'text', 'voice'));

-- A conversation: with a customer, or with somebody who is none yet.
CREATE TABLE threads (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER UNIQUE REFERENCES customers (id),
  name TEXT NOT NULL DEFAULT '',
  mail TEXT NOT NULL DEFAULT '',
  phone TEXT NOT NULL DEFAULT '',
  nonce TEXT NOT NULL DEFAULT '',
  last_at INTEGER NOT NULL,
  last_words TEXT NOT NULL,
  last_by TEXT NOT NULL CHECK (last_by IN ('them', 'us')),
  -- Since when something of theirs waits for a person; null: nothing does.
  waiting_since INTEGER,
  unread INTEGER NOT NULL DEFAULT 0 CHECK (unread IN (0, 1)),
  handler_id INTEGER REFERENCES people (id),
  snoozed_until INTEGER
) STRICT;
CREATE INDEX threads_by_last ON threads (last_at);
CREATE INDEX threads_waiting ON threads (waiting_since) WHERE waiting_since IS NOT NULL;
CREATE INDEX threads_of_nobody ON threads (phone) WHERE customer_id IS NULL;
CREATE INDEX threads_of_handler ON threads (handler_id) WHERE handler_id IS NOT NULL;

-- Words for inside only: in a conversation, or about a visit.
CREATE TABLE notes (
  id INTEGER PRIMARY KEY,
  thread_id INTEGER REFERENCES threads (id),
  visit_id INTEGER REFERENCES visits (id),
  words TEXT NOT NULL CHECK (trim(words) <> ''),
  written_by TEXT NOT NULL,
  at INTEGER NOT NULL,
  CHECK ((thread_id IS NULL) <> (visit_id IS NULL))
) STRICT;
CREATE INDEX notes_of_thread ON notes (thread_id) WHERE thread_id IS NOT NULL;
CREATE INDEX notes_of_visit ON notes (visit_id) WHERE visit_id IS NOT NULL;

INSERT INTO threads (customer_id, last_at, last_words, last_by)
  SELECT customer_id, max(received_at), body, 'them' FROM replies WHERE customer_id IS NOT NULL GROUP BY customer_id;
INSERT INTO threads (phone, last_at, last_words, last_by)
  SELECT sender, max(received_at), body, 'them' FROM replies WHERE customer_id IS NULL GROUP BY sender;

CREATE TABLE replies_new (
  id INTEGER PRIMARY KEY,
  thread_id INTEGER NOT NULL REFERENCES threads (id),
  customer_id INTEGER REFERENCES customers (id),
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text', 'voice', 'front door')),
  -- By which its gateway names it: the same one comes in once.
  key TEXT UNIQUE,
  sender TEXT NOT NULL,
  subject TEXT NOT NULL DEFAULT '',
  body TEXT NOT NULL,
  received_at INTEGER NOT NULL,
  -- The Message-ID of an email, and the message of ours that it answers.
  mail_id TEXT,
  answers_id INTEGER,
  -- What was read in it: 'confirms', 'wishes to move'…
  understood TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(understood)),
  photos TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(photos)),
  -- The recording of a call, and its seconds.
  recording TEXT,
  seconds INTEGER
) STRICT;
INSERT INTO replies_new (id, thread_id, customer_id, channel, sender, body, received_at)
  SELECT r.id, t.id, r.customer_id, 'text', r.sender, r.body, r.received_at FROM replies r
    JOIN threads t ON iif(r.customer_id IS NULL, t.customer_id IS NULL AND t.phone = r.sender, t.customer_id = r.customer_id);
DROP TABLE replies;
ALTER TABLE replies_new RENAME TO replies;
CREATE INDEX replies_of_customer ON replies (customer_id, received_at);
CREATE INDEX replies_of_thread ON replies (thread_id, received_at);
CREATE INDEX replies_in_order ON replies (received_at);

CREATE TABLE messages_new (
  id INTEGER PRIMARY KEY,
  -- One message an occasion, what it is about and a channel, whatever happens: 'visit reminder 1 of visit 12 at 29384400 text'.
  occasion TEXT NOT NULL UNIQUE,
  -- The occasion alone; 'by hand' for what somebody has written.
  kind TEXT NOT NULL,
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text', 'voice')),
  -- To whom: a customer, somebody who is none yet, or one of us.
  customer_id INTEGER REFERENCES customers (id),
  thread_id INTEGER REFERENCES threads (id),
  job_id INTEGER REFERENCES jobs (id),
  visit_id INTEGER REFERENCES visits (id),
  -- When the window opens that it speaks of.
  window_from INTEGER,
  repeat_id INTEGER REFERENCES repeats (id),
  invoice_id INTEGER REFERENCES invoices (id),
  -- What its link opens, where that is not the customer's own page.
  opens TEXT CHECK (json_valid(opens)),
  recipient TEXT NOT NULL,
  language TEXT NOT NULL,
  subject TEXT NOT NULL,
  body TEXT NOT NULL,
  photos TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(photos)),
  -- While it has not gone out: the channels after this one, and what its words are made of there.
  channels_left TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(channels_left)),
  fields TEXT CHECK (json_valid(fields)),
  -- Answers what its reader has just done, and may come at any hour.
  at_any_hour INTEGER NOT NULL DEFAULT 0 CHECK (at_any_hour IN (0, 1)),
  -- The person who wrote it; null: it was written by itself.
  written_by TEXT,
  state TEXT NOT NULL CHECK (state IN ('waiting', 'sent', 'delivered', 'opened', 'bounced', 'failed', 'dropped', 'not known')),
  -- Why it did not arrive or was not sent.
  problem TEXT NOT NULL DEFAULT '',
  -- By which the gateway's notices name it.
  reference TEXT,
  parts INTEGER NOT NULL DEFAULT 0,
  written_at INTEGER NOT NULL,
  sent_at INTEGER,
  delivered_at INTEGER,
  opened_at INTEGER
) STRICT;
INSERT INTO messages_new (id, occasion, kind, channel, customer_id, job_id, repeat_id, invoice_id, opens, recipient, language,
    subject, body, state, written_at, sent_at)
  SELECT id, occasion,
    CASE
      WHEN occasion LIKE 'visit reminder%' THEN 'visit reminder'
      WHEN occasion LIKE 'on the way%' THEN 'on the way'
      WHEN occasion LIKE 'coming again%' THEN 'coming again'
      WHEN occasion LIKE 'ask first%' THEN 'ask first'
      WHEN occasion LIKE 'price review%' THEN 'price review'
      WHEN occasion LIKE 'deposit lapsed%' THEN 'deposit lapsed'
      WHEN occasion LIKE 'invoice reminder%' THEN 'invoice reminder'
      WHEN occasion LIKE 'invoice coming%' THEN 'invoice coming'
      WHEN occasion LIKE 'last reminder%' THEN 'last reminder'
      WHEN occasion LIKE 'charge tomorrow%' THEN 'charge tomorrow'
      WHEN occasion LIKE 'charge step%' THEN 'charge step'
      WHEN occasion LIKE 'charge failed%' THEN 'charge failed'
      WHEN occasion LIKE 'card expires%' THEN 'card expires'
      ELSE substr(occasion, 1, instr(occasion || ' ', ' ') - 1)
    END,
    channel, customer_id, job_id, repeat_id, invoice_id, iif(ask_id IS NULL, NULL, json_object('kind', 'again', 'id', ask_id)),
    recipient, 'en', subject, body, state, written_at, sent_at
  FROM messages;
DROP TABLE messages;
ALTER TABLE messages_new RENAME TO messages;
CREATE INDEX messages_of_customer ON messages (customer_id, written_at);
CREATE INDEX messages_of_thread ON messages (thread_id) WHERE thread_id IS NOT NULL;
CREATE INDEX messages_of_visit ON messages (visit_id) WHERE visit_id IS NOT NULL;
CREATE INDEX messages_of_job ON messages (job_id, written_at) WHERE job_id IS NOT NULL;
CREATE INDEX messages_of_repeat ON messages (repeat_id, written_at) WHERE repeat_id IS NOT NULL;
CREATE INDEX messages_bounced ON messages (customer_id) WHERE state IN ('bounced', 'failed');
CREATE INDEX messages_of_invoice ON messages (invoice_id) WHERE invoice_id IS NOT NULL;
CREATE INDEX messages_in_order ON messages (written_at);
CREATE INDEX messages_by_recipient ON messages (recipient, written_at);
CREATE INDEX messages_by_reference ON messages (reference) WHERE reference IS NOT NULL;

-- Short links of texts: what they open says nothing of anybody. They end with what they are about.
CREATE TABLE short_links (
  id INTEGER PRIMARY KEY,
  nonce TEXT NOT NULL,
  kind TEXT NOT NULL,
  opens_id INTEGER NOT NULL,
  made_at INTEGER NOT NULL,
  UNIQUE (kind, opens_id)
) STRICT;

-- Under which name and from which address or number each channel sends.
CREATE TABLE senders (
  channel TEXT PRIMARY KEY CHECK (channel IN ('mail', 'text', 'voice')),
  name TEXT NOT NULL,
  address TEXT NOT NULL
) STRICT;

-- Who else is told of a booking, by its service and by who comes: an email address, or nobody.
ALTER TABLE services ADD COLUMN tells TEXT NOT NULL DEFAULT '';
ALTER TABLE technicians ADD COLUMN tells TEXT NOT NULL DEFAULT '';

-- What somebody has said to the machine that took their call.
CREATE TABLE recordings (
  token TEXT PRIMARY KEY,
  mime TEXT NOT NULL,
  bytes BLOB NOT NULL,
  made_at INTEGER NOT NULL
) STRICT;
-- Documents that go out with an email.
CREATE TABLE documents (
  token TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  mime TEXT NOT NULL,
  bytes BLOB NOT NULL,
  made_at INTEGER NOT NULL
) STRICT;
