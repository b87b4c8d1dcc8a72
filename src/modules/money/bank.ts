import { type Minor, moneyWords } from "@/core/money/amounts";
import { type Match, mostApart, type OpenBooks } from "@/core/money/bank-matching";
import { payoutArrived, payoutDiffers, postedToOwn, reversed } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { epochMinute, localDate } from "@/core/time/local";
import { dayShort } from "@/core/time/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { storeInvoice } from "./invoicing";
import { keyOnce, post } from "./ledger";
import { takeDownPayment } from "./recording";
import { takeBack } from "./taking-back";
import { insertRow, type NewRow } from "@/store/insert";

export type Line = Rows["bank_lines"];

/** A payout is in the bank. The same news twice changes nothing. */
export function payoutArrives(context: OperationContext, payoutId: number, date: LocalDate): void {
  const { sql, today } = context;
  if (date > today) throw new Refusal("invalid-input", { fields: { "/date": "This day has not come yet." } });
  const payout = sql<Rows["payouts"]>("SELECT * FROM payouts WHERE id = ?").get(payoutId);
  if (!payout) throw new Refusal("not-found");
  if (payout.arrived_on !== null) return;
  sql("UPDATE payouts SET arrived_on = ? WHERE id = ?").run(date, payoutId);
  post(context, { kind: "payout arrived", key: `payout ${payoutId} arrived` }, payoutArrived(payout.amount_minor));
}

/** What the card service holds of ours, and has not paid out. */
export const heldByService = ({ sql }: ViewContext): Minor =>
  sql<{ n: Minor }>("SELECT coalesce(sum(amount_minor), 0) AS n FROM ledger_entries WHERE account = 'card'").get()!.n;

/** What lines of the bank may be: what is open, and what is expected or was taken down by hand and stands on no line yet. */
export function openBooks({ sql, business }: ViewContext): OpenBooks {
  const day = (at: number) => localDate(Math.floor(at / 60_000), business.time_zone);
  const names = (...all: string[]) => all.filter(Boolean);
  return {
    invoices: sql<{
      id: number;
      label: string;
      customerId: number;
      name: string;
      bill: string;
      openMinor: number;
      due: LocalDate;
      givenUp: 0 | 1;
    }>(
      `SELECT i.id, i.label, i.customer_id AS customerId, c.name, coalesce(c.bill_name, '') AS bill, o.open AS openMinor,
          i.due_date AS due, max(o.given_up) AS givenUp
        FROM (SELECT invoice_id, sum(amount_minor) AS open, 0 AS given_up FROM ledger_entries WHERE account = 'receivable'
            GROUP BY invoice_id HAVING sum(amount_minor) > 0
          UNION ALL SELECT invoice_id, sum(amount_minor), 1 FROM ledger_entries WHERE account = 'write-offs'
            GROUP BY invoice_id HAVING sum(amount_minor) > 0) o
          JOIN invoices i ON i.id = o.invoice_id JOIN customers c ON c.id = i.customer_id
        GROUP BY i.id ORDER BY i.due_date, i.id`,
    )
      .all()
      .map(({ name, bill, givenUp, ...invoice }) => ({
        ...invoice,
        names: names(name, bill),
        ...(givenUp === 1 && { givenUp: true }),
      })),
    payouts: sql<Rows["payouts"]>("SELECT * FROM payouts WHERE arrived_on IS NULL ORDER BY id")
      .all()
      .map(({ id, amount_minor, reference, paid_at }) => ({
        id,
        amountMinor: amount_minor,
        reference,
        from: day(paid_at),
        names: [],
      })),
    recorded: sql<{ id: number; minor: number; at: number; note: string; name: string; bill: string }>(
      `SELECT p.id, p.amount_minor AS minor, p.settled_at AS at, p.note, c.name, coalesce(c.bill_name, '') AS bill
        FROM payments p JOIN customers c ON c.id = p.customer_id
        WHERE p.method IN ('bank', 'cheque') AND p.state = 'received'
          AND NOT EXISTS (SELECT 1 FROM bank_lines WHERE payment_id = p.id) ORDER BY p.id DESC LIMIT 2000`,
    )
      .all()
      .map(({ id, minor, at, note, name, bill }) => ({
        id,
        amountMinor: minor,
        from: day(at),
        reference: note.length >= 6 ? note : "",
        names: names(name, bill),
      })),
    refunds: sql<{ id: number; minor: number; at: number; name: string; bill: string }>(
      `SELECT r.id, r.amount_minor AS minor, r.asked_at AS at, c.name, coalesce(c.bill_name, '') AS bill
        FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN customers c ON c.id = p.customer_id
        WHERE r.method = 'bank' AND NOT EXISTS (SELECT 1 FROM bank_lines WHERE refund_id = r.id) ORDER BY r.id DESC LIMIT 2000`,
    )
      .all()
      .map(({ id, minor, at, name, bill }) => ({
        id,
        amountMinor: -minor,
        from: day(at),
        reference: "",
        names: names(name, bill),
      })),
    returnable: sql<{ id: number; minor: number; date: LocalDate; note: string; name: string; bill: string }>(
      `SELECT p.id, p.amount_minor AS minor, b.date, b.name || ' ' || b.words AS note, c.name, coalesce(c.bill_name, '') AS bill
        FROM bank_lines b JOIN payments p ON p.id = b.payment_id JOIN customers c ON c.id = p.customer_id
        WHERE p.state = 'received' AND p.method = 'bank' ORDER BY b.date DESC LIMIT 2000`,
    )
      .all()
      .map(({ id, minor, date, name, bill }) => ({
        id,
        amountMinor: -minor,
        from: date,
        reference: "",
        names: names(name, bill),
      })),
  };
}

