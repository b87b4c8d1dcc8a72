import type { OperationContext } from "@/kernel/operation";
import { notePossibleDuplicate } from "@/modules/customers/same-person";
import { mergeThreads } from "@/modules/messages/threads";
import { mergedTermsColumn } from "@/store/columns";
import { takeTerms, type TermGroup } from "./merging-terms";

/** Everything that belongs to a customer. */
export const belongings = [
  "sites",
  "jobs",
  "repeats",
  "invoices",
  "payments",
  "messages",
  "replies",
  "consents",
  "cards",
  "customer_tags",
  "points",
  "reviews",
  "campaign_invites",
] as const;

/** What a customer takes over from one who turns out to be the same person, where they have nothing of their own there. */
const gaps = ["mail", "phone", "technician_note", "inside_note", "source"] as const;

/** Answers the columns that were filled. */
const fillGaps = ({ sql }: OperationContext, keepId: number, goneId: number): string[] =>
  gaps.filter(
    (column) =>
      sql(
        `UPDATE customers SET ${column} = (SELECT ${column} FROM customers WHERE id = @goneId)
          WHERE id = @keepId AND ${column} = '' AND EXISTS (SELECT 1 FROM customers WHERE id = @goneId AND ${column} <> '')`,
      ).run({ keepId, goneId }).changes > 0,
  );

/** Empties again what was filled, where it has not been changed since. */
export function emptyGaps({ sql }: OperationContext, keepId: number, goneId: number, filled: readonly string[]): void {
  for (const column of gaps.filter((name) => filled.includes(name)))
    sql(
      `UPDATE customers SET ${column} = '' WHERE id = @keepId AND ${column} = (SELECT ${column} FROM customers WHERE id = @goneId)`,
    ).run({ keepId, goneId });
}

/** What belongs to one goes to the other, whom they are. What was moved is taken down with the two, so that it can be taken back. Answers the pair. */
export function joinCustomers(
  context: OperationContext,
  keepId: number,
  goneId: number,
  /** What of the other's terms counts where both have agreed something. */
  takes: readonly TermGroup[] = [],
): number {
  const { sql } = context;
  notePossibleDuplicate(context, keepId, goneId);
  const moved = Object.fromEntries(
    belongings.map((table) => [
      table,
      // A tag that both had stays with the one that is gone; nothing else can stand in the way.
      sql<{ id: number }>(
        `UPDATE ${table === "customer_tags" ? "OR IGNORE " : ""}${table} SET customer_id = ? WHERE customer_id = ? RETURNING id`,
      )
        .all(keepId, goneId)
        .map((row) => row.id),
    ]),
  );
  mergeThreads(context, keepId, goneId);
  sql("UPDATE customers SET merged_into = ? WHERE id = ?").run(keepId, goneId);
  const filled = fillGaps(context, keepId, goneId);
  const terms = takeTerms(context, keepId, goneId, takes);
  sql(
    "UPDATE possible_duplicates SET state = 'merged', moved = ?, filled = ?, terms = ? WHERE one_id = ? AND other_id = ?",
  ).run(
    JSON.stringify(moved),
    JSON.stringify(filled),
    mergedTermsColumn.write(terms),
    Math.min(keepId, goneId),
    Math.max(keepId, goneId),
  );
  // Others who are like the one that is gone are like the one that stays.
  for (const { one_id, other_id } of sql<{ one_id: number; other_id: number }>(
    "SELECT one_id, other_id FROM possible_duplicates WHERE state = 'open' AND (one_id = @goneId OR other_id = @goneId)",
  ).all({ goneId })) {
    const third = one_id === goneId ? other_id : one_id;
    if (third !== keepId) notePossibleDuplicate(context, keepId, third);
  }
  return sql<{ id: number }>("SELECT id FROM possible_duplicates WHERE one_id = ? AND other_id = ?").get(
    Math.min(keepId, goneId),
    Math.max(keepId, goneId),
  )!.id;
}
