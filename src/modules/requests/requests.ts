import { Refusal } from "@/core/problems";
import { actorWords, type OperationContext, type ViewContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { findWanted, priceIn, type Wanted } from "@/modules/booking/wanted";
import { customerFor, siteFor } from "@/modules/customers/customers";
import { takesCards } from "@/modules/money/cards";
import { tellBooked } from "@/modules/messages/tell-booked";
import { itemsColumn, photosColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

export type RequestRow = Rows["requests"];

/** An open request by its id. */
export function readRequest({ sql }: ViewContext, id: number): RequestRow {
  const request = sql<RequestRow>("SELECT * FROM requests WHERE id = ?").get(id);
  if (!request || request.outcome !== "open") throw new Refusal("not-found");
  return request;
}

export const endRequest = (
  { sql, now }: OperationContext,
  id: number,
  outcome: RequestRow["outcome"],
  jobId: number | null = null,
): void =>
  void sql("UPDATE requests SET outcome = ?, answered_at = ?, job_id = ? WHERE id = ?").run(outcome, now, jobId, id);

/** What a request is about, to be placed: a service may be named by the office where none was chosen. Null where there is no known place or no service. */
export function wantedOf(
  context: ViewContext,
  request: RequestRow,
  { office = false, serviceId }: { office?: boolean; serviceId?: number } = {},
): Wanted | null {
  const chosen = itemsColumn.read(request.items);
  const items = chosen.length || serviceId === undefined ? chosen : [{ serviceId }];
  return request.address_id === null || items.length === 0
    ? null
    : findWanted(context, { addressId: request.address_id, items }, { office, isAsked: true });
}

/** What was asked for is agreed, in the room that was taken for it. Answers the job's id. */
export function agreeRequest(
  context: OperationContext,
  request: RequestRow,
  wanted: Wanted,
  visitId: number,
  bookedBy: "front door" | "office",
): number {
  const { items, address, zone } = wanted;
  const order = priceIn(context, wanted, visitId);
  // On the phone no deposit is asked.
  const depositMinor = bookedBy === "office" || !takesCards(context) ? 0 : order.depositMinor;
  const customerId = customerFor(
    context,
    { name: request.name, mail: request.mail, phone: request.phone },
    address,
    true,
  );
  const siteId = siteFor(context, customerId, address, zone?.id ?? null);
  const jobId = agreeJob(context, {
    reach: request,
    visitId,
    customerId,
    siteId,
    items,
    order,
    note: request.wishes,
    photos: photosColumn.read(request.photos),
    depositMinor,
    bookedBy: bookedBy === "office" ? actorWords(context.actor) : bookedBy,
  });
  endRequest(context, request.id, "booked", jobId);
  if (depositMinor === 0) tellBooked(context, jobId);
  return jobId;
}
