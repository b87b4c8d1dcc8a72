import type { Minor } from "@/core/money/amounts";
import { reversed, writtenOff } from "@/core/money/ledger";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { keyOnce, post } from "./ledger";

/** What was given up of an invoice, and stands. */
export const standingWriteOff = ({ sql }: ViewContext, invoiceId: number) =>
  sql<{ id: number; at: number; reason: string; minor: Minor }>(
    `SELECT v.id, v.at, v.reason, e.amount_minor AS minor
      FROM ledger_entries e JOIN ledger_events v ON v.id = e.event_id
      WHERE e.invoice_id = ? AND e.account = 'write-offs' AND v.kind = 'write-off'
        AND NOT EXISTS (SELECT 1 FROM ledger_events WHERE reverses_id = v.id)`,
  ).get(invoiceId);

/** Gives up so much of an invoice: it is reminded of no more. */
export function giveUp(context: OperationContext, invoiceId: number, minor: Minor, reason: string): void {
  post(
    context,
    { kind: "write-off", key: keyOnce(context, `write-off of invoice ${invoiceId}`), reason },
    writtenOff(invoiceId, minor),
  );
  context.sql("UPDATE invoices SET remind_on = NULL WHERE id = ?").run(invoiceId);
}

/**
 * Does something with an invoice for which more of it has to be open than is, by taking a write-off back. What is then left
 * of that stays given up.
 */
export function withWriteOffOpen<T>(context: OperationContext, invoiceId: number, reason: string, act: () => T): T {
  const open = () =>
    context.sql<{ n: Minor }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(invoiceId)!.n;
  const before = open();
  const stood = takeWriteOffBack(context, invoiceId, reason);
  const result = act();
  if (stood && open() > before) giveUp(context, invoiceId, open() - before, stood.reason);
  return result;
}

/** What was given up of an invoice is open again. Answers what that was, undefined where nothing was given up. */
export function takeWriteOffBack(context: OperationContext, invoiceId: number, reason: string) {
  const stood = standingWriteOff(context, invoiceId);
  if (!stood) return undefined;
  post(
    context,
    { kind: "reversal", key: `event ${stood.id} taken back`, reason, reversesId: stood.id },
    reversed(writtenOff(invoiceId, stood.minor)),
  );
  return stood;
}
