import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { readVisit } from "@/modules/placing/visits";
import { Type } from "@sinclair/typebox";
import { comeAgain } from "../again";
import { setAgainMonths } from "@/modules/jobs/visits";

const SetAgain = input({ visitId: Id, months: OrNull(Type.Integer({ minimum: 1, maximum: 120 })) });

/** In how many months its customer is asked whether it is time again, once it is done; null: not at all. */
export const setAgain = defineOperation({
  name: "set-again",
  access: "field.work",
  about: { visitId: "visit" },
  input: SetAgain,
  run(context, { visitId, months }) {
    const visit = readVisit(context, visitId);
    if (visit.job_id === null || visit.state === "cancelled") throw new Refusal("visit-not-open");
    if (visit.repeat_id !== null)
      throw new Refusal("repeat-exists", { sentence: "This visit comes back by its repeat already." });
    if (visit.seats > 0)
      throw new Refusal("visit-not-open", { sentence: "A seat is booked once: it does not come back by itself." });
    setAgainMonths(context, visitId, months);
    if (visit.state === "done") comeAgain(context, { ...visit, again_months: months });
  },
});
