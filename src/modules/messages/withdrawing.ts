import type { Occasion } from "@/core/messages/occasions";
import type { OperationContext } from "@/kernel/operation";

/** Takes back what was written about a visit after some message and has not left yet. True where nothing of it has left. */
export function withdrawUnsent(
  { sql }: OperationContext,
  { visitId, kind, after }: { visitId: number; kind: Occasion; after: number },
): boolean {
  const about = "FROM messages WHERE visit_id = ? AND kind = ? AND id > ?";
  // What is being handed over at this moment may have gone.
  sql(
    `UPDATE messages SET state = 'dropped', problem = 'taken back'
      WHERE state = 'waiting' AND id IN (SELECT id ${about})
        AND NOT EXISTS (SELECT 1 FROM outbox o
          WHERE o.kind = 'message' AND o.state = 'leased' AND o.payload ->> 'messageId' = messages.id)`,
  ).run(visitId, kind, after);
  return sql(`SELECT 1 ${about} AND state <> 'dropped'`).get(visitId, kind, after) === undefined;
}
