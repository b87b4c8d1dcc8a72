import type { OperationContext } from "./operation";

/** What was to be done outside under a key is done no more: somebody has said how it ended. */
export const endEffect = ({ sql, now }: OperationContext, key: string): void =>
  void sql(
    "UPDATE outbox SET state = 'done', payload = '{}', ended_at = ? WHERE key = ? AND state IN ('ready', 'leased')",
  ).run(now, key);
