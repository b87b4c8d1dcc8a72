-- The whole of Hogar's first data model. Instants end in _at and are epoch milliseconds (UTC);
-- windows and placements are epoch minutes; dates are local to the business, YYYY-MM-DD;
-- money ends in _minor and is an integer of minor units; rates end in _bp (basis points).

-- ---------------------------------------------------------------- the business and its set-up

CREATE TABLE business (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  name TEXT NOT NULL CHECK (length(name) > 0),
  phone TEXT NOT NULL,
  mail TEXT NOT NULL,
  currency TEXT NOT NULL CHECK (length(currency) = 3),
  prices_include_tax INTEGER NOT NULL CHECK (prices_include_tax IN (0, 1)),
  time_zone TEXT NOT NULL,
  lng REAL NOT NULL,
  lat REAL NOT NULL,
  notice_minutes INTEGER NOT NULL CHECK (notice_minutes >= 0),
  horizon_days INTEGER NOT NULL CHECK (horizon_days BETWEEN 1 AND 730),
  hold_minutes INTEGER NOT NULL CHECK (hold_minutes BETWEEN 1 AND 120),
  deposit_minutes INTEGER NOT NULL CHECK (deposit_minutes BETWEEN 5 AND 2880),
  travel_margin_minutes INTEGER NOT NULL CHECK (travel_margin_minutes >= 0),
  travel_margin_percent INTEGER NOT NULL CHECK (travel_margin_percent >= 0),
  payment_days INTEGER NOT NULL CHECK (payment_days >= 0),
  message_from INTEGER NOT NULL,
  message_to INTEGER NOT NULL CHECK (message_to > message_from),
  reminder_hours INTEGER NOT NULL CHECK (reminder_hours > 0),
  -- Offset of the demo's clock; null where this is not a demo.
  demo_offset_ms INTEGER
) STRICT;

CREATE TABLE closed_days (
  date TEXT PRIMARY KEY,
  reason TEXT NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE skills (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(name) > 0)
) STRICT;

