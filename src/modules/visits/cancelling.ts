import { visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { payBack } from "@/modules/money/charging";
import { givePointsBack } from "@/modules/money/points";
import { takeOut } from "@/modules/placing/days";

/** Ends a job that is not done, with its visits; what was received for it goes back where asked. */
export function cancelJob(context: OperationContext, jobId: number, refund: boolean): void {
  const { sql, now } = context;
  for (const { id } of sql<{ id: number }>(
    `SELECT id FROM visits WHERE job_id = ? AND state NOT IN ${visitStates.sql("closed")}`,
  ).all(jobId)) {
    takeOut(context, id);
    sql("UPDATE visits SET state = 'cancelled' WHERE id = ?").run(id);
    sql("UPDATE promises SET ended_at = ? WHERE visit_id = ? AND ended_at IS NULL").run(now, id);
  }
  sql("UPDATE jobs SET state = 'cancelled' WHERE id = ?").run(jobId);
  givePointsBack(context, jobId);
  if (!refund) return;
  for (const { id, left } of sql<{ id: number; left: number }>(
    `SELECT p.id, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id
      WHERE p.job_id = ? AND p.purpose = 'deposit' AND p.state = 'received' AND b.left_minor > 0`,
  ).all(jobId))
    payBack(context, id, left, "The visit was cancelled");
}
