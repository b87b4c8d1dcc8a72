import type { OperationContext } from "@/kernel/operation";
import { tellBooked } from "@/modules/messages/tell-booked";
import { approve } from "@/modules/jobs/work";

/** The booking stands from now on. */
export function giveApproval(context: OperationContext, jobId: number): void {
  approve(context, jobId);
  const { state } = context.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId)!;
  // What waits for its deposit is told when that has come.
  if (state === "agreed") tellBooked(context, jobId);
}
