import { noAccessFee } from "@/core/catalogue/terms";
import { Refusal } from "@/core/problems";
import { type VisitState, visitStates } from "@/core/visits/states";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { termsOfJob } from "@/modules/catalogue/job-items";
import { tellCustomer } from "@/modules/messages/messaging";
import { payBackTheRest } from "@/modules/money/charging";
import { chargeFee } from "@/modules/money/fees";
import { Type } from "@sinclair/typebox";
import { cancelJob } from "../cancelling";

const CancelVisit = input({
  visitId: Id,
  refundDeposit: Type.Boolean(),
  chargeNoAccess: Type.Optional(Type.Boolean()),
});

/**
 * The office cancels a promised visit. A deposit is paid back, or kept as the customer's credit. Where
 * nobody let us in, the fee of the terms may be asked: it takes what was received first.
 */
export const cancelVisit = defineOperation({
  name: "cancel-visit",
  access: "board.change",
  about: { visitId: "visit" },
  input: CancelVisit,
  run(context, { visitId, refundDeposit, chargeNoAccess = false }) {
    const visit = context
      .sql<{ state: VisitState; job_id: number }>("SELECT state, job_id FROM visits WHERE id = ?")
      .get(visitId);
    if (!visit) throw new Refusal("not-found");
    if (!visitStates.allows("cancel", visit.state)) throw new Refusal("visit-not-open");
    const fee = chargeNoAccess && visit.state === "no access" ? noAccessFee(termsOfJob(context, visit.job_id)) : 0;
    cancelJob(context, visit.job_id, refundDeposit && fee === 0);
    if (fee > 0) {
      chargeFee(context, visit.job_id, "Nobody let us in", fee);
      if (refundDeposit) payBackTheRest(context, visit.job_id, "The visit was cancelled");
    }
    tellCustomer(context, { jobId: visit.job_id, occasion: "cancelled", about: `job ${visit.job_id}` });
  },
});
