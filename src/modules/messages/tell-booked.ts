import type { OperationContext } from "@/kernel/operation";
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
