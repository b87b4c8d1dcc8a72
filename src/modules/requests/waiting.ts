import { jobStates } from "@/core/jobs/states";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { payBackTheRest } from "@/modules/money/charging";
import { stopRepeatsOf } from "@/modules/repeats/repeats";
import { cancelJob } from "@/modules/visits/cancelling";
import { setApproval } from "@/modules/jobs/work";

interface Waiting {
  id: number;
  approval: "waiting" | "proposed";
}

/** A booking that waits for a person, or for the customer's answer. */
export function readWaiting({ sql }: ViewContext, jobId: number): Waiting {
  const job = sql<Waiting>(
    `SELECT id, approval FROM jobs WHERE id = ? AND approval <> 'given' AND state IN ${jobStates.sql("stand")}`,
  ).get(jobId);
  if (!job) throw new Refusal("not-found", { sentence: "This does not wait any more: somebody has dealt with it." });
  return job;
}

/** Ends a booking that waits, without a fee: its room is free, nothing of it comes again, and what was paid goes back. */
export function endWaiting(context: OperationContext, jobId: number, reason: string): void {
  readWaiting(context, jobId);
  setApproval(context, jobId, "given");
  stopRepeatsOf(context, jobId);
  cancelJob(context, jobId, false);
  payBackTheRest(context, jobId, reason);
}
