import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "./door";
import { tellCustomer } from "./messaging";

interface Waiting {
  id: number;
  approval: "waiting" | "proposed";
}

/** A booking that waits for a person, or for the customer's answer. */
export function readWaiting({ sql }: ViewContext, jobId: number): Waiting {
  const job = sql<Waiting>("SELECT id, approval FROM jobs WHERE id = ? AND approval <> 'given' AND state IN ('agreed', 'awaiting deposit')").get(jobId);
  if (!job) throw new Refusal("not-found", { sentence: "This does not wait any more: somebody has dealt with it." });
  return job;
}

/** Tells a customer that the booking stands; where a person has still to confirm it, that we have it. */
export function tellBooked(context: OperationContext, jobId: number): void {
  const { approval } = context.sql<{ approval: string }>("SELECT approval FROM jobs WHERE id = ?").get(jobId)!;
  tellCustomer(context, { jobId, occasion: approval === "given" ? "booked" : "received", about: `job ${jobId}`, answer: true });
}

/** The booking stands from now on. */
export function giveApproval(context: OperationContext, jobId: number): void {
  context.sql("UPDATE jobs SET approval = 'given' WHERE id = ?").run(jobId);
  const { state } = context.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(jobId)!;
  // What waits for its deposit is told when that has come.
  if (state === "agreed") tellBooked(context, jobId);
}
