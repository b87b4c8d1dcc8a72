import type { LocalDate } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";

/** How an invoice is collected from now on: whether at all, not before which day, and from which card; what is not named stays. Where a day or a card is named its customer is told anew before anything is taken. */
export function setCollectionTerms(
  { sql, now }: OperationContext,
  invoiceId: number,
  { never, on, cardId }: { never?: boolean; on?: LocalDate | null; cardId?: number | null },
): void {
  if (never !== undefined) sql("UPDATE invoices SET collect_never = ? WHERE id = ?").run(never ? 1 : 0, invoiceId);
  if (on !== undefined)
    sql("UPDATE invoices SET collect_on = ?, collect_known = ? WHERE id = ?").run(on, now, invoiceId);
  if (cardId !== undefined) sql("UPDATE invoices SET collect_card_id = ? WHERE id = ?").run(cardId, invoiceId);
}

/** What is open of a customer is told of before it is taken, as if it had only become known now. */
export const tellOfAllAnew = ({ sql, now }: OperationContext, customerId: number): void =>
  void sql("UPDATE invoices SET collect_known = @now WHERE customer_id = @customerId AND collect_known < @now").run({
    now,
    customerId,
  });

/** Whether what is due is charged to a card by itself, and the words in which that was agreed; those stay where none are given. */
export const setCardCollects = ({ sql }: OperationContext, cardId: number, collects: boolean, words?: string): void =>
  void sql("UPDATE cards SET collects = ?, agreed_words = coalesce(?, agreed_words) WHERE id = ?").run(
    collects ? 1 : 0,
    words ?? null,
    cardId,
  );

/** Nobody is reminded of an invoice before a day. */
export const postponeReminder = ({ sql }: OperationContext, invoiceId: number, until: LocalDate): void =>
  void sql("UPDATE invoices SET remind_on = max(coalesce(remind_on, ''), ?) WHERE id = ?").run(until, invoiceId);

/** Its customer objects to an invoice: nothing of it is collected until somebody has answered. */
export const noteObjection = ({ sql, now }: OperationContext, invoiceId: number, words: string): void =>
  void sql("UPDATE invoices SET collect_never = 1, objected_at = ?, objection = ? WHERE id = ?").run(
    now,
    words,
    invoiceId,
  );

/** An objection was answered; false where there was none. */
export const endObjection = ({ sql }: OperationContext, invoiceId: number): boolean =>
  sql("UPDATE invoices SET objected_at = NULL, objection = '' WHERE id = ? AND objected_at IS NOT NULL").run(invoiceId)
    .changes > 0;
