-- Campaigns: who is written to about what, in which words, for visits on which days; and each invitation with its link.
CREATE TABLE campaigns (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL CHECK (trim(name) <> ''),
  state TEXT NOT NULL CHECK (state IN ('draft', 'running', 'paused', 'ended')),
  -- Why it has ended, as the office reads it.
  end_reason TEXT NOT NULL DEFAULT '',
  service_id INTEGER NOT NULL REFERENCES services (id),
  coupon_id INTEGER REFERENCES coupons (id),
  audience TEXT NOT NULL CHECK (json_valid(audience)),
  -- Its words by language and channel.
  texts TEXT NOT NULL CHECK (json_valid(texts)),
  -- The days on which the visits may be.
  first_date TEXT NOT NULL,
  last_date TEXT NOT NULL CHECK (last_date >= first_date),
  -- When invitations go out each day (minute of the day), how many at most, and for how many days their room is kept free of others.
  at_minute INTEGER NOT NULL CHECK (at_minute BETWEEN 0 AND 1439),
  most_a_day INTEGER NOT NULL CHECK (most_a_day BETWEEN 1 AND 500),
  answer_days INTEGER NOT NULL CHECK (answer_days BETWEEN 1 AND 60),
  -- When the next ones go out (epoch minutes), while it runs.
  next_at INTEGER,
  made_by TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  began_at INTEGER,
  ended_at INTEGER,
  CHECK ((state = 'running') = (next_at IS NOT NULL))
) STRICT;
CREATE INDEX campaigns_due ON campaigns (next_at) WHERE next_at IS NOT NULL;

