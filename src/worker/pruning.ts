import { dayMs, endedSessionDays, importRowsDays, outboxDays } from "@/core/horizons";
import type { Hogar } from "@/kernel/hogar";
import { viewContext } from "@/kernel/operation";
import { pruneTries } from "@/kernel/tries";
import { insertRow } from "@/store/insert";
import { worker } from "./effects";

/** Rows in one transaction. */
const chunk = 500;

/** What is set up changes seldom and is asked for later ("prices before"): its history stays whole. */
const keptWhole = "('services', 'extras', 'business')";

/** Lets go of what is kept no longer, a few hundred rows at a time. The audit's who, when and what stay for ever. */
export function prune(hogar: Hogar, until: number): number | null {
  const { sql, db } = hogar.store;
  const { now, business } = viewContext(hogar, worker);
  const inChunks = (some: () => number) => {
    while (db.transaction(some).immediate() === chunk) if (performance.now() > until) return true;
    return false;
  };
  const left =
    inChunks(
      () =>
        sql("DELETE FROM outbox WHERE id IN (SELECT id FROM outbox WHERE state = 'done' AND ended_at < ? LIMIT ?)").run(
          now - outboxDays * dayMs,
          chunk,
        ).changes,
    ) ||
    inChunks(
      () =>
        sql("DELETE FROM sessions WHERE id IN (SELECT id FROM sessions WHERE expires_at < ? LIMIT ?)").run(
          Date.now() - endedSessionDays * dayMs,
          chunk,
        ).changes,
    ) ||
    inChunks(() => pruneTries(hogar, chunk)) ||
    inChunks(() => forgetImports(hogar, now - importRowsDays * dayMs)) ||
    inChunks(() => forgetRows(hogar, now - business.keep_changes_days * dayMs));
  return left ? 0 : null;
}

/** Rows of files that were imported long ago. Answers how many went. */
function forgetImports({ store: { sql } }: Hogar, before: number): number {
  const old = "SELECT id FROM imports WHERE made_at < @before";
  sql(`DELETE FROM import_keys WHERE import_id IN (${old})`).run({ before });
  return sql(
    `DELETE FROM import_rows WHERE id IN (SELECT id FROM import_rows WHERE import_id IN (${old}) LIMIT @chunk)`,
  ).run({ before, chunk }).changes;
}

/** Empties what rows were before and after changes up to a moment, in the order in which they were written. Answers how many were looked at. */
function forgetRows({ store: { sql } }: Hogar, before: number): number {
  const { position } = sql<{ position: number }>(
    "SELECT coalesce((SELECT position FROM worker_marks WHERE name = 'audit changes'), 0) AS position",
  ).get()!;
  const through = sql<{ n: number; last: number | null }>(
    `SELECT count(*) AS n, max(id) AS last
      FROM (SELECT c.id FROM audit_changes c JOIN audit a ON a.id = c.audit_id WHERE c.id > ? AND c.id <= ? AND a.at < ?)`,
  ).get(position, position + chunk, before)!;
  if (through.last === null) return 0;
  sql(
    `UPDATE audit_changes SET before = NULL, after = NULL WHERE id > ? AND id <= ? AND entity NOT IN ${keptWhole}`,
  ).run(position, through.last);
  insertRow(
    sql,
    "worker_marks",
    { name: "audit changes", position: through.last },
    "ON CONFLICT DO UPDATE SET position = excluded.position",
  );
  return through.n;
}
