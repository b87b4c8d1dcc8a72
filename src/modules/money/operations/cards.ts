import { cardCollectionWords } from "@/core/money/collection-words";
import { tellCustomer } from "@/modules/messages/messaging";
import { dayMs } from "@/core/horizons";
import type { Actor } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { takeTry } from "@/kernel/tries";
import { recordConsent } from "@/modules/customers/consents";
import { insertOnce } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { type CardOnFile, cardsOf, keepCard, mostCards, putInOrder, takesCards } from "../cards";
import { reference } from "../inputs";

const RecordKeptCard = input({
  customerId: Id,
  jobId: Id,
  reference,
  label: Type.String({ maxLength: 80 }),
  expires: OrNull(Type.String({ pattern: "^\\d{4}-[01]\\d$" })),
  fingerprint: Type.Optional(OrNull(Type.String({ maxLength: 120 }))),
  /** Before the other cards of its owner, or behind them. */
  first: Type.Optional(Type.Boolean()),
});

/** The card service has kept a card. Where its owner has agreed that their cards are charged by themselves, they have for this one. */
export const recordKeptCard = defineOperation({
  name: "record-kept-card",
  access: "system",
  input: RecordKeptCard,
  run(context, { customerId, jobId, reference, label, expires, fingerprint = null, first = false }) {
    const { sql, now, business } = context;
    const before = cardsOf(context, jobId);
    const agreed = before.some(({ collects }) => collects === 1);
    const id = insertOnce(sql, "cards", {
      customer_id: customerId,
      job_id: jobId,
      reference,
      label,
      expires,
      kept_at: now,
      fingerprint,
      position: before.length,
      collects: agreed ? 1 : 0,
      agreed_words: agreed ? cardCollectionWords(business.name) : "",
    });
    if (id === null) return;
    // The same card again takes its own place.
    sql(
      `UPDATE cards SET removed_at = @now WHERE fingerprint = @fingerprint AND customer_id = @customerId AND id <> @id
        AND removed_at IS NULL AND id IN (SELECT value FROM json_each(@before))`,
    ).run({ now, fingerprint, customerId, id, before: JSON.stringify(before.map((card) => card.id)) });
    if (first) putInOrder(context, cardsOf(context, jobId), [id]);
  },
});

/** A customer leaves a card with us by their own link, without paying: it comes behind those that are there. */
export const addCard = defineOperation({
  name: "add-card",
  access: "link",
  input: input({ cardToken: Type.String({ minLength: 1, maxLength: 80 }) }),
  run(context, { cardToken }) {
    const jobId = jobOfLink(context);
    if (!takesCards(context))
      throw new Refusal("not-allowed", { sentence: "Cards cannot be kept here at the moment." });
    if (cardsOf(context, jobId).length >= mostCards)
      throw new Refusal("not-allowed", { sentence: `We keep ${mostCards} cards at most: take one away first.` });
    // Taken away and left anew counts as well: nobody finds out here which of many cards work.
    const { customerId } = context.actor as Extract<Actor, { kind: "link" }>;
    const from = context.origin.address;
    if (
      !takeTry(context.hogar, `cards left by customer ${customerId}`, cardsLeft) ||
      (from !== null && !takeTry(context.hogar, `cards left from ${from}`, cardsLeft))
    )
      throw new Refusal("too-many-cards", {
        sentence: `Many cards were left here today. Call us on ${context.business.phone}, and we will find a way.`,
        security: { kind: "card refused", who: actorWords(context.actor), words: "many cards left by link" },
      });
    keepCard(context, jobId, cardToken, false);
  },
});

/** Cards that one customer may leave by link in a day, and that may come from one network address. */
const cardsLeft = { most: 6, duringMs: dayMs };

const OwnCard = input({ cardId: Id });

/** A customer says which card is to be charged first. */
export const chargeFirst = defineOperation({
  name: "charge-card-first",
  access: "link",
  about: { cardId: "shared" },
  input: OwnCard,
  run(context, { cardId }) {
    const cards = cardsOf(context, jobOfLink(context));
    mustBeOf(cards, cardId);
    putInOrder(context, cards, [cardId]);
  },
});

/** A customer takes a card away by their own link. */
export const removeCard = defineOperation({
  name: "remove-card",
  access: "link",
  about: { cardId: "shared" },
  input: OwnCard,
  run(context, { cardId }) {
    const { sql, actor, now } = context;
    const cards = cardsOf(context, jobOfLink(context));
    mustBeOf(cards, cardId);
    sql("UPDATE cards SET removed_at = ? WHERE id = ?").run(now, cardId);
    if (cards.length === 1 && actor.kind === "link")
      recordConsent(context, actor.customerId, "card on file", false, true);
  },
});

function jobOfLink({ actor }: OperationContext): number {
  if (actor.kind !== "link") throw new Refusal("link-ended");
  return actor.jobId;
}

function mustBeOf(cards: readonly CardOnFile[], cardId: number): void {
  if (!cards.some(({ id }) => id === cardId))
    throw new Refusal("not-found", { sentence: "This card is not with us any more." });
}

/** The owner of a card knows that it is about to expire, once. */
export const tellExpiry = defineOperation({
  name: "tell-card-expiry",
  access: "system",
  input: OwnCard,
  run(context, { cardId }) {
    const { sql, now } = context;
    const card = sql<{ job_id: number; label: string; expires: string }>(
      "UPDATE cards SET expiry_told = ? WHERE id = ? AND expiry_told IS NULL AND removed_at IS NULL RETURNING job_id, label, expires",
    ).get(now, cardId);
    if (!card) return;
    tellCustomer(context, {
      jobId: card.job_id,
      occasion: "card expires",
      about: `card ${cardId}`,
      fields: { card: card.label, month: { month: `${card.expires}-01` } },
    });
  },
});

/** The office takes a card away, as the customer has asked. */
export const forgetCard = defineOperation({
  name: "forget-card",
  access: "money.change",
  about: { cardId: "card" },
  input: input({ cardId: Id }),
  run(context, { cardId }) {
    const { sql, now } = context;
    const card = sql<{ customer_id: number }>(
      "UPDATE cards SET removed_at = ? WHERE id = ? AND removed_at IS NULL RETURNING customer_id",
    ).get(now, cardId);
    if (!card) throw new Refusal("not-found");
    recordConsent(context, card.customer_id, "card on file", false, true);
  },
});
