import { Refusal } from "@/core/problems";
import { Id, input, Nothing, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { recordConsent } from "@/modules/customers/customers";
import { insertOnce } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { cardOf } from "../cards";
import { reference } from "../inputs";

const RecordKeptCard = input({
  customerId: Id,
  jobId: Id,
  reference,
  label: Type.String({ maxLength: 80 }),
  expires: OrNull(Type.String({ pattern: "^\\d{4}-[01]\\d$" })),
});

/** The card service has kept a card. It takes the place of the one that was kept for the same booking. */
export const recordKeptCard = defineOperation({
  name: "record-kept-card",
  access: "system",
  input: RecordKeptCard,
  run({ sql, now }, { customerId, jobId, reference, label, expires }) {
    sql("UPDATE cards SET removed_at = ? WHERE job_id = ? AND reference <> ? AND removed_at IS NULL").run(
      now,
      jobId,
      reference,
    );
    insertOnce(sql, "cards", { customer_id: customerId, job_id: jobId, reference, label, expires, kept_at: now });
  },
});

/** A customer takes their card away by their own link. */
export const removeCard = defineOperation({
  name: "remove-card",
  access: "link",
  input: Nothing,
  run(context) {
    const { sql, actor, now } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const card = cardOf(context, actor.jobId);
    if (!card) throw new Refusal("not-found");
    sql("UPDATE cards SET removed_at = ? WHERE id = ?").run(now, card.id);
    recordConsent(context, actor.customerId, "card on file", false, true);
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
