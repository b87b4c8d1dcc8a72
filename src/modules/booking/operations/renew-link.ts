import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { makeLink } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";

const OneJob = input({ jobId: Id });

/** Ends a customer's link and makes a new one: whoever had the old one sees nothing any more. */
export const renewLink = defineOperation({
  name: "renew-link",
  access: "board.change",
  input: OneJob,
  run(context, { jobId }) {
    if (
      context.sql("UPDATE links SET revoked_at = ? WHERE job_id = ? AND revoked_at IS NULL").run(context.now, jobId)
        .changes === 0
    )
      throw new Refusal("not-found");
    makeLink(context, jobId);
  },
});
