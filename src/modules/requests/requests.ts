import type { PricedOrder } from "@/core/catalogue/order";
import { Refusal } from "@/core/problems";
import type { Way } from "@/kernel/links";
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

/** The deposit of an order, where one can be paid. */
export const depositAsked = (context: ViewContext, order: PricedOrder): number =>
  takesCards(context) ? order.depositMinor : 0;

/**
 * What was asked for is agreed, in the room that was taken for it: by whoever asked, who came by a link that went to their
 * email or their number; by us where `by` is null, as somebody typed it who has shown nothing. Answers the job's id.
 */
export function agreeRequest(
  context: OperationContext,
  request: RequestRow,
  wanted: Wanted,
  visitId: number,
  by: Way | null,
): number {
  const { items, address, zone } = wanted;
  const order = priceIn(context, wanted, visitId);
  // On the phone no deposit is asked.
  const depositMinor = by === null ? 0 : depositAsked(context, order);
  const { name, mail, phone } = request;
  const { customerId, reach } = customerFor(context, { name, mail, phone }, address, by ?? "nothing");
  const siteId = siteFor(context, customerId, address, zone?.id ?? null);
  const jobId = agreeJob(context, {
    reach,
    // Of the email that was typed, a text shows nothing.
    proof: by === "text" && reach ? "none" : "known",
    visitId,
    customerId,
    siteId,
    items,
    order,
    note: request.wishes,
    photos: photosColumn.read(request.photos),
    depositMinor,
    bookedBy: by === null ? actorWords(context.actor) : "front door",
  });
  endRequest(context, request.id, "booked", jobId);
  if (depositMinor === 0) tellBooked(context, jobId);
  return jobId;
}
