import { moneyWords, sum } from "@/core/money/amounts";
import type { OpenAmount } from "@/core/money/applying";
import { Refusal } from "@/core/problems";
import { addDays, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { dateWords } from "@/core/time/words";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { receive } from "./charging";
import { allocate, sourceOfPayment } from "./ledger";
import { standingWriteOff, withWriteOffOpen } from "./writing-off";

/** A payment without an hour of its own came at noon. */
const noon = 720;
const mostDaysAgo = 3660;

export interface HandedPayment {
  customerId: number;
  method: "cash" | "bank" | "cheque";
  amountMinor: number;
  /** The day on which it came; today where nothing is said. It is posted on that day. */
  on?: LocalDate;
  /** A cheque's number, or what a transfer was marked with. */
  note?: string;
  /** How much of which invoice it pays; what is not named stays with the customer as credit. Null: what is due, the oldest first. */
  invoices: readonly { invoiceId: number; amountMinor: number }[] | null;
  /** The same key is recorded once. */
  key: string;
}

/** Takes down cash, a cheque or a transfer of a customer, for one invoice, for several, or on account. Answers the payment's id. */
export function takeDownPayment(
  context: OperationContext,
  { customerId, method, amountMinor, on, note = "", invoices, key }: HandedPayment,
): number {
  const { sql, now, today, business } = context;
  const chargeKey = `${method} ${key}`;
  const known = sql<{ id: number }>("SELECT id FROM payments WHERE charge_key = ?").get(chargeKey);
  if (known) return known.id;
  if (!sql("SELECT 1 FROM customers WHERE id = ?").get(customerId)) throw new Refusal("not-found");
  if (on !== undefined && (on > today || on < addDays(today, -mostDaysAgo)))
    throw new Refusal("invalid-input", {
      fields: { "/on": on > today ? "This day has not come yet." : "This is longer ago than ten years." },
    });
  if (on !== undefined && business.books_closed_to !== null && on <= business.books_closed_to)
    throw new Refusal("invalid-input", {
      fields: { "/on": `The books are closed up to ${dateWords(business.books_closed_to)}: choose a later day.` },
    });
  const at = on === undefined || on === today ? now : epochMinute(on, noon, business.time_zone) * 60_000;
  const due = dueOf(context, customerId);
  const payable = due.map((one) => ({ ...one }));
  for (const { invoiceId } of invoices ?? []) {
    const stands = standingWriteOff(context, invoiceId);
    const known = payable.find(({ id }) => id === invoiceId);
    if (!stands || !isOfCustomer(context, invoiceId, customerId)) continue;
    if (known) known.openMinor += stands.minor;
    else payable.push({ id: invoiceId, openMinor: stands.minor });
  }
  refuseOdd(context, payable, amountMinor, invoices ?? []);
  const id = insertRow(sql, "payments", {
    customer_id: customerId,
    purpose: "account",
    method,
    amount_minor: amountMinor,
    state: "received",
    charge_key: chargeKey,
    asked_at: now,
    settled_at: at,
    note: note.trim(),
  });
  const payment = { id, purpose: "account" as const };
  receive(context, { ...payment, method, amount_minor: amountMinor, technician_id: null }, at);
  const source = sourceOfPayment(payment);
  if (invoices === null) allocate(context, [{ source, leftMinor: amountMinor }], due, at);
  for (const { invoiceId, amountMinor: part } of invoices ?? []) {
    const pay = () => allocate(context, [{ source, leftMinor: part }], [{ id: invoiceId, openMinor: part }], at);
    const isOpen = (due.find(({ id }) => id === invoiceId)?.openMinor ?? 0) >= part;
    // Money that comes after all for what was given up is taken.
    if (isOpen) pay();
    else withWriteOffOpen(context, invoiceId, "It was paid after all", pay);
  }
  return id;
}

const isOfCustomer = ({ sql }: OperationContext, invoiceId: number, customerId: number): boolean =>
  sql("SELECT 1 FROM invoices WHERE id = ? AND customer_id = ?").get(invoiceId, customerId) !== undefined;

/** What a customer owes, what was due first coming first. */
const dueOf = ({ sql }: OperationContext, customerId: number): OpenAmount[] =>
  sql<OpenAmount>(
    `SELECT invoice_id AS id, open_minor AS openMinor
      FROM invoice_balances WHERE customer_id = ? AND open_minor > 0 ORDER BY due_date, invoice_id`,
  ).all(customerId);

function refuseOdd(
  { business }: OperationContext,
  due: readonly OpenAmount[],
  amountMinor: number,
  invoices: readonly { invoiceId: number; amountMinor: number }[],
): void {
  const fields: Record<string, string> = {};
  for (const [i, { invoiceId, amountMinor: part }] of invoices.entries()) {
    const open = due.find(({ id }) => id === invoiceId)?.openMinor ?? 0;
    if (part > open || invoices.some((other, k) => k < i && other.invoiceId === invoiceId))
      fields[`/invoices/${i}/amountMinor`] = open
        ? `${moneyWords(open, business.currency)} is open on this invoice.`
        : "Nothing is open on this invoice.";
  }
  if (sum(invoices.map((one) => one.amountMinor)) > amountMinor)
    fields["/amountMinor"] = "This is less than is given to the invoices.";
  if (Object.keys(fields).length) throw new Refusal("amount-too-large", { fields });
}
