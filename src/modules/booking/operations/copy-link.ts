import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { linkAddressOf } from "@/kernel/links";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";

/** Hands out a customer's link, to be sent to them: the only way by which it leaves, taken down in the audit. */
export const copyLink = defineOperation({
  name: "copy-link",
  access: "board.change",
  about: { jobId: "job" },
  input: input({ jobId: Id }),
  run({ sql, now, hogar, actor }, { jobId }) {
    if (sql("UPDATE links SET copied_at = ? WHERE job_id = ? AND revoked_at IS NULL").run(now, jobId).changes === 0)
      throw new Refusal("not-found");
    logSecurity(hogar.store, now, { kind: "link copied", who: actorWords(actor), words: `of job ${jobId}` });
    return { address: linkAddressOf(hogar, jobId)! };
  },
});
