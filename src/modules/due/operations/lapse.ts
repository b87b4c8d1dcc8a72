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

/** Gives back the room of a booking whose deposit or code never came. Who was to pay is told; who never was reached is not. */
export const lapseDeposit = defineOperation({
  name: "lapse-deposit",
  access: "system",
  input: input({ jobId: Id }),
  run(context, { jobId }) {
    const job = context
      .sql<{ state: string; proof: string; lapses_at: number | null }>(
        "SELECT state, proof, lapses_at FROM jobs WHERE id = ?",
      )
      .get(jobId);
    const waitsForCode = job?.proof === "asked" && job.state === "agreed";
    if (!job || (job.state !== "awaiting deposit" && !waitsForCode)) return;
    stopRepeatsOf(context, jobId);
    cancelJob(context, jobId, true);
    reopenQuote(context, jobId);
    // A card that nobody has given out was no booking either.
    if (job.lapses_at === null) tellCustomer(context, { jobId, occasion: "deposit lapsed", about: `job ${jobId}` });
  },
});
