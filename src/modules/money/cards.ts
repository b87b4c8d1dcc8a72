import type { OperationContext, ViewContext } from "@/kernel/operation";
import { recordConsent } from "@/modules/customers/customers";

export interface CardOnFile {
  id: number;
  reference: string;
  label: string;
  /** Whether its owner has agreed that what is due is charged to it by itself. */
  collects: 0 | 1;
}

/** Whether cards can be charged at all. */
export const takesCards = ({ hogar }: Pick<ViewContext, "hogar">): boolean => hogar.gateways.cards !== null;

/**
 * The card that was left with us by a link: by that of this very booking, or of one that it repeats. Whoever
 * books with somebody else's mail gets a link of their own, and never comes by somebody else's card.
 */
export const cardOf = ({ sql }: Pick<ViewContext, "sql">, jobId: number): CardOnFile | null =>
  sql<CardOnFile>(
    `SELECT id, reference, label, collects
      FROM cards c WHERE removed_at IS NULL
        AND (job_id = @jobId OR EXISTS (SELECT 1 FROM visits kept JOIN visits this ON this.repeat_id = kept.repeat_id WHERE kept.job_id = c.job_id AND this.job_id = @jobId))
      ORDER BY id DESC LIMIT 1`,
  ).get({ jobId }) ?? null;

/** Writes down that the card which has just paid is to be kept, as its owner has agreed; the worker asks the card service for it. */
export function keepCard(context: OperationContext, jobId: number, token: string): void {
  const { customer_id: customerId } = context
    .sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?")
    .get(jobId)!;
  recordConsent(context, customerId, "card on file", true);
  context.later({ kind: "keep card", key: `keep card ${token}`, payload: { customerId, jobId, token } });
}
