import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { linkAddressOf, noteCopied } from "@/kernel/links";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";

/** Hands out a customer's link, to be sent to them: the only way by which it leaves, taken down in the audit. */
export const copyLink = defineOperation({
  name: "copy-link",
  access: "board.change",
  about: { jobId: "job" },
  input: input({ jobId: Id }),
  run(context, { jobId }) {
    const { now, hogar, actor } = context;
    if (!noteCopied(context, jobId)) throw new Refusal("not-found");
    logSecurity(hogar.store, now, { kind: "link copied", who: actorWords(actor), words: `of job ${jobId}` });
    return { address: linkAddressOf(hogar, jobId)! };
  },
});
