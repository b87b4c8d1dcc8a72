import { noAccessFee } from "@/core/catalogue/terms";
import { Refusal } from "@/core/problems";
import { visitStates } from "@/core/visits/states";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { termsOfJob } from "@/modules/catalogue/job-items";
import { tellCustomer } from "@/modules/messages/messaging";
import { payBackTheRest } from "@/modules/money/charging";
import { chargeFee } from "@/modules/money/fees";
import { takeOut } from "@/modules/placing/days";
import { togetherWith } from "@/modules/placing/shared-times";
import { readVisit } from "@/modules/placing/visits";
import { Type } from "@sinclair/typebox";
import { cancelDay, cancelJob, isBegunElsewhere } from "../cancelling";
import { setVisitState } from "@/modules/jobs/visits";

const CancelVisit = input({
  visitId: Id,
  refundDeposit: Type.Boolean(),
  chargeNoAccess: Type.Optional(Type.Boolean()),
  /** All who share its time. */
  all: Type.Optional(Type.Boolean()),
});

/**
 * The office cancels a promised visit with all days of its work, or all who share its time; of work that has begun, this day
 * alone: what is done is billed. A deposit is paid back, or kept as the customer's
 * credit. Where nobody let us in, the fee of the terms may be asked: it takes what was received first.
 */
export const cancelVisit = defineOperation({
  name: "cancel-visit",
  access: "board.change",
  about: { visitId: "visit" },
  input: CancelVisit,
  run(context, { visitId, refundDeposit, chargeNoAccess = false, all = false }) {
    const visit = readVisit(context, visitId);
    if (!visitStates.allows("cancel", visit.state)) throw new Refusal("visit-not-open");
    const those = all ? togetherWith(context, visit).filter((v) => visitStates.allows("cancel", v.state)) : [visit];
    for (const { id, state, job_id: jobId } of those) {
      // Somebody is booking a seat just now.
      if (jobId === null) {
        takeOut(context, id);
        setVisitState(context, id, "cancelled");
        continue;
      }
      if (isBegunElsewhere(context, jobId, id)) {
        cancelDay(context, jobId, id);
        tellCustomer(context, { jobId, visitId: id, occasion: "cancelled", about: `visit ${id}` });
        continue;
      }
      const fee = chargeNoAccess && state === "no access" ? noAccessFee(termsOfJob(context, jobId)) : 0;
      cancelJob(context, jobId, refundDeposit && fee === 0);
      if (fee > 0) {
        chargeFee(context, jobId, "Nobody let us in", fee);
        if (refundDeposit) payBackTheRest(context, jobId, "The visit was cancelled");
      }
      tellCustomer(context, { jobId, occasion: "cancelled", about: `job ${jobId}` });
    }
  },
});
