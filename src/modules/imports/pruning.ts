import { dayMs, importRowsDays } from "@/core/horizons";
import type { ViewContext } from "@/kernel/operation";

/** Rows of files that were imported long ago. Answers how many went. */
export function pruneImports({ sql, now }: ViewContext, most: number): number {
  const old = "SELECT id FROM imports WHERE made_at < @before";
  const before = now - importRowsDays * dayMs;
  sql(`DELETE FROM import_keys WHERE import_id IN (${old})`).run({ before });
  return sql(
    `DELETE FROM import_rows WHERE id IN (SELECT id FROM import_rows WHERE import_id IN (${old}) LIMIT @most)`,
  ).run({ before, most }).changes;
}
