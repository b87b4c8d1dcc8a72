-- Tries at what may be guessed: how many of a kind until when (epoch milliseconds of the real clock). Keys are hashes: nobody
-- is told by them. In the database, so that a restart forgets none.
CREATE TABLE tries (
  key TEXT PRIMARY KEY,
  n INTEGER NOT NULL CHECK (n >= 0),
  ends_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX tries_by_end ON tries (ends_at);
