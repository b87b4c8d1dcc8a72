import type { OperationContext } from "./door";
import { tellCustomer } from "./messaging";

/** Tells a customer that the booking stands; where a person has still to confirm it, that we have it. */
export function tellBooked(context: OperationContext, jobId: number): void {
  const { approval } = context.sql<{ approval: string }>("SELECT approval FROM jobs WHERE id = ?").get(jobId)!;
  tellCustomer(context, {
    jobId,
    occasion: approval === "given" ? "booked" : "received",
    about: `job ${jobId}`,
    answer: true,
  });
}

/** The booking stands from now on. */
export function giveApproval(context: OperationContext, jobId: number): void {
  context.sql("UPDATE jobs SET approval = 'given', given_at = ? WHERE id = ?").run(context.now, jobId);
  const { state } = context.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId)!;
  // What waits for its deposit is told when that has come.
  if (state === "agreed") tellBooked(context, jobId);
}