export function openLine({ sql }: ViewContext, lineId: number): Line {
  const line = sql<Line>("SELECT * FROM bank_lines WHERE id = ?").get(lineId);
  if (!line) throw new Refusal("not-found");
  if (line.state !== "open")
    throw new Refusal("wrong-order", { sentence: "This line is dealt with already. Look at it again." });
  return line;
}

/** A line is what it is said to be: a payment is recorded, a payout has arrived, or it is held against what the books know. */
export function matchLine(context: OperationContext, line: Line, match: Match): void {
  const { sql, today } = context;
  const is = (column: "payment_id" | "payout_id" | "refund_id", id: number, recorded = 0) =>
    sql(`UPDATE bank_lines SET state = 'matched', ${column} = ?, recorded = ? WHERE id = ?`).run(id, recorded, line.id);
  if (match.kind === "invoices") {
    if (line.amount_minor < 0)
      throw new Refusal("not-allowed", { sentence: "This line went out: it pays no invoice." });
    is("payment_id", recordLine(context, line, match), 1);
    return;
  }
  if (match.kind === "returned") return returnLine(context, line, match.id);
  const amount = mustBeOpen(context, match.kind, match.id);
  const beside = line.amount_minor - amount;
  if (match.kind === "payout" && beside !== 0 && Math.abs(beside) <= mostApart(amount))
    post(context, { kind: "bank line", key: `line ${line.id} beside` }, payoutDiffers(beside));
  else if (beside !== 0)
    throw new Refusal("invalid-input", {
      sentence: `The line is ${moneyWords(line.amount_minor, context.business.currency)}, and this is ${moneyWords(amount, context.business.currency)}.`,
    });
  if (match.kind === "payout") {
    payoutArrives(context, match.id, line.date < today ? line.date : today);
    is("payout_id", match.id);
  } else is(match.kind === "refund" ? "refund_id" : "payment_id", match.id);
}

/** The bank has taken a payment back: what it had paid is open again; both lines stand. */
function returnLine(context: OperationContext, line: Line, paymentId: number): void {
  const { sql, business } = context;
  const { amount, customerId } = sql<{ amount: number; customerId: number | null }>(
    "SELECT amount_minor AS amount, customer_id AS customerId FROM payments WHERE id = ?",
  ).get(paymentId) ?? { amount: 0, customerId: null };
  if (amount !== -line.amount_minor)
    throw new Refusal("invalid-input", {
      sentence: `The line is ${moneyWords(line.amount_minor, business.currency)}, and the payment was ${moneyWords(amount, business.currency)}.`,
    });
  takeBack(context, paymentId, `The bank has taken it back: ${line.words || line.name}`.slice(0, 300), {
    linesStay: true,
  });
  sql("UPDATE bank_lines SET state = 'matched', returned_id = ? WHERE id = ?").run(paymentId, line.id);
  if (business.return_fee_minor > 0 && customerId !== null) chargeReturn(context, customerId, line, amount);
}

/** By the owner's rule, whoever's payment came back pays for that. */
function chargeReturn(context: OperationContext, customerId: number, { date }: Line, amountMinor: number): void {
  const feeMinor = context.business.return_fee_minor;
  storeInvoice(context, {
    customerId,
    lines: [
      {
        description: `Payment of ${moneyWords(amountMinor, context.business.currency)} that your bank took back`,
        quantity: 1,
        unitMinor: feeMinor,
        amountMinor: feeMinor,
        taxBp: 0,
        taxMinor: 0,
        discountBp: 0,
        date,
        jobId: null,
      },
    ],
  });
}

