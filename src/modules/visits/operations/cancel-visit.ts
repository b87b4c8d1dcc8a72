import { noAccessFee } from "@/core/catalogue/terms";
import { Refusal } from "@/core/problems";
import { CancelVisit } from "@/schemas/booking";
import { termsOfJob } from "./catalogue";
import { payBack, payBackTheRest } from "./charging";
import { chargeFee } from "./fees";
import { defineOperation, type OperationContext } from "./door";
import { tellCustomer } from "./messaging";
import { takeOut } from "./placing";
import { mustSee } from "./visits";

/**
 * The office cancels a promised visit. A deposit is paid back, or kept as the customer's credit. Where
 * nobody let us in, the fee of the terms may be asked: it takes what was received first.
 */
export const cancelVisit = defineOperation({
  name: "cancel-visit",
  access: "board.change",
  input: CancelVisit,
  run(context, { visitId, refundDeposit, chargeNoAccess = false }) {
    const visit = context
      .sql<{ state: string; job_id: number }>("SELECT state, job_id FROM visits WHERE id = ?")
      .get(visitId);
    if (!visit) throw new Refusal("not-found");
    mustSee(context, visitId);
    if (!["promised", "on the way", "no access"].includes(visit.state)) throw new Refusal("visit-not-open");
    const fee = chargeNoAccess && visit.state === "no access" ? noAccessFee(termsOfJob(context, visit.job_id)) : 0;
    cancelJob(context, visit.job_id, refundDeposit && fee === 0);
    if (fee > 0) {
      chargeFee(context, visit.job_id, "Nobody let us in", fee);
      if (refundDeposit) payBackTheRest(context, visit.job_id, "The visit was cancelled");
    }
    tellCustomer(context, { jobId: visit.job_id, occasion: "cancelled", about: `job ${visit.job_id}` });
  },
});

/** Ends a job that is not done, with its visits; what was received for it goes back where asked. */
export function cancelJob(context: OperationContext, jobId: number, refund: boolean): void {
  const { sql, now } = context;
  for (const { id } of sql<{ id: number }>(
    "SELECT id FROM visits WHERE job_id = ? AND state NOT IN ('done', 'cancelled')",
  ).all(jobId)) {
    takeOut(context, id);
    sql("UPDATE visits SET state = 'cancelled' WHERE id = ?").run(id);
    sql("UPDATE promises SET ended_at = ? WHERE visit_id = ? AND ended_at IS NULL").run(now, id);
  }
  sql("UPDATE jobs SET state = 'cancelled' WHERE id = ?").run(jobId);
  if (!refund) return;
  for (const { id, amount_minor } of sql<{ id: number; amount_minor: number }>(
    "SELECT id, amount_minor FROM payments WHERE job_id = ? AND purpose = 'deposit' AND state = 'received'",
  ).all(jobId))
    payBack(context, id, amount_minor, "The visit was cancelled");
}
