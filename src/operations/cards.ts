import { Refusal } from "@/core/problems";
import { Nothing, RecordKeptCard } from "@/schemas/money";
import { recordConsent } from "./booking";
import { defineOperation, type OperationContext, type ViewContext } from "./door";

export interface CardOnFile {
  id: number;
  reference: string;
  label: string;
}

/** The card that a customer has left with us: the last one kept. */
export const cardOf = ({ sql }: Pick<ViewContext, "sql">, customerId: number): CardOnFile | null =>
  sql<CardOnFile>("SELECT id, reference, label FROM cards WHERE customer_id = ? AND removed_at IS NULL ORDER BY id DESC LIMIT 1").get(customerId) ?? null;

/** Writes down that a card is to be kept; the worker asks the card service for it. */
export const keepCard = (context: OperationContext, customerId: number, token: string): void => context.later({ kind: "keep card", key: `keep card ${token}`, payload: { customerId, token } });

/** The card service has kept a card. */
export const recordKeptCard = defineOperation({
  name: "record-kept-card",
  access: "system",
  input: RecordKeptCard,
  run: ({ sql, now }, { customerId, reference, label }) => void sql("INSERT INTO cards (customer_id, reference, label, kept_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING").run(customerId, reference, label, now),
});

/** A customer takes their card away by their own link. */
export const removeCard = defineOperation({
  name: "remove-card",
  access: "link",
  input: Nothing,
  run(context) {
    const { sql, actor, now } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    if (sql("UPDATE cards SET removed_at = ? WHERE customer_id = ? AND removed_at IS NULL").run(now, actor.customerId).changes === 0) throw new Refusal("not-found");
    recordConsent(context, actor.customerId, "card on file", false, true);
  },
});
