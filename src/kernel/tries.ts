import type { Hogar } from "./hogar";
import { hashed } from "./keys";

/** So many tries within so long, in milliseconds. */
export interface MostTries {
  most: number;
  duringMs: number;
}

/**
 * Counts a try at something that may be guessed, before it is looked at: of many at once no more are looked at than of the same
 * one after the other. Tries are counted in the database, by the real clock. Answers whether this one may be made.
 */
export function takeTry({ store: { sql }, keys }: Hogar, what: string, { most, duringMs }: MostTries): boolean {
  const now = Date.now();
  const { n } = sql<{ n: number }>(
    `INSERT INTO tries (key, n, ends_at) VALUES (@key, 1, @ends)
      ON CONFLICT (key) DO UPDATE SET n = iif(ends_at <= @now, 1, min(n + 1, @beyond)), ends_at = iif(ends_at <= @now, @ends, ends_at)
      RETURNING n`,
  ).get({ key: keyOf(keys, what), now, ends: now + duringMs, beyond: most + 1 })!;
  return n <= most;
}

/** A try that was right does not count. */
export const giveTryBack = ({ store: { sql }, keys }: Hogar, what: string): void =>
  void sql("UPDATE tries SET n = n - 1 WHERE key = ? AND n > 0").run(keyOf(keys, what));

/** Everything that was tried at this counts no more. */
export const forgetTries = ({ store: { sql }, keys }: Hogar, what: string): void =>
  void sql("DELETE FROM tries WHERE key = ?").run(keyOf(keys, what));

/** Lets go of tries whose time is over. Answers how many, `most` at the most. */
export const pruneTries = ({ store: { sql } }: Hogar, most: number): number =>
  sql("DELETE FROM tries WHERE key IN (SELECT key FROM tries WHERE ends_at <= ? LIMIT ?)").run(Date.now(), most)
    .changes;

const keyOf = (keys: Hogar["keys"], what: string): string => hashed(keys, "tries", what);
