-- Tries at what may be guessed: how many of a kind until when (epoch milliseconds of the real clock). Keys are hashes: nobody
-- is told by them. In the database, so that a restart forgets none.
CREATE TABLE tries (
  key TEXT PRIMARY KEY,
  n INTEGER NOT NULL CHECK (n >= 0),
  ends_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX tries_by_end ON tries (ends_at);

-- Bookings that one customer may make online: so many that lie ahead or were made within a day.
ALTER TABLE business ADD COLUMN proved_each INTEGER NOT NULL DEFAULT 10 CHECK (proved_each BETWEEN 1 AND 10000);
CREATE INDEX jobs_by_mail ON jobs (mail COLLATE NOCASE) WHERE mail <> '';
CREATE INDEX jobs_by_phone ON jobs (phone) WHERE phone <> '';
CREATE INDEX jobs_by_browser ON jobs (from_browser) WHERE from_browser IS NOT NULL;
