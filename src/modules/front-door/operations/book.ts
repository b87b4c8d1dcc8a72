import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import { matchOf } from "@/core/people/matching";
import { phoneKept } from "@/core/people/phones";
import { sourceOf } from "@/core/people/sources";
import { Refusal } from "@/core/problems";
import { commonRepeats, ruleFrom } from "@/core/repeats/rule";
import { type ChosenWindow } from "@/core/windows/wishes";
import { input, OrNull } from "@/kernel/inputs";
import { firstLinkTokenOf, linkTokenOf } from "@/kernel/links";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { agreementNow, AgreementRead, mustBeAsRead } from "@/modules/booking/agreed";
import { Booker } from "@/modules/booking/inputs";
import { asksForCode, sendCode } from "@/modules/booking/codes";
import { invitedBy } from "@/modules/booking/invited";
import { releaseHold, stillOffered, takeRoom, visitOfHold } from "@/modules/booking/room";
import { isKnown, mayKeepRoom } from "@/modules/booking/unproved";
import { findWanted, priceIn, type Wanted } from "@/modules/booking/wanted";
import { keptAnswersOf } from "@/modules/catalogue/fields";
import { Answers, chosen, RepeatEveryInput, orderAbout } from "@/modules/catalogue/inputs";
import { customerFor, siteFor } from "@/modules/customers/customers";
import type { Shown } from "@/modules/customers/same-person";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellOffice } from "@/modules/messages/telling-us";
import { takesCards } from "@/modules/money/cards";
import { askCharge } from "@/modules/money/charging";
import { isKeptPhoto, lostPhoto, claimPhotos } from "@/modules/pictures/photos";
import type { VisitRow } from "@/modules/placing/visits";
import { beginRepeat } from "@/modules/repeats/repeats";
import { Photos } from "@/modules/requests/inputs";
import { idsColumn, repeatsEveryColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { zoneOf } from "@/modules/place/zones";
import { type Static, Type } from "@sinclair/typebox";
import { forgetHoldKey } from "@/modules/jobs/visits";

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
  /** Loyalty points of whoever comes by their link take something off. */
  usePoints: Type.Optional(Type.Boolean()),
  /** What was read before the last button; absent for whoever has read nothing, such as another program. */
  read: Type.Optional(AgreementRead),
  /** The invitation of a campaign that somebody came by. */
  invite: Type.Optional(OrNull(Type.String({ maxLength: 100 }))),
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
  about: orderAbout,
  input: Book,
  run(context, input) {
    const before = input.hold ? bookedBefore(context, input.hold, input.customer) : null;
    if (before?.link) return { link: before.link };
    // A tab that was doubled brings the hold of another's booking: it has none of its own.
    const hold = before ? undefined : input.hold;
    const isProved = isKnown(context);
    const { repeat = null, photos = [], cardToken } = input;
    const wanted = findWanted(context, input, { pointsOf: pointsCustomer(context, input, isProved) });
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
    const held = heldRoom(context, hold, wanted, input);
    const { customerId, reach } = customerFor(
      context,
      input.customer,
      wanted.address,
      shownBy(context, input, isProved),
    );
    // By their link somebody books as whom we know, or as a stranger.
    const isTheirs = isProved && (context.actor.kind !== "link" || context.actor.customerId === customerId);
    mayBook(context, input, held === null ? wanted.visit.minutes * wanted.visit.crew : null, isTheirs);
    const visitId =
      held ??
      takeRoom(context, wanted, stillOffered(context, wanted, input), { key: hold ?? null, until: context.now });
    const order = priceIn(context, wanted, visitId);
    const lets = items.map(({ service }) => ({ service: { mayPayAll: service.may_pay_all === 1 } }));
    // Without a card service nothing is paid here.
    const depositMinor = takesCards(context) ? paidNow(order, (input.payAll ?? false) && mayPayAll(lets)) : 0;
    mustBeAsRead(context, input.read, agreementNow(context, items, order, depositMinor));
    if (depositMinor > 0 && !cardToken)
      throw new Refusal("invalid-input", { fields: { "/cardToken": "Enter a card to pay with." } });
    if (wanted.pointsCustomerId !== null && wanted.pointsCustomerId !== customerId)
      throw new Refusal("invalid-input", {
        fields: { "/customer/mail": "Points are for whoever has them: book with the name and email of your link." },
      });
    const siteId = siteFor(context, customerId, wanted.address, zoneOf(context, wanted.address)?.id ?? null);
    const proof = isTheirs ? "known" : depositMinor === 0 && asksForCode(context) ? "asked" : "none";
    const source = sourceOf(
      input.source,
      (slug) => context.sql("SELECT 1 FROM sources WHERE slug = ?").get(slug) !== undefined,
    );
    const atDoor = (input.atDoor ?? false) && readFrontDoor(context).paysAtDoor;
    const jobId = agreeJob(context, {
      reach,
      proof,
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
    if (repeat) beginRepeat(context, visitId, { rule: (start) => ruleFrom(repeat, start) });
    claimPhotos(context, photos);
    for (const { answers } of items) claimPhotos(context, Object.values(answers).flat().map(String));
    const link = linkTokenOf(context.hogar, jobId)!;
    // Nobody is told before it is confirmed.
    if (proof === "asked") {
      sendCode(context, jobId);
      return { link };
    }
    tellOffice(context, jobId);
    if (depositMinor > 0)
      askCharge(context, {
        how: "link",
        meant: { jobId, purpose: "deposit" },
        amountMinor: depositMinor,
        cardToken: cardToken!,
        keepsCard: input.keepCard ?? false,
      });
    else tellBooked(context, jobId);
    return { link };
  },
});

/** Whose points are used: of whoever comes by a link that is known to be theirs. */
const pointsCustomer = ({ actor }: OperationContext, { usePoints }: Book, isProved: boolean): number | null =>
  usePoints && isProved && actor.kind === "link" ? actor.customerId : null;

/** Who comes by a link of theirs, or was invited by one, is that customer where they book as such; whoever has only typed who they are is nobody yet. */
function shownBy(context: OperationContext, { invite }: Book, isProved: boolean): Shown {
  const { actor } = context;
  if (isProved) return actor.kind === "link" ? { customerId: actor.customerId } : "the office";
  const customerId = invite ? invitedBy(context, invite) : null;
  return customerId === null ? "nothing" : { customerId };
}

/** For some hours a second press gives the link of the first; a link that was ended since does not come back. */
const pressedAgainMs = 3 * 3_600_000;

/** What a hold has become: the link of its booking, where the same person presses again; null in it where somebody else does. */
function bookedBefore(
  context: OperationContext,
  hold: string,
  { name, mail, phone }: Book["customer"],
): { link: string | null } | null {
  const jobId = visitOfHold(context, hold)?.job_id;
  if (!jobId) return null;
  const booker = context
    .sql<{ name: string; mail: string; phone: string }>(
      `SELECT coalesce(nullif(j.name, ''), c.name) AS name, coalesce(nullif(j.mail, ''), c.mail) AS mail,
        coalesce(nullif(j.phone, ''), c.phone) AS phone
      FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = ?`,
    )
    .get(jobId)!;
  const typed = { name, mail: mail.trim(), phone: phoneKept(phone, context.business.phone) };
  if (matchOf(booker, typed, context.business.phone) !== "certain") return { link: null };
  const { booked_at: at } = context.sql<{ booked_at: number }>("SELECT booked_at FROM jobs WHERE id = ?").get(jobId)!;
  const link = context.now - at < pressedAgainMs ? firstLinkTokenOf(context.hogar, jobId) : null;
  if (!link) throw new Refusal("link-ended", { sentence: "This is booked already. Its link is in the email we sent." });
  return { link };
}

function mayBook(
  context: OperationContext,
  { date, customer: { mail, phone } }: Book,
  minutes: number | null,
  proved: boolean,
): void {
  const contact = { mail: mail.trim(), phone: phoneKept(phone, context.business.phone) };
  mayKeepRoom(context, { date, minutes }, contact, proved);
}

/** The visit that the hold keeps, where it is still in force and for the same thing. A hold that has run out gives its key back. */
function heldRoom(
  context: OperationContext,
  hold: string | undefined,
  wanted: Wanted,
  window: ChosenWindow,
): number | null {
  if (!hold) return null;
  const { now } = context;
  const visit = visitOfHold<VisitRow & { held_until: number | null }>(context, hold);
  if (!visit) return null;
  const { minutes, crew, skills, serviceIds, title, seats, point } = wanted.visit;
  const sameServices =
    JSON.stringify([visit.service_id, ...idsColumn.read(visit.also)]) === JSON.stringify(serviceIds) &&
    visit.title === title;
  const samePlace = visit.lng === point.lng && visit.lat === point.lat;
  // Whoever changes an answer while the window is kept needs room for what it is now.
  const sameWork =
    sameServices &&
    visit.seats === seats &&
    visit.minutes === minutes &&
    visit.crew === crew &&
    visit.skills === JSON.stringify(skills);
  if (
    samePlace &&
    sameWork &&
    visit.window_from === window.from &&
    visit.held_until !== null &&
    visit.held_until >= now
  )
    return visit.id;
  releaseHold(context, visit.id);
  forgetHoldKey(context, visit.id);
  return null;
}
