import { Book } from "@/schemas/booking";
import { moneyWords } from "@/core/money/amounts";
import { sourceOf } from "@/core/people/sources";
import { commonRepeats, type RepeatEvery } from "@/core/repeats/rule";
import { readFrontDoor } from "@/store/front-door";
import { Refusal } from "@/core/problems";
import { tellBooked } from "./approval";
import {
  agreeJob,
  customerFor,
  findWanted,
  isKeptPhoto,
  lostPhoto,
  priceIn,
  releaseHold,
  siteFor,
  stillOffered,
  takeRoom,
  type ChosenWindow,
  type Wanted,
} from "./booking";
import { askCharge } from "./charging";
import { defineOperation, type OperationContext } from "./door";
import { keptAnswersOf } from "./fields";
import { linkTokenOf } from "./links";
import { tellOffice } from "./telling-office";
import { beginRepeat } from "./repeats";
import type { VisitRow } from "./visits";

/**
 * A customer books at the front door. A hold becomes the visit; without one, or when it has run
 * out, the offer is computed again and taken in the same transaction. Pressing twice books once.
 */
export const book = defineOperation({
  name: "book",
  access: "anybody",
  input: Book,
  run(context, input) {
    const again = input.hold ? bookedBefore(context, input.hold) : null;
    if (again) return again;
    const { repeat = null, photos = [], cardToken } = input;
    const wanted = findWanted(context, input);
    const { items } = wanted;
    const fields = keptAnswersOf(context, input.fields ?? {});
    if (!photos.every((token) => isKeptPhoto(context, token)))
      throw new Refusal("invalid-input", { fields: { "/photos": lostPhoto } });
    if (
      repeat &&
      !commonRepeats(items.map(({ service }) => JSON.parse(service.repeats) as RepeatEvery[])).some(
        (r) => r.every === repeat.every && r.unit === repeat.unit,
      )
    )
      throw new Refusal("invalid-input", { fields: { "/repeat": "Choose how often from the list." } });
    const visitId =
      heldRoom(context, input.hold, wanted, input) ??
      takeRoom(context, wanted, stillOffered(context, wanted, input), { key: input.hold ?? null, until: context.now });
    const order = priceIn(context, wanted, visitId);
    // Nobody pays more than what they have read.
    if (input.shownMinor !== undefined && order.totalMinor > input.shownMinor)
      throw new Refusal("price-changed", {
        sentence: `This costs ${moneyWords(order.totalMinor, context.business.currency)} by now. Look at it again before you book.`,
      });
    const depositMinor =
      input.payAll && items.every(({ service }) => service.may_pay_all === 1) ? order.totalMinor : order.depositMinor;
    if (depositMinor > 0 && !cardToken)
      throw new Refusal("invalid-input", { fields: { "/cardToken": "Enter a card to pay with." } });
    const customerId = customerFor(context, input.customer, wanted.address);
    const siteId = siteFor(context, customerId, wanted.address, wanted.zone?.id ?? null);
    const source = sourceOf(
      input.source,
      (slug) => context.sql("SELECT 1 FROM sources WHERE slug = ?").get(slug) !== undefined,
    );
    const atDoor = (input.atDoor ?? false) && readFrontDoor(context).paysAtDoor;
    const jobId = agreeJob(context, {
      reach: input.customer,
      agreed: input.customer,
      visitId,
      customerId,
      siteId,
      items,
      order,
      note: input.note,
      photos,
      fields,
      atDoor,
      toConfirm: items.some(({ service }) => service.confirm === 1),
      depositMinor,
      bookedBy: "front door",
      couponId: wanted.coupon?.id ?? null,
      source,
    });
    if (repeat) beginRepeat(context, visitId, repeat);
    tellOffice(context, jobId);
    if (depositMinor > 0)
      askCharge(context, {
        jobId,
        purpose: "deposit",
        amountMinor: depositMinor,
        cardToken: cardToken!,
        keepsCard: input.keepCard ?? false,
      });
    else tellBooked(context, jobId);
    return { link: linkTokenOf(context.hogar, jobId)! };
  },
});

function bookedBefore({ sql, hogar }: OperationContext, hold: string): { link: string } | null {
  const visit = sql<{ job_id: number | null }>("SELECT job_id FROM visits WHERE hold_key = ?").get(hold);
  const link = visit?.job_id ? linkTokenOf(hogar, visit.job_id) : null;
  return link ? { link } : null;
}

/** The visit that the hold keeps, where it is still in force and for the same thing. A hold that has run out gives its key back. */
function heldRoom(
  context: OperationContext,
  hold: string | undefined,
  wanted: Wanted,
  window: ChosenWindow,
): number | null {
  if (!hold) return null;
  const { sql, now } = context;
  const visit = sql<VisitRow & { held_until: number | null }>("SELECT * FROM visits WHERE hold_key = ?").get(hold);
  if (!visit) return null;
  const { minutes, crew, skills, serviceIds, title } = wanted.visit;
  const sameServices =
    JSON.stringify([visit.service_id, ...(JSON.parse(visit.also) as number[])]) === JSON.stringify(serviceIds) &&
    visit.title === title;
  const samePlace = visit.lng === wanted.address.lng && visit.lat === wanted.address.lat;
  // Whoever changes an answer while the window is kept needs room for what it is now.
  const sameWork =
    sameServices && visit.minutes === minutes && visit.crew === crew && visit.skills === JSON.stringify(skills);
  if (
    samePlace &&
    sameWork &&
    visit.window_from === window.from &&
    visit.held_until !== null &&
    visit.held_until >= now
  )
    return visit.id;
  releaseHold(context, visit.id);
  sql("UPDATE visits SET hold_key = NULL WHERE id = ?").run(visit.id);
  return null;
}
