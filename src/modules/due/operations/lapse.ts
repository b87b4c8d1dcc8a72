import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { releaseHold } from "@/modules/booking/room";
import { tellCustomer } from "@/modules/messages/messaging";
import { reopenQuote } from "@/modules/quotes/quotes";
import { stopRepeatsOf } from "@/modules/repeats/repeats";
import { cancelJob } from "@/modules/visits/cancelling";

/** Gives back the room of a hold that ran out. */
export const lapseHold = defineOperation({
  name: "lapse-hold",
  access: "system",
  input: input({ visitId: Id }),
  run: (context, { visitId }) => releaseHold(context, visitId),
});

/** Gives back the room of a booking whose deposit never came, and says so. */
export const lapseDeposit = defineOperation({
  name: "lapse-deposit",
  access: "system",
  input: input({ jobId: Id }),
  run(context, { jobId }) {
    if (context.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId)?.state !== "awaiting deposit")
      return;
    stopRepeatsOf(context, jobId);
    cancelJob(context, jobId, true);
    reopenQuote(context, jobId);
    tellCustomer(context, { jobId, occasion: "deposit lapsed", about: `job ${jobId}` });
  },
});