CREATE TABLE campaign_invites (
  id INTEGER PRIMARY KEY,
  campaign_id INTEGER NOT NULL REFERENCES campaigns (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  -- Where the visit would be.
  site_id INTEGER NOT NULL REFERENCES sites (id),
  nonce TEXT NOT NULL,
  invited_at INTEGER NOT NULL,
  -- When its link was opened first.
  opened_at INTEGER,
  -- What was booked upon it, by the link or in any other way.
  job_id INTEGER REFERENCES jobs (id)
) STRICT;
CREATE INDEX campaign_invites_of_campaign ON campaign_invites (campaign_id, invited_at);
CREATE INDEX campaign_invites_of_customer ON campaign_invites (customer_id, invited_at);
CREATE INDEX campaign_invites_of_job ON campaign_invites (job_id) WHERE job_id IS NOT NULL;
ALTER TABLE messages ADD COLUMN invite_id INTEGER REFERENCES campaign_invites (id);
-- Which messages files go along with.
CREATE INDEX messages_with_files ON messages (id) WHERE photos <> '[]';
CREATE INDEX messages_of_invite ON messages (invite_id) WHERE invite_id IS NOT NULL;

-- Reviews: asked for once a job; what was good and what was not, the answer of the business, and where else it was written.
ALTER TABLE business ADD COLUMN review_when TEXT NOT NULL DEFAULT 'never' CHECK (review_when IN ('never', 'done', 'paid'));
ALTER TABLE business ADD COLUMN review_hours INTEGER NOT NULL DEFAULT 18 CHECK (review_hours BETWEEN 0 AND 336);
ALTER TABLE business ADD COLUMN review_rest_days INTEGER NOT NULL DEFAULT 180 CHECK (review_rest_days BETWEEN 0 AND 3650);
-- From when on jobs are asked about: nobody is asked about last year.
ALTER TABLE business ADD COLUMN review_since INTEGER;
CREATE TABLE review_places (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL CHECK (trim(name) <> ''),
  address TEXT NOT NULL,
  position INTEGER NOT NULL
) STRICT;
CREATE TABLE reviews (
  id INTEGER PRIMARY KEY,
  job_id INTEGER NOT NULL UNIQUE REFERENCES jobs (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  nonce TEXT NOT NULL,
  asked_at INTEGER NOT NULL,
  rating INTEGER CHECK (rating BETWEEN 1 AND 5),
  praise TEXT NOT NULL DEFAULT '',
  trouble TEXT NOT NULL DEFAULT '',
  answered_at INTEGER,
  -- The places to which its writer has gone, by name.
  went_to TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(went_to)),
  reply TEXT NOT NULL DEFAULT '',
  replied_by TEXT,
  replied_at INTEGER,
  -- When somebody of the office has dealt with the trouble.
  settled_at INTEGER,
  CHECK ((answered_at IS NULL) = (rating IS NULL))
) STRICT;
CREATE INDEX reviews_of_customer ON reviews (customer_id, asked_at);
CREATE INDEX reviews_answered ON reviews (answered_at) WHERE answered_at IS NOT NULL;
CREATE INDEX reviews_in_trouble ON reviews (answered_at) WHERE trouble <> '' AND settled_at IS NULL;

-- Loyalty: points for what is paid, and what one point takes off; null: there are none.
ALTER TABLE business ADD COLUMN point_per_minor INTEGER CHECK (point_per_minor > 0);
ALTER TABLE business ADD COLUMN point_minor INTEGER NOT NULL DEFAULT 5 CHECK (point_minor > 0);
ALTER TABLE business ADD COLUMN points_least INTEGER NOT NULL DEFAULT 100 CHECK (points_least > 0);
CREATE TABLE points (
  id INTEGER PRIMARY KEY,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  kind TEXT NOT NULL CHECK (kind IN ('paid', 'refunded', 'used', 'given back', 'by hand')),
  points INTEGER NOT NULL CHECK (points <> 0),
  payment_id INTEGER REFERENCES payments (id),
  job_id INTEGER REFERENCES jobs (id),
  words TEXT NOT NULL DEFAULT '',
  at INTEGER NOT NULL
) STRICT;
CREATE INDEX points_of_customer ON points (customer_id, at);
CREATE INDEX points_of_payment ON points (payment_id) WHERE payment_id IS NOT NULL;
CREATE INDEX points_of_job ON points (job_id) WHERE job_id IS NOT NULL;
-- What is used twice, or given back twice, is refused by the database itself.
CREATE UNIQUE INDEX points_used_once ON points (job_id, kind) WHERE kind IN ('used', 'given back');

-- Bills of jobs line by line, so that those of one job are found by its index where many jobs are asked about: a view that groups is
-- worked out whole each time.
DROP VIEW job_balances;
DROP VIEW job_bills;
CREATE VIEW billed_lines AS
  SELECT l.job_id, i.id AS invoice_id, i.job_id IS NULL AS shared, l.amount_minor
  FROM invoice_lines l JOIN invoices i ON i.id = l.invoice_id
  WHERE l.job_id IS NOT NULL
    AND (i.total_minor = 0 OR i.total_minor > (SELECT coalesce(sum(total_minor), 0) FROM credit_notes WHERE invoice_id = i.id));

-- On which invoice that stands a job is; `shared` where it is about other work too.
CREATE VIEW job_bills AS
  SELECT job_id, invoice_id, shared, sum(amount_minor) AS amount_minor FROM billed_lines GROUP BY job_id, invoice_id;

-- What the work of a job, or the fee that stands in its place, comes to; what was received for it and not given back; and
-- what is still to be paid.
CREATE VIEW job_balances AS
  SELECT job_id, asked_minor, received_minor, coalesce(open_minor, max(0, asked_minor - received_minor)) AS due_minor
  FROM (
    SELECT j.id AS job_id,
      coalesce((SELECT amount_minor FROM fees WHERE job_id = j.id), iif(j.state = 'cancelled', 0, j.total_minor)) AS asked_minor,
      coalesce((SELECT applied_minor FROM invoice_balances WHERE job_id = j.id), 0)
        + (SELECT coalesce(sum(b.left_minor), 0) FROM payment_balances b WHERE b.job_id = j.id) AS received_minor,
      coalesce(
        (SELECT open_minor FROM invoice_balances WHERE job_id = j.id),
        (SELECT min(sum(l.amount_minor), (SELECT open_minor FROM invoice_balances b WHERE b.invoice_id = l.invoice_id))
          FROM billed_lines l WHERE l.job_id = j.id AND l.shared GROUP BY l.invoice_id LIMIT 1)
      ) AS open_minor
    FROM jobs j
  );
