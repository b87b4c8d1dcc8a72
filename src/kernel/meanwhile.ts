import { Refusal } from "@/core/problems";
import type { Store } from "@/store/database";

/** The number of the last change, as the audit has it; 0 before the first. */
export const lastChange = ({ sql }: Pick<Store, "sql">): number =>
  sql<{ id: number }>("SELECT coalesce(max(id), 0) AS id FROM audit").get()!.id;

/**
 * Refuses what would write over somebody: where the same form was saved since, of the same thing if its input names one.
 * What is new writes over nobody. The refusal says who it was and which change was the last, to compare with.
 */
export function mustBeUnchanged(store: Pick<Store, "sql">, operation: string, input: unknown, since: number): void {
  const { id } = (input ?? {}) as { id?: unknown };
  if (id === null) return;
  const other = store
    .sql<{ actor: string; at: number }>(
      `SELECT a.actor, a.at FROM audit a
        WHERE a.id > @since AND a.operation = @operation
          AND (@key IS NULL OR EXISTS (SELECT 1 FROM audit_changes c WHERE c.audit_id = a.id AND c.row_key = @key))
        ORDER BY a.id DESC LIMIT 1`,
    )
    .get({ since, operation, key: id === undefined ? null : String(id) });
  if (!other) return;
  const who = /^person \d+ (.*)$/.exec(other.actor)?.[1] ?? "Somebody";
  throw new Refusal("changed-meanwhile", {
    sentence: `${who} has saved this since you opened it. Look at what both of you have changed.`,
    details: { who, asOf: lastChange(store) },
  });
}
