import { Refusal } from "@/core/problems";
import { addDays, type LocalDate } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { postponeReminder } from "@/modules/money/collection-terms";

/** The furthest day that a customer may promise by themselves. */
const furthestPromiseDays = 30;

/** Somebody promises to pay on a day: until then nobody reminds them or charges a card. A promise takes the place of the one before. */
export function promisePayment(
  context: OperationContext,
  invoiceId: number,
  day: LocalDate,
  by: string,
  furthest = furthestPromiseDays,
): void {
  const { sql, now, today } = context;
  const open = sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(invoiceId);
  if (!open) throw new Refusal("not-found");
  if (open.n <= 0) throw new Refusal("nothing-due");
  if (day < today || day > addDays(today, furthest))
    throw new Refusal("invalid-input", {
      fields: { "/day": `Choose a day until ${dayWords(addDays(today, furthest))}.` },
    });
  sql("UPDATE pay_promises SET ended = 'changed' WHERE invoice_id = ? AND ended IS NULL").run(invoiceId);
  insertRow(sql, "pay_promises", { invoice_id: invoiceId, day, made_at: now, made_by: by });
  postponeReminder(context, invoiceId, addDays(day, 1));
}

/** Promises whose invoice is paid, or whose day is over. */
export const promisesToEnd = ({ sql, today }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT p.id FROM pay_promises p JOIN invoice_balances b ON b.invoice_id = p.invoice_id
      WHERE p.ended IS NULL AND (p.day < ? OR b.open_minor <= 0) ORDER BY p.id`,
  )
    .all(today)
    .map(({ id }) => id);

/** A promise was kept, or was not. */
export function endPromise({ sql, today }: OperationContext, id: number): void {
  sql(
    `UPDATE pay_promises SET ended = iif((SELECT open_minor FROM invoice_balances WHERE invoice_id = pay_promises.invoice_id) <= 0, 'kept', 'broken')
      WHERE id = @id AND ended IS NULL
        AND (day < @today OR (SELECT open_minor FROM invoice_balances WHERE invoice_id = pay_promises.invoice_id) <= 0)`,
  ).run({ id, today });
}
