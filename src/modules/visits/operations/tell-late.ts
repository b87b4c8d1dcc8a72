import { Refusal } from "@/core/problems";
import { localOf } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { togetherWith } from "@/modules/placing/shared-times";
import { readVisit } from "@/modules/placing/visits";
import { Type } from "@sinclair/typebox";

/** Tells the customer of a visit that we come so many minutes later; the same number again is not told twice. */
export const tellLate = defineOperation({
  name: "tell-late",
  access: "field.work",
  about: { visitId: "visit" },
  input: input({ visitId: Id, minutes: Type.Integer({ minimum: 5, maximum: 480 }) }),
  run(context, { visitId, minutes }) {
    const { sql, business, minute } = context;
    const visit = readVisit(context, visitId);
    if (visit.state !== "promised" && visit.state !== "on the way") throw new Refusal("visit-not-open");
    const { arrives } = sql<{ arrives: number | null }>(
      "SELECT min(arrives) AS arrives FROM placements WHERE visit_id = ?",
    ).get(visitId)!;
    const expected = Math.max(minute, arrives ?? visit.window_from) + minutes;
    for (const one of togetherWith(context, visit))
      if (one.job_id !== null && visitStates.allows("expect", one.state))
        tellCustomer(context, {
          jobId: one.job_id,
          visitId: one.id,
          occasion: "running late",
          about: `visit ${one.id}, ${minutes} min of ${visit.window_from}`,
          answer: true,
          fields: {
            minutes: String(minutes),
            expected: { clock: localOf(Math.ceil(expected / 5) * 5, business.time_zone).minute },
          },
        });
  },
});
