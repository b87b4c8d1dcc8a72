import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import { moneyWords } from "@/core/money/amounts";
import { sourceOf } from "@/core/people/sources";
import { Refusal } from "@/core/problems";
import { commonRepeats } from "@/core/repeats/rule";
import { type ChosenWindow } from "@/core/windows/wishes";
import { input, OrNull } from "@/kernel/inputs";
import { linkTokenOf } from "@/kernel/links";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { Booker } from "@/modules/booking/inputs";
import { releaseHold, stillOffered, takeRoom } from "@/modules/booking/room";
import { findWanted, priceIn, type Wanted } from "@/modules/booking/wanted";
import { keptAnswersOf } from "@/modules/catalogue/fields";
import { Answers, chosen, RepeatEveryInput } from "@/modules/catalogue/inputs";
import { customerFor, siteFor } from "@/modules/customers/customers";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellOffice } from "@/modules/messages/telling-office";
import { askCharge } from "@/modules/money/charging";
import { isKeptPhoto, lostPhoto } from "@/modules/pictures/photos";
import type { VisitRow } from "@/modules/placing/visits";
import { beginRepeat } from "@/modules/repeats/repeats";
import { Photos } from "@/modules/requests/inputs";
import { idsColumn, repeatsEveryColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { type Static, Type } from "@sinclair/typebox";

export const Book = input({
  ...chosen,
  hold: Type.Optional(Type.String({ maxLength: 60 })),
  customer: Booker,
  note: Type.String({ maxLength: 1000 }),
  photos: Type.Optional(Photos),
  /** Answers to the owner's own fields. */
  fields: Type.Optional(Answers),
  /** How often it comes again, where the services allow. */
  repeat: Type.Optional(OrNull(RepeatEveryInput)),
  /** Paid when we are there, where the business allows. */
  atDoor: Type.Optional(Type.Boolean()),
  cardToken: Type.Optional(Type.String({ maxLength: 80 })),
  keepCard: Type.Optional(Type.Boolean()),
  /** All of it now, where the service allows. */
  payAll: Type.Optional(Type.Boolean()),
  coupon: Type.Optional(Type.String({ maxLength: 40 })),
  /** The total that was read, minor units: a higher one is refused. */
  shownMinor: Type.Optional(Type.Integer({ minimum: 0 })),
  /** The source that stood in the link somebody came by. */
  source: Type.Optional(OrNull(Type.String({ maxLength: 200 }))),
});
export type Book = Static<typeof Book>;

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
      !commonRepeats(items.map(({ service }) => repeatsEveryColumn.read(service.repeats))).some(
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
    const lets = items.map(({ service }) => ({ service: { mayPayAll: service.may_pay_all === 1 } }));
    const depositMinor = paidNow(order, (input.payAll ?? false) && mayPayAll(lets));
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
    JSON.stringify([visit.service_id, ...idsColumn.read(visit.also)]) === JSON.stringify(serviceIds) &&
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
