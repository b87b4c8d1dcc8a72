import { mustPerform } from "@/kernel/operation";
import type { Hogar } from "@/kernel/hogar";
import type { ScheduledJob } from "@/kernel/scheduled";
import { goOnWithImport } from "./operations/go-on-with-import";

/** Rows of an import in one transaction, at most. */
const importRowsAtOnce = 200;

/** Imports under way, in pieces: the record says whose import it was that changed something. */
function goOnWithImports(hogar: Hogar, until: number): number | null {
  for (const { id, made_by } of hogar.store
    .sql<{ id: number; made_by: string }>(
      "SELECT id, made_by FROM imports WHERE state IN ('checking', 'taking', 'undoing') ORDER BY id",
    )
    .all()) {
    const actor = { kind: "system", name: `import ${id} of ${made_by}` } as const;
    for (let more = true; more;) {
      if (performance.now() > until) return id;
      more = mustPerform(hogar, goOnWithImport, { importId: id, most: importRowsAtOnce }, actor).more;
    }
  }
  return null;
}

export const importJobs: readonly ScheduledJob[] = [{ name: "imports", order: 30, everyMs: 0, run: goOnWithImports }];
