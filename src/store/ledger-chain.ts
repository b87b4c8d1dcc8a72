import type Database from "better-sqlite3";
import { createHash } from "node:crypto";

const sha256 = (text: string): string => createHash("sha256").update(text).digest("hex");

type Sql = <Row>(text: string) => Database.Statement<unknown[], Row>;

/** Lets SQL of this connection write the chain of the ledger. */
export const installSha256 = (db: Database.Database): void =>
  void db.function("sha256", { deterministic: true, directOnly: true }, (text) => sha256(String(text)));

/** Binds an event with its entries to all before it. It is the last one, and its entries stand. */
export const chain = (sql: Sql, eventId: number): void =>
  void sql(
    `INSERT INTO ledger_chain (event_id, hash)
      SELECT event_id, sha256(coalesce((SELECT hash FROM ledger_chain WHERE event_id < t.event_id ORDER BY event_id DESC LIMIT 1), '') || text)
        FROM ledger_texts t WHERE event_id = ?`,
  ).run(eventId);

/** Where the chain is broken, in words: an event, or all before one, is not what it was when it was written. Null where it holds. */
export function brokenChain(sql: Sql): string | null {
  let before = "";
  for (const { id, text, hash } of sql<{ id: number; text: string; hash: string | null }>(
    `SELECT t.event_id AS id, t.text, c.hash FROM ledger_texts t LEFT JOIN ledger_chain c ON c.event_id = t.event_id
      ORDER BY t.event_id`,
  ).iterate()) {
    if (hash === null || hash !== sha256(before + text)) return `event ${id}, or what was before it`;
    before = hash;
  }
  const last = sql<{ id: number | null }>(
    "SELECT max(event_id) AS id FROM ledger_chain WHERE event_id > (SELECT coalesce(max(id), 0) FROM ledger_events)",
  ).get()!.id;
  return last === null ? null : `event ${last} is missing`;
}

/** The last hash of the chain: whoever has written it down can tell that nothing before it was changed since. */
export const headOfChain = (sql: Sql): { events: number; hash: string } | null =>
  sql<{ events: number; hash: string }>(
    "SELECT event_id AS events, hash FROM ledger_chain ORDER BY event_id DESC LIMIT 1",
  ).get() ?? null;
