import { Refusal } from "@/core/problems";
import { Nothing, RecordKeptCard } from "@/schemas/money";
import { recordConsent } from "./booking";
import { defineOperation, type OperationContext, type ViewContext } from "./door";

export interface CardOnFile {
  id: number;
  reference: string;
  label: string;
}

/**
 * The card that was left with us by a link: by that of this very booking, or of one that it repeats. Whoever
 * books with somebody else's mail gets a link of their own, and never comes by somebody else's card.
 */
export const cardOf = ({ sql }: Pick<ViewContext, "sql">, jobId: number): CardOnFile | null =>
  sql<CardOnFile>(
    `SELECT id, reference, label FROM cards c WHERE removed_at IS NULL
     AND (job_id = @jobId OR EXISTS (SELECT 1 FROM visits kept JOIN visits this ON this.repeat_id = kept.repeat_id WHERE kept.job_id = c.job_id AND this.job_id = @jobId)) ORDER BY id DESC LIMIT 1`,
  ).get({ jobId }) ?? null;

/** Writes down that the card which has just paid is to be kept, as its owner has agreed; the worker asks the card service for it. */
export function keepCard(context: OperationContext, jobId: number, token: string): void {
  const { customer_id: customerId } = context
    .sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?")
    .get(jobId)!;
  recordConsent(context, customerId, "card on file", true);
  context.later({ kind: "keep card", key: `keep card ${token}`, payload: { customerId, jobId, token } });
}

/** The card service has kept a card. It takes the place of the one that was kept for the same booking. */
export const recordKeptCard = defineOperation({
  name: "record-kept-card",
  access: "system",
  input: RecordKeptCard,
  run({ sql, now }, { customerId, jobId, reference, label }) {
    sql("UPDATE cards SET removed_at = ? WHERE job_id = ? AND reference <> ? AND removed_at IS NULL").run(
      now,
      jobId,
      reference,
    );
    sql(
      "INSERT INTO cards (customer_id, job_id, reference, label, kept_at) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING",
    ).run(customerId, jobId, reference, label, now);
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
