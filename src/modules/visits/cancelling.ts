import { visitStates } from "@/core/visits/states";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { leaveSteps, payBack } from "@/modules/money/charging";
import { issueInvoice } from "@/modules/money/invoicing";
import { givePointsBack } from "@/modules/money/points";
import { takeOut } from "@/modules/placing/days";
import { cancelVisits } from "@/modules/jobs/visits";
import { setJobState } from "@/modules/jobs/work";

/** Whether somebody works, or has worked, on another day of the same work: then it is not called off as a whole. */
export const isBegunElsewhere = ({ sql }: ViewContext, jobId: number, visitId: number): boolean =>
  sql(
    `SELECT 1 FROM visits WHERE job_id = ? AND id <> ? AND (state IN ${visitStates.sql("under way")} OR state = 'done')`,
  ).get(jobId, visitId) !== undefined;

/** One day of work that has begun is called off. Where nothing of it is left to be done, what was done is billed. */
export function cancelDay(context: OperationContext, jobId: number, visitId: number): void {
  const { sql } = context;
  takeOut(context, visitId);
  cancelVisits(context, [visitId]);
  if (sql(`SELECT 1 FROM visits WHERE job_id = ? AND state NOT IN ${visitStates.sql("closed")}`).get(jobId)) return;
  setJobState(context, jobId, "done");
  issueInvoice(context, jobId);
}

/** Ends a job that is not done, with its visits; what was received for it goes back where asked. */
export function cancelJob(context: OperationContext, jobId: number, refund: boolean): void {
  const { sql } = context;
  for (const { id } of sql<{ id: number }>(
    `SELECT id FROM visits WHERE job_id = ? AND state NOT IN ${visitStates.sql("closed")}`,
  ).all(jobId)) {
    takeOut(context, id);
    cancelVisits(context, [id]);
  }
  setJobState(context, jobId, "cancelled");
  givePointsBack(context, jobId);
  leaveSteps(context, { jobId });
  if (!refund) return;
  for (const { id, left } of sql<{ id: number; left: number }>(
    `SELECT p.id, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id
      WHERE p.job_id = ? AND p.purpose = 'deposit' AND p.state = 'received' AND b.left_minor > 0`,
  ).all(jobId))
    payBack(context, id, left, "The visit was cancelled");
}
