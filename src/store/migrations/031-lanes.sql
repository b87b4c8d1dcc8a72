-- Each kind of thing that is done outside has a lane of its own: a slow one holds up none of the others.
ALTER TABLE outbox ADD COLUMN lane TEXT NOT NULL DEFAULT 'rest' CHECK (lane IN ('cards', 'mail', 'text', 'voice', 'rest'));
UPDATE outbox SET lane = CASE
    WHEN kind IN ('charge', 'refund', 'keep card', 'reader', 'pay out') THEN 'cards'
    WHEN kind = 'tell' THEN 'mail'
    WHEN kind = 'message' THEN coalesce((SELECT channel FROM messages WHERE id = payload ->> 'messageId'), 'mail')
    ELSE 'rest' END
  WHERE state IN ('ready', 'leased');
-- When it was asked for (epoch milliseconds): nothing is tried for longer than it is of use.
ALTER TABLE outbox ADD COLUMN asked_at INTEGER NOT NULL DEFAULT 0;
UPDATE outbox SET asked_at = run_after WHERE state IN ('ready', 'leased');
DROP INDEX outbox_due;
CREATE INDEX outbox_due ON outbox (lane, run_after, id) WHERE state IN ('ready', 'leased');

-- Lanes in which the last tries have failed, one after the other; those that work have no row.
CREATE TABLE lanes (
  lane TEXT PRIMARY KEY,
  failures INTEGER NOT NULL,
  failing_since INTEGER NOT NULL,
  problem TEXT NOT NULL,
  -- Nothing is tried before this moment.
  paused_until INTEGER NOT NULL
) STRICT;

-- When a person has dealt with a message that did not get through: sent it again, or told its reader otherwise.
ALTER TABLE messages ADD COLUMN settled_at INTEGER;
CREATE INDEX messages_lost ON messages (written_at) WHERE state IN ('failed', 'not known') AND settled_at IS NULL;
