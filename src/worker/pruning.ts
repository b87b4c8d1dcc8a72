import { dayMs, outboxDays } from "@/core/horizons";
import type { Hogar } from "@/kernel/hogar";
import type { ViewContext } from "@/kernel/operation";
import { seenByWorker } from "@/kernel/scheduled";
import { pruneTries } from "@/kernel/tries";
import { modules } from "@/registry/modules";
import { insertRow } from "@/store/insert";

/** Rows in one transaction. */
const chunk = 500;

/** What is set up changes seldom and is asked for later ("prices before"): its history stays whole. */
const keptWhole = "('services', 'extras', 'business')";

/** Lets go of what is kept no longer, a few hundred rows at a time. The audit's who, when and what stay for ever. */
export function prune(hogar: Hogar, until: number): number | null {
  const { db } = hogar.store;
  const context = seenByWorker(hogar);
  const inChunks = (some: (context: ViewContext, most: number) => number) => {
    while (db.transaction(() => some(context, chunk)).immediate() === chunk) if (performance.now() > until) return true;
    return false;
  };
  const all = [
    pruneOutbox,
    ...modules.flatMap(({ prune }) => prune ?? []),
    () => pruneTries(hogar, chunk),
    forgetChanges,
  ];
  return all.some(inChunks) ? 0 : null;
}

const pruneOutbox = ({ sql, now }: ViewContext, most: number): number =>
  sql("DELETE FROM outbox WHERE id IN (SELECT id FROM outbox WHERE state = 'done' AND ended_at < ? LIMIT ?)").run(
    now - outboxDays * dayMs,
    most,
  ).changes;

/** Empties what rows were before and after changes of long ago, in the order in which they were written. Answers how many were looked at. */
function forgetChanges({ sql, now, business }: ViewContext, most: number): number {
  const { position } = sql<{ position: number }>(
    "SELECT coalesce((SELECT position FROM worker_marks WHERE name = 'audit changes'), 0) AS position",
  ).get()!;
  const through = sql<{ n: number; last: number | null }>(
    `SELECT count(*) AS n, max(id) AS last
      FROM (SELECT c.id FROM audit_changes c JOIN audit a ON a.id = c.audit_id WHERE c.id > ? AND c.id <= ? AND a.at < ?)`,
  ).get(position, position + most, now - business.keep_changes_days * dayMs)!;
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
