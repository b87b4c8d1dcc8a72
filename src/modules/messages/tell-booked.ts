import type { OperationContext } from "@/kernel/operation";
import { tellCustomer } from "./messaging";

/** Tells a customer that the booking stands, or does now; where a person has still to confirm it, that we have it. */
export function tellBooked(context: OperationContext, jobId: number): void {
  const { approval, given_at } = context
    .sql<{ approval: string; given_at: number | null }>("SELECT approval, given_at FROM jobs WHERE id = ?")
    .get(jobId)!;
  const occasion = approval !== "given" ? "received" : given_at === null ? "booked" : "approved";
  tellCustomer(context, { jobId, occasion, about: `job ${jobId}`, answer: true });
}
