import { addDays } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { recordConsent } from "@/modules/customers/consents";

export interface CardOnFile {
  id: number;
  reference: string;
  label: string;
  /** The last month in which it can be charged, YYYY-MM; null where that is unknown. */
  expires: string | null;
  /** Whether its owner has agreed that what is due is charged to it by itself. */
  collects: 0 | 1;
}

/** Whether cards can be charged at all. */
export const takesCards = ({ hogar }: Pick<ViewContext, "hogar">): boolean => hogar.gateways.cards !== null;

/**
 * The cards that were left with us by a link, in their owner's order: by that of this very booking, or of one that it
 * repeats. Whoever books with somebody else's mail gets a link of their own, and never comes by somebody else's cards.
 */
export const cardsOf = ({ sql }: Pick<ViewContext, "sql">, jobId: number): CardOnFile[] =>
  sql<CardOnFile>(
    `SELECT id, reference, label, expires, collects
      FROM cards c WHERE removed_at IS NULL
        AND (job_id = @jobId OR EXISTS (SELECT 1 FROM visits kept JOIN visits this ON this.repeat_id = kept.repeat_id WHERE kept.job_id = c.job_id AND this.job_id = @jobId))
      ORDER BY position, id`,
  ).all({ jobId });

/** Puts cards into this order; those that are not named keep theirs behind them. */
export function putInOrder({ sql }: OperationContext, cards: readonly CardOnFile[], first: readonly number[]): void {
  const order = [...first, ...cards.map(({ id }) => id).filter((id) => !first.includes(id))];
  for (const [position, id] of order.entries())
    sql("UPDATE cards SET position = CAST(? AS INTEGER) WHERE id = ?").run(position, id);
}

/** So many cards one link keeps. */
export const mostCards = 6;

/** Writes down that a card is to be kept, as its owner has agreed, as the first of theirs or the last; the worker asks the card service for it. */
export function keepCard(context: OperationContext, jobId: number, token: string, first: boolean): void {
  const { customer_id: customerId } = context
    .sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?")
    .get(jobId)!;
  recordConsent(context, customerId, "card on file", true);
  context.later({
    kind: "keep card",
    lane: "cards",
    key: `keep card ${token}`,
    payload: { customerId, jobId, token, first },
  });
}

/** So long before its last month is over its owner hears that a card expires. */
const expiryDays = 30;

/** Cards that may be charged by themselves, expire within a month, and whose owners do not know it yet; where another card of theirs is good for longer, it does not matter. */
export const expiringCards = ({ sql, today }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT id FROM cards c
      WHERE collects = 1 AND removed_at IS NULL AND expiry_told IS NULL AND expires BETWEEN @from AND @to
        AND NOT EXISTS (SELECT 1 FROM cards o WHERE o.customer_id = c.customer_id AND o.collects = 1 AND o.removed_at IS NULL
          AND coalesce(o.expires, '9999-12') > c.expires)
      ORDER BY id LIMIT 500`,
  )
    .all({ from: today.slice(0, 7), to: addDays(today, expiryDays).slice(0, 7) })
    .map(({ id }) => id);
