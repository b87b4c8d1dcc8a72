-- What customers do by their own link: confirm, move, cancel, add.

-- Hours before the window until which customers may move and cancel by themselves.
ALTER TABLE business ADD COLUMN move_hours INTEGER NOT NULL DEFAULT 24 CHECK (move_hours BETWEEN 0 AND 720);
ALTER TABLE business ADD COLUMN cancel_hours INTEGER NOT NULL DEFAULT 2 CHECK (cancel_hours BETWEEN 0 AND 720);

-- The terms of the service as they stood when the job was agreed, as core/catalogue/terms.ts has them.
ALTER TABLE jobs ADD COLUMN terms TEXT NOT NULL DEFAULT '{"late":{"hours":24,"kind":"none","value":0},"noAccessMinor":0}' CHECK (json_valid(terms));

-- What is asked instead of the work, where it fell through: then the invoice is about this.
CREATE TABLE fees (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  description TEXT NOT NULL CHECK (length(description) > 0),
  amount_minor INTEGER NOT NULL CHECK (amount_minor > 0),
  tax_bp INTEGER NOT NULL CHECK (tax_bp BETWEEN 0 AND 10000),
  tax_minor INTEGER NOT NULL CHECK (tax_minor >= 0),
  made_at INTEGER NOT NULL
) STRICT;

-- When the customer said that the window suits.
ALTER TABLE visits ADD COLUMN confirmed_at INTEGER;

-- What customers add afterwards: words and pictures (a JSON list of tokens).
CREATE TABLE additions (
  id INTEGER PRIMARY KEY,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  made_at INTEGER NOT NULL,
  words TEXT NOT NULL,
  photos TEXT NOT NULL CHECK (json_valid(photos)),
  CHECK (words <> '' OR photos <> '[]')
) STRICT;
CREATE INDEX additions_of_job ON additions (job_id);

-- Where customers come from: known sources by the end of their link, /book?from=slug. A job keeps what
-- it came with: a known slug, 'other: ' and what stood there, or nothing.
CREATE TABLE sources (
  slug TEXT PRIMARY KEY CHECK (length(slug) > 0),
  name TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(name) > 0),
  made_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
ALTER TABLE jobs ADD COLUMN source TEXT NOT NULL DEFAULT '';

CREATE TABLE coupons (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE CHECK (length(code) BETWEEN 3 AND 30),
  kind TEXT NOT NULL CHECK (kind IN ('percent', 'fixed')),
  value INTEGER NOT NULL CHECK (value > 0 AND (kind = 'fixed' OR value <= 10000)),
  -- Ids of the services it counts for; none: all.
  services TEXT NOT NULL CHECK (json_valid(services)),
  first_date TEXT,
  last_date TEXT,
  most INTEGER CHECK (most > 0),
  active INTEGER NOT NULL CHECK (active IN (0, 1))
) STRICT;
ALTER TABLE jobs ADD COLUMN coupon_id INTEGER REFERENCES coupons (id);
CREATE INDEX jobs_by_coupon ON jobs (coupon_id) WHERE coupon_id IS NOT NULL;

-- Entries that changed nothing are taken back; without this each would be looked for among all changes.
CREATE INDEX audit_changes_of_entry ON audit_changes (audit_id);
DELETE FROM audit WHERE id NOT IN (SELECT audit_id FROM audit_changes);