/** A line that is no payment is posted to an account of the owner's own. */
export function postLine(context: OperationContext, line: Line, accountId: number): void {
  const { sql } = context;
  if (!sql("SELECT 1 FROM own_accounts WHERE id = ? AND active = 1").get(accountId)) throw new Refusal("not-found");
  const at = Math.min(context.now, epochMinute(line.date, noon, context.business.time_zone) * 60_000);
  post(
    context,
    { kind: "bank line", key: keyOnce(context, `line ${line.id}`), at },
    postedToOwn(accountId, line.amount_minor),
  );
  sql("UPDATE bank_lines SET state = 'posted', own_account_id = ? WHERE id = ?").run(accountId, line.id);
}

const noon = 720;

/** What was posted from a line is taken back by its counter-entry. */
function unpost(context: OperationContext, line: Line): void {
  const { sql } = context;
  const event = sql<{ id: number }>(
    `SELECT id FROM ledger_events v WHERE kind = 'bank line' AND (key = @key OR key LIKE @key || ', %')
      AND NOT EXISTS (SELECT 1 FROM ledger_events WHERE reverses_id = v.id)`,
  ).get({ key: `line ${line.id}` })!;
  post(
    context,
    { kind: "reversal", key: keyOnce(context, `line ${line.id} taken back`), reversesId: event.id },
    reversed(postedToOwn(line.own_account_id!, line.amount_minor)),
  );
  sql("UPDATE bank_lines SET state = 'open', own_account_id = NULL WHERE id = ?").run(line.id);
}

/** What stands on a line of a closed day is posted today. */
const isClosed = ({ business }: OperationContext, date: LocalDate): boolean =>
  business.books_closed_to !== null && date <= business.books_closed_to;

/** Once for a line; again where the payment before was taken back. */
function recordLine(
  context: OperationContext,
  line: Line,
  { customerId, invoices }: Match & { kind: "invoices" },
): number {
  const key = `of line ${line.id}`;
  const { n } = context
    .sql<{ n: number }>(
      "SELECT count(*) AS n FROM payments WHERE charge_key = @key OR (charge_key >= @key || ', ' AND charge_key < @key || '-')",
    )
    .get({ key: `bank ${key}` })!;
  return takeDownPayment(context, {
    customerId,
    method: "bank",
    amountMinor: line.amount_minor,
    ...(line.date <= context.today && !isClosed(context, line.date) && { on: line.date }),
    note: `${dayShort(line.date)}: ${line.words || line.name}`.slice(0, 140),
    invoices,
    key: n === 0 ? key : `${key}, ${n + 1}`,
  });
}

/** Its amount as it stands on a statement; refuses what stands on a line already. */
function mustBeOpen({ sql }: ViewContext, kind: "payout" | "recorded" | "refund", id: number): number {
  const query = {
    payout:
      "SELECT amount_minor AS n FROM payouts p WHERE id = ? AND NOT EXISTS (SELECT 1 FROM bank_lines WHERE payout_id = p.id)",
    recorded: `SELECT amount_minor AS n FROM payments p WHERE id = ? AND state = 'received' AND method IN ('bank', 'cheque')
      AND NOT EXISTS (SELECT 1 FROM bank_lines WHERE payment_id = p.id)`,
    refund: `SELECT -amount_minor AS n FROM refunds r WHERE id = ? AND method = 'bank'
      AND NOT EXISTS (SELECT 1 FROM bank_lines WHERE refund_id = r.id)`,
  }[kind];
  const row = sql<{ n: number }>(query).get(id);
  if (!row) throw new Refusal("wrong-order", { sentence: "This stands on another line of the bank already." });
  return row.n;
}

/** A line is open again. The payment that was recorded from it is taken back; a payout stays where it is. */
export function reopenLine(context: OperationContext, line: Line): void {
  const { sql } = context;
  if (line.state === "open") return;
  if (line.payout_id !== null)
    throw new Refusal("not-allowed", { sentence: "This payout is in the bank: that cannot be taken back." });
  if (line.returned_id !== null)
    throw new Refusal("not-allowed", {
      sentence:
        "The bank has taken this payment back: that cannot be undone here. Record the payment anew if it came again.",
    });
  if (line.own_account_id !== null) return unpost(context, line);
  if (line.recorded === 1) return takeBack(context, line.payment_id!, "The line of the bank is something else");
  sql("UPDATE bank_lines SET state = 'open', why = '', payment_id = NULL, refund_id = NULL WHERE id = ?").run(line.id);
}

/** A line of the bank, to be matched. Answers its id. */
export const addBankLine = ({ sql }: OperationContext, line: NewRow<"bank_lines">): number =>
  insertRow(sql, "bank_lines", line);

/** A line that nobody has matched goes again. Answers whether it could. */
export const removeOpenLine = ({ sql }: OperationContext, lineId: number): boolean =>
  sql("DELETE FROM bank_lines WHERE id = ? AND state = 'open'").run(lineId).changes === 1;
