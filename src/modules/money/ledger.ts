import type { Minor } from "@/core/money/amounts";
import { applyReceived, type OpenAmount } from "@/core/money/applying";
import { allocated, type Entry, released, type Source } from "@/core/money/ledger";
import { jobStates } from "@/core/jobs/states";
import { addDays } from "@/core/time/dates";
import { epochMinute, localDate } from "@/core/time/local";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { chain } from "@/store/ledger-chain";
import { moveDueDate } from "./parts";
import { settlePoints } from "./points";
import type { Rows } from "@/store/rows";

type Kind = Rows["ledger_events"]["kind"];

/** Posts what has happened: one event under its key, with entries that add up to nothing. Twice is refused. Answers its id. */
export function post(
  context: OperationContext,
  {
    kind,
    key,
    reason = "",
    reversesId = null,
    at = context.now,
  }: {
    kind: Kind;
    key: string;
    reason?: string;
    reversesId?: number | null;
    /** When it was, where that is not now. */ at?: number;
  },
  entries: readonly Entry[],
): number {
  const { sql } = context;
  const id = insertRow(sql, "ledger_events", {
    kind,
    key,
    at: notClosed(context, at),
    reason,
    reverses_id: reversesId,
  });
  for (const [line, entry] of entries.entries())
    insertRow(sql, "ledger_entries", {
      event_id: id,
      line,
      account: entry.account,
      amount_minor: entry.amountMinor,
      invoice_id: entry.invoiceId ?? null,
      payment_id: entry.paymentId ?? null,
      note_id: entry.noteId ?? null,
      tax_bp: entry.taxBp ?? null,
      technician_id: entry.technicianId ?? null,
      own_account_id: entry.ownAccountId ?? null,
    });
  chain(sql, id);
  for (const { account, invoiceId } of entries) if (account === "receivable") moveDueDate(context, invoiceId!);
  if (changesWhatIsPaid.has(kind))
    for (const paymentId of new Set(entries.map((entry) => entry.paymentId)))
      if (paymentId !== undefined) settlePoints(context, paymentId, kind === "payment");
  return id;
}

/** A moment as it is, or noon of the first day that is open where the books are closed on its own. */
function notClosed({ business, now }: OperationContext, at: number): number {
  const { books_closed_to: closed, time_zone } = business;
  if (closed === null || localDate(Math.floor(at / 60_000), time_zone) > closed) return at;
  return Math.min(now, epochMinute(addDays(closed, 1), 720, time_zone) * 60_000);
}

/** Events by which more or less was paid by a customer: their points follow. */
const changesWhatIsPaid = new Set<Kind>(["payment", "refund asked", "reversal", "dispute lost"]);

/** Money of a customer that no invoice has used. */
export interface Unused {
  source: Source;
  leftMinor: Minor;
}

/** Where what is left of a payment stands: what was paid ahead for work, or what the customer has with us. */
export const sourceOfPayment = (payment: Pick<Rows["payments"], "id" | "purpose">): Source => ({
  paymentId: payment.id,
  from: payment.purpose === "deposit" ? "deposits" : "credit",
});

/** What was received for a job and is not used up, oldest first. */
export const unusedOfJob = ({ sql }: ViewContext, jobId: number): Unused[] =>
  sql<Pick<Rows["payments"], "id" | "purpose"> & { left: Minor }>(
    `SELECT p.id, p.purpose, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id
      WHERE p.job_id = ? AND p.state = 'received' AND b.left_minor > 0 ORDER BY p.id`,
  )
    .all(jobId)
    .map((payment) => ({ source: sourceOfPayment(payment), leftMinor: payment.left }));

/** What a customer has with us that is meant for no work to come, oldest first. */
export const creditOf = ({ sql }: ViewContext, customerId: number): Unused[] =>
  sql<Pick<Rows["payments"], "id" | "purpose"> & { left: Minor }>(
    `SELECT p.id, p.purpose, b.left_minor AS left
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id LEFT JOIN jobs j ON j.id = p.job_id
      WHERE p.customer_id = ? AND p.state = 'received' AND b.left_minor > 0
        AND (p.purpose <> 'deposit' OR j.state NOT IN ${jobStates.sql("stand")} OR j.state = 'done')
      ORDER BY p.id`,
  )
    .all(customerId)
    .map((payment) => ({ source: sourceOfPayment(payment), leftMinor: payment.left }));

/** Pays invoices with what there is, oldest to oldest, as far as both go. */
export function allocate(
  context: OperationContext,
  unused: readonly Unused[],
  due: readonly OpenAmount[],
  at = context.now,
): void {
  const received = unused.map(({ leftMinor }, i) => ({ id: i, openMinor: leftMinor }));
  for (const { paymentId: i, invoiceId, amountMinor } of applyReceived(received, due)) {
    const { source } = unused[i]!;
    const key = keyOnce(context, `payment ${source.paymentId} to invoice ${invoiceId}`);
    // What was paid before its invoice was made pays it when that is made.
    const issued = context.sql<{ at: number }>("SELECT issued_at AS at FROM invoices WHERE id = ?").get(invoiceId)!.at;
    post(
      context,
      { kind: "allocation", key, at: Math.max(at, Math.min(issued, context.now)) },
      allocated(source, invoiceId, amountMinor),
    );
  }
}

/** What has paid an invoice is the customer's again, the newest first, until so much of it is; of one payment alone where it is named. */
export function release(
  context: OperationContext,
  invoiceId: number,
  amountMinor: Minor,
  reason: string,
  paymentId: number | null = null,
): void {
  let left = amountMinor;
  const paid = context
    .sql<Pick<Rows["payments"], "id" | "purpose"> & { paid: Minor }>(
      `SELECT p.id, p.purpose, sum(a.amount_minor) AS paid
        FROM allocations a JOIN payments p ON p.id = a.payment_id
        WHERE a.invoice_id = @invoiceId AND coalesce(@paymentId, p.id) = p.id
        GROUP BY p.id HAVING sum(a.amount_minor) > 0 ORDER BY max(a.event_id) DESC`,
    )
    .all({ invoiceId, paymentId });
  for (const payment of paid) {
    const part = Math.min(left, payment.paid);
    if (part <= 0) return;
    left -= part;
    const key = keyOnce(context, `payment ${payment.id} released from invoice ${invoiceId}`);
    post(context, { kind: "released", key, reason }, released(sourceOfPayment(payment), invoiceId, part));
  }
}

/** The same may happen again: what was released may be allocated once more. */
export function keyOnce({ sql }: ViewContext, key: string): string {
  const { n } = sql<{ n: number }>(
    // Those that go on with a comma, found by the index.
    "SELECT count(*) AS n FROM ledger_events WHERE key = @key OR (key >= @key || ', ' AND key < @key || '-')",
  ).get({
    key,
  })!;
  return n === 0 ? key : `${key}, ${n + 1}`;
}