CREATE TABLE zones (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  weekdays INTEGER NOT NULL CHECK (weekdays BETWEEN 0 AND 127),
  serve_from INTEGER NOT NULL,
  serve_to INTEGER NOT NULL CHECK (serve_to > serve_from AND serve_to <= 1440),
  notice_minutes INTEGER NOT NULL CHECK (notice_minutes >= 0),
  surcharge_minor INTEGER NOT NULL CHECK (surcharge_minor >= 0),
  smallest_order_minor INTEGER NOT NULL CHECK (smallest_order_minor >= 0),
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE zone_postcodes (
  zone_id INTEGER NOT NULL REFERENCES zones (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  pattern TEXT NOT NULL,
  PRIMARY KEY (zone_id, position)
) STRICT, WITHOUT ROWID;

CREATE TABLE windows (
  id INTEGER PRIMARY KEY,
  weekdays INTEGER NOT NULL CHECK (weekdays BETWEEN 1 AND 127),
  from_minute INTEGER NOT NULL CHECK (from_minute BETWEEN 0 AND 1439),
  to_minute INTEGER NOT NULL CHECK (to_minute > from_minute AND to_minute <= 1440),
  UNIQUE (weekdays, from_minute, to_minute)
) STRICT;

CREATE TABLE services (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(code) = 2),
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  category TEXT NOT NULL,
  description TEXT NOT NULL,
  price_minor INTEGER NOT NULL CHECK (price_minor >= 0),
  tax_bp INTEGER NOT NULL CHECK (tax_bp BETWEEN 0 AND 10000),
  minutes INTEGER NOT NULL CHECK (minutes > 0),
  before_minutes INTEGER NOT NULL CHECK (before_minutes >= 0),
  after_minutes INTEGER NOT NULL CHECK (after_minutes >= 0),
  crew INTEGER NOT NULL CHECK (crew BETWEEN 1 AND 9),
  deposit_kind TEXT NOT NULL CHECK (deposit_kind IN ('none', 'percent', 'fixed', 'full')),
  deposit_value INTEGER NOT NULL CHECK (deposit_value >= 0),
  hue INTEGER NOT NULL CHECK (hue BETWEEN 0 AND 7),
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE service_skills (
  service_id INTEGER NOT NULL REFERENCES services (id) ON DELETE CASCADE,
  skill_id INTEGER NOT NULL REFERENCES skills (id),
  PRIMARY KEY (service_id, skill_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE technicians (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  phone TEXT NOT NULL,
  start_lng REAL NOT NULL,
  start_lat REAL NOT NULL,
  end_lng REAL NOT NULL,
  end_lat REAL NOT NULL,
  position INTEGER NOT NULL,
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE technician_skills (
  technician_id INTEGER NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  skill_id INTEGER NOT NULL REFERENCES skills (id),
  level INTEGER NOT NULL CHECK (level BETWEEN 1 AND 3),
  valid_until TEXT,
  PRIMARY KEY (technician_id, skill_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE working_spans (
  technician_id INTEGER NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
  opens INTEGER NOT NULL CHECK (opens BETWEEN 0 AND 1439),
  closes INTEGER NOT NULL CHECK (closes > opens AND closes <= 1440),
  PRIMARY KEY (technician_id, weekday, opens)
) STRICT, WITHOUT ROWID;

CREATE TABLE time_off (
  id INTEGER PRIMARY KEY,
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  first_date TEXT NOT NULL,
  last_date TEXT NOT NULL CHECK (last_date >= first_date),
  reason TEXT NOT NULL
) STRICT;
CREATE INDEX time_off_of_technician ON time_off (technician_id, last_date);

-- ---------------------------------------------------------------- people who sign in

CREATE TABLE people (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL,
  mail TEXT NOT NULL UNIQUE COLLATE NOCASE,
  password_hash TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('owner', 'dispatcher', 'bookkeeper', 'technician')),
  technician_id INTEGER UNIQUE REFERENCES technicians (id),
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE sessions (
  id TEXT PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES people (id),
  started_at INTEGER NOT NULL,
  expires_at INTEGER NOT NULL,
  ended_at INTEGER
) STRICT, WITHOUT ROWID;

-- ---------------------------------------------------------------- customers and work

CREATE TABLE customers (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL CHECK (length(name) > 0),
  mail TEXT NOT NULL COLLATE NOCASE,
  phone TEXT NOT NULL,
  reminders INTEGER NOT NULL CHECK (reminders IN (0, 1)),
  since_at INTEGER NOT NULL
) STRICT;
CREATE INDEX customers_by_mail ON customers (mail);
CREATE INDEX customers_by_name ON customers (name COLLATE NOCASE);

CREATE TABLE sites (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  line TEXT NOT NULL,
  postcode TEXT NOT NULL,
  lng REAL NOT NULL,
  lat REAL NOT NULL,
  zone_id INTEGER REFERENCES zones (id),
  access TEXT NOT NULL
) STRICT;
CREATE INDEX sites_of_customer ON sites (customer_id);

CREATE TABLE jobs (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  site_id INTEGER NOT NULL REFERENCES sites (id),
  service_id INTEGER NOT NULL REFERENCES services (id),
  state TEXT NOT NULL CHECK (state IN ('awaiting deposit', 'agreed', 'done', 'cancelled')),
  total_minor INTEGER NOT NULL CHECK (total_minor >= 0),
  tax_minor INTEGER NOT NULL,
  deposit_minor INTEGER NOT NULL CHECK (deposit_minor BETWEEN 0 AND total_minor),
  note TEXT NOT NULL,
  booked_at INTEGER NOT NULL,
  booked_by TEXT NOT NULL
) STRICT;
CREATE INDEX jobs_of_customer ON jobs (customer_id);

CREATE TABLE job_lines (
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  position INTEGER NOT NULL,
  description TEXT NOT NULL,
  quantity REAL NOT NULL,
  unit_minor INTEGER NOT NULL,
  tax_bp INTEGER NOT NULL,
  amount_minor INTEGER NOT NULL,
  tax_minor INTEGER NOT NULL,
  PRIMARY KEY (job_id, position)
) STRICT, WITHOUT ROWID;

CREATE TABLE repeats (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  site_id INTEGER NOT NULL REFERENCES sites (id),
  service_id INTEGER NOT NULL REFERENCES services (id),
  technician_id INTEGER REFERENCES technicians (id),
  every INTEGER NOT NULL CHECK (every BETWEEN 1 AND 120),
  unit TEXT NOT NULL CHECK (unit IN ('day', 'week', 'month', 'year')),
  start_date TEXT NOT NULL,
  until_date TEXT,
  from_minute INTEGER NOT NULL,
  to_minute INTEGER NOT NULL CHECK (to_minute > from_minute),
  state TEXT NOT NULL CHECK (state IN ('active', 'ended'))
) STRICT;
CREATE INDEX repeats_of_customer ON repeats (customer_id);

-- One trip to a site. A hold is a visit not bought yet, a forecast one not agreed yet: all three keep
-- room in the same way, and become one another without changing their id.
CREATE TABLE visits (
  id INTEGER PRIMARY KEY,
  state TEXT NOT NULL CHECK (state IN ('held', 'forecast', 'promised', 'on the way', 'on site', 'done', 'no access', 'cancelled')),
  job_id INTEGER REFERENCES jobs (id),
  repeat_id INTEGER REFERENCES repeats (id),
  repeat_date TEXT,
  service_id INTEGER NOT NULL REFERENCES services (id),
  zone_id INTEGER REFERENCES zones (id),
  date TEXT NOT NULL,
  window_from INTEGER NOT NULL,
  window_to INTEGER NOT NULL CHECK (window_to > window_from),
  minutes INTEGER NOT NULL CHECK (minutes > 0),
  before_minutes INTEGER NOT NULL CHECK (before_minutes >= 0),
  after_minutes INTEGER NOT NULL CHECK (after_minutes >= 0),
  crew INTEGER NOT NULL CHECK (crew > 0),
  -- The common start of a crew of several, fixed when it is placed.
  meet_at INTEGER,
  lng REAL NOT NULL,
  lat REAL NOT NULL,
  held_until INTEGER,
  hold_key TEXT UNIQUE,
  started_at INTEGER,
  ended_at INTEGER,
  UNIQUE (repeat_id, repeat_date),
  CHECK (job_id IS NOT NULL OR state IN ('held', 'forecast', 'cancelled')),
  CHECK ((state = 'held') = (held_until IS NOT NULL)),
  CHECK (state <> 'forecast' OR repeat_id IS NOT NULL)
) STRICT;
CREATE INDEX visits_by_date ON visits (date);
CREATE INDEX visits_of_job ON visits (job_id);
CREATE INDEX visits_held ON visits (held_until) WHERE state = 'held';

-- Who is where, when: from the moment of driving off to the moment of leaving. A technician's day
-- is always written whole, so the rule below sees it as it will stand.
CREATE TABLE placements (
  visit_id INTEGER NOT NULL REFERENCES visits (id),
  technician_id INTEGER NOT NULL REFERENCES technicians (id),
  date TEXT NOT NULL,
  drive_from INTEGER NOT NULL,
  -- Minutes of driving, without a break that falls in between.
  driving INTEGER NOT NULL CHECK (driving >= 0),
  arrives INTEGER NOT NULL CHECK (arrives >= drive_from),
  leaves INTEGER NOT NULL CHECK (leaves > arrives),
  -- 1 when the visit is over: then this is what happened, and no longer a plan to be kept free.
  settled INTEGER NOT NULL CHECK (settled IN (0, 1)),
  PRIMARY KEY (visit_id, technician_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX placements_of_day ON placements (date, technician_id, drive_from);

CREATE TRIGGER placements_never_overlap BEFORE INSERT ON placements
WHEN NEW.settled = 0 AND EXISTS (
  SELECT 1 FROM placements p
  WHERE p.technician_id = NEW.technician_id AND p.date = NEW.date AND p.settled = 0 AND p.drive_from < NEW.leaves AND p.leaves > NEW.drive_from
)
BEGIN
  SELECT RAISE(ABORT, 'a technician cannot be in two places');
END;

CREATE TRIGGER placements_are_written_anew BEFORE UPDATE ON placements
BEGIN
  SELECT RAISE(ABORT, 'placements are deleted and inserted, so that overlaps are always checked');
END;

-- Every window that was promised for a visit; the last one without an end is the promise in force.
CREATE TABLE promises (
  visit_id INTEGER NOT NULL REFERENCES visits (id),
  made_at INTEGER NOT NULL,
  window_from INTEGER NOT NULL,
  window_to INTEGER NOT NULL,
  ended_at INTEGER,
  PRIMARY KEY (visit_id, made_at, window_from)
) STRICT, WITHOUT ROWID;

CREATE TABLE links (
  id INTEGER PRIMARY KEY,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  nonce TEXT NOT NULL UNIQUE,
  made_at INTEGER NOT NULL,
  revoked_at INTEGER
) STRICT;
CREATE UNIQUE INDEX links_one_in_force ON links (job_id) WHERE revoked_at IS NULL;

-- ---------------------------------------------------------------- money

CREATE TABLE invoices (
  id INTEGER PRIMARY KEY,
  -- Numbers run without gaps: an invoice is never deleted, only cancelled.
  number INTEGER NOT NULL UNIQUE,
  job_id INTEGER NOT NULL UNIQUE REFERENCES jobs (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  issued_at INTEGER NOT NULL,
  due_date TEXT NOT NULL,
  total_minor INTEGER NOT NULL CHECK (total_minor >= 0),
  tax_minor INTEGER NOT NULL,
  cancelled_at INTEGER
) STRICT;
CREATE INDEX invoices_of_customer ON invoices (customer_id);

CREATE TABLE payments (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  purpose TEXT NOT NULL CHECK (purpose IN ('deposit', 'invoice')),
  method TEXT NOT NULL CHECK (method IN ('card', 'cash', 'bank')),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  state TEXT NOT NULL CHECK (state IN ('asked', 'second step', 'received', 'declined')),
  -- One charge per key, here and at the card gateway.
  charge_key TEXT NOT NULL UNIQUE,
  gateway_reference TEXT UNIQUE,
  problem TEXT,
  step_address TEXT,
  asked_at INTEGER NOT NULL,
  settled_at INTEGER,
  CHECK (state <> 'received' OR settled_at IS NOT NULL)
) STRICT;
CREATE INDEX payments_of_job ON payments (job_id);
-- While one charge for a job's deposit or invoice is under way, no second one can start.
CREATE UNIQUE INDEX payments_one_under_way ON payments (job_id, purpose) WHERE state IN ('asked', 'second step');
-- A deposit is received once.
CREATE UNIQUE INDEX payments_one_deposit ON payments (job_id) WHERE purpose = 'deposit' AND state = 'received';

CREATE TABLE applications (
  payment_id INTEGER NOT NULL REFERENCES payments (id),
  invoice_id INTEGER NOT NULL REFERENCES invoices (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  applied_at INTEGER NOT NULL,
  PRIMARY KEY (payment_id, invoice_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX applications_of_invoice ON applications (invoice_id);

CREATE TRIGGER applications_within_both BEFORE INSERT ON applications
BEGIN
  SELECT RAISE(ABORT, 'more is applied than was received')
  WHERE NEW.amount_minor > (SELECT amount_minor FROM payments WHERE id = NEW.payment_id AND state = 'received')
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE payment_id = NEW.payment_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = NEW.payment_id)
    OR NOT EXISTS (SELECT 1 FROM payments WHERE id = NEW.payment_id AND state = 'received');
  SELECT RAISE(ABORT, 'more is applied than is due')
  WHERE NEW.amount_minor > (SELECT total_minor FROM invoices WHERE id = NEW.invoice_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE invoice_id = NEW.invoice_id);
END;

CREATE TABLE refunds (
  id INTEGER PRIMARY KEY,
  payment_id INTEGER NOT NULL REFERENCES payments (id),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  refund_key TEXT NOT NULL UNIQUE,
  state TEXT NOT NULL CHECK (state IN ('asked', 'paid back')),
  asked_at INTEGER NOT NULL,
  reason TEXT NOT NULL
) STRICT;
CREATE INDEX refunds_of_payment ON refunds (payment_id);

CREATE TRIGGER refunds_within_received BEFORE INSERT ON refunds
BEGIN
  SELECT RAISE(ABORT, 'more is paid back than is left of the payment')
  WHERE NEW.amount_minor > (SELECT amount_minor FROM payments WHERE id = NEW.payment_id AND state = 'received')
    - (SELECT coalesce(sum(amount_minor), 0) FROM applications WHERE payment_id = NEW.payment_id)
    - (SELECT coalesce(sum(amount_minor), 0) FROM refunds WHERE payment_id = NEW.payment_id);
END;

-- The double-entry journal: only ever added to.
CREATE TABLE journal (
  id INTEGER PRIMARY KEY,
  event TEXT NOT NULL,
  at INTEGER NOT NULL,
  account TEXT NOT NULL CHECK (account IN ('card', 'cash', 'bank', 'receivable', 'held', 'sales', 'tax')),
  amount_minor INTEGER NOT NULL CHECK (amount_minor <> 0),
  UNIQUE (event, account)
) STRICT;
CREATE TRIGGER journal_is_never_changed BEFORE UPDATE ON journal BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
CREATE TRIGGER journal_is_never_deleted BEFORE DELETE ON journal BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;

-- ---------------------------------------------------------------- messages

CREATE TABLE messages (
  id INTEGER PRIMARY KEY,
  -- One message per occasion and channel, whatever happens: 'reminder of visit 12 at 29384400, mail'.
  occasion TEXT NOT NULL UNIQUE,
  channel TEXT NOT NULL CHECK (channel IN ('mail', 'text')),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  job_id INTEGER REFERENCES jobs (id),
  recipient TEXT NOT NULL,
  subject TEXT NOT NULL,
  body TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('waiting', 'sent', 'bounced', 'not known')),
  written_at INTEGER NOT NULL,
  sent_at INTEGER
) STRICT;
CREATE INDEX messages_of_customer ON messages (customer_id, written_at);

-- Texts that came in.
CREATE TABLE replies (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER REFERENCES customers (id),
  sender TEXT NOT NULL,
  body TEXT NOT NULL,
  received_at INTEGER NOT NULL
) STRICT;

-- ---------------------------------------------------------------- what leaves the building, and who did what

CREATE TABLE outbox (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL,
  key TEXT NOT NULL UNIQUE,
  payload TEXT NOT NULL CHECK (json_valid(payload)),
  state TEXT NOT NULL CHECK (state IN ('ready', 'leased', 'done', 'given up')),
  attempts INTEGER NOT NULL,
  run_after INTEGER NOT NULL,
  leased_until INTEGER,
  last_problem TEXT
) STRICT;
CREATE INDEX outbox_due ON outbox (run_after) WHERE state IN ('ready', 'leased');

CREATE TABLE audit (
  id INTEGER PRIMARY KEY,
  at INTEGER NOT NULL,
  actor TEXT NOT NULL,
  operation TEXT NOT NULL
) STRICT;

-- Written by triggers on every table (store/audit.ts): no change can be forgotten.
CREATE TABLE audit_changes (
  id INTEGER PRIMARY KEY,
  audit_id INTEGER NOT NULL REFERENCES audit (id),
  entity TEXT NOT NULL,
  row_key TEXT NOT NULL,
  before TEXT,
  after TEXT
) STRICT;
CREATE INDEX audit_changes_of_row ON audit_changes (entity, row_key);
