import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { endLink, makeLink } from "@/kernel/links";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";

const OneJob = input({ jobId: Id });

/** Ends a customer's link and makes a new one: whoever had the old one sees nothing any more. */
export const renewLink = defineOperation({
  name: "renew-link",
  access: "board.change",
  about: { jobId: "job" },
  input: OneJob,
  run(context, { jobId }) {
    if (!endLink(context, jobId)) throw new Refusal("not-found");
    logSecurity(context.hogar.store, context.now, {
      kind: "link ended",
      who: actorWords(context.actor),
      words: `of job ${jobId}; a new one was made`,
    });
    makeLink(context, jobId);
  },
});
