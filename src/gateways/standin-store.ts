import Database from "better-sqlite3";
import { createHmac, timingSafeEqual } from "node:crypto";
import { mkdirSync } from "node:fs";
import path from "node:path";

/** What the stand-ins for cards and texts remember: a file of their own, as an outside service would have. Without a folder it is kept in memory. */
export function openStandinStore(folder: string | null): Database.Database {
  if (folder) mkdirSync(folder, { recursive: true });
  const db = new Database(folder ? path.join(folder, "services.sqlite") : ":memory:");
  db.pragma("journal_mode = WAL");
  db.pragma("busy_timeout = 5000");
  db.exec(`
    CREATE TABLE IF NOT EXISTS card_tokens (token TEXT PRIMARY KEY, behaviour TEXT NOT NULL, last_digits TEXT NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS charges (
      key TEXT PRIMARY KEY, reference TEXT NOT NULL UNIQUE, amount_minor INTEGER NOT NULL, currency TEXT NOT NULL,
      description TEXT NOT NULL, state TEXT NOT NULL, last_digits TEXT NOT NULL, at INTEGER NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS card_refunds (key TEXT PRIMARY KEY, reference TEXT NOT NULL, amount_minor INTEGER NOT NULL, at INTEGER NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS payouts (reference TEXT PRIMARY KEY, amount_minor INTEGER NOT NULL, at INTEGER NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS payouts_at_once (key TEXT PRIMARY KEY, payout TEXT, fee_minor INTEGER NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS payout_items (payout TEXT NOT NULL, kind TEXT NOT NULL, reference TEXT NOT NULL, gross_minor INTEGER NOT NULL, fee_minor INTEGER NOT NULL, PRIMARY KEY (kind, reference)) STRICT;
    CREATE TABLE IF NOT EXISTS disputes (reference TEXT PRIMARY KEY, amount_minor INTEGER NOT NULL, state TEXT NOT NULL, at INTEGER NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS charge_ways (key TEXT PRIMARY KEY, how TEXT NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS reader_waits (key TEXT PRIMARY KEY, amount_minor INTEGER NOT NULL, currency TEXT NOT NULL, at INTEGER NOT NULL, held INTEGER NOT NULL DEFAULT 0) STRICT;
    CREATE TABLE IF NOT EXISTS texts (
      id INTEGER PRIMARY KEY, key TEXT UNIQUE, number TEXT NOT NULL, direction TEXT NOT NULL, body TEXT NOT NULL, at INTEGER NOT NULL,
      shown INTEGER NOT NULL DEFAULT 1) STRICT;
    CREATE TABLE IF NOT EXISTS text_notices (reference TEXT PRIMARY KEY, state TEXT NOT NULL, problem TEXT NOT NULL, taken INTEGER NOT NULL DEFAULT 0) STRICT;
    CREATE TABLE IF NOT EXISTS ways (name TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
    CREATE TABLE IF NOT EXISTS calls (
      key TEXT PRIMARY KEY, number TEXT NOT NULL, words TEXT NOT NULL, language TEXT NOT NULL, state TEXT NOT NULL, pressed TEXT NOT NULL, at INTEGER NOT NULL) STRICT;
  `);
  // What an older stand-in has kept knew no texts that are held back.
  const known = db.prepare("SELECT 1 FROM pragma_table_info('texts') WHERE name = 'shown'").get();
  if (!known) db.exec("ALTER TABLE texts ADD COLUMN shown INTEGER NOT NULL DEFAULT 1");
  return db;
}

export const sign = (body: string, secret: string): string => createHmac("sha256", secret).update(body).digest("hex");

export function isSigned(body: string, signature: string, secret: string): boolean {
  const expected = Buffer.from(sign(body, secret));
  const given = Buffer.from(signature);
  return expected.length === given.length && timingSafeEqual(expected, given);
}
