import type { OperationContext } from "@/kernel/operation";
import { tellBooked } from "@/modules/messages/tell-booked";

/** The booking stands from now on. */
export function giveApproval(context: OperationContext, jobId: number): void {
  context.sql("UPDATE jobs SET approval = 'given', given_at = ? WHERE id = ?").run(context.now, jobId);
  const { state } = context.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId)!;
  // What waits for its deposit is told when that has come.
  if (state === "agreed") tellBooked(context, jobId);
}
