import { sum } from "@/core/money/amounts";
import { dueWords } from "@/core/money/due";
import { entryWords } from "@/core/money/entry-words";
import type { PaperEntry } from "@/core/money/papers";
import { Refusal } from "@/core/problems";
import { localDate } from "@/core/time/local";
import type { ViewContext } from "@/kernel/operation";
import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import type { Rows } from "@/store/rows";
import { creditOf } from "../ledger";

/** So many of the latest entries are shown; the balance counts all. */
const latest = 200;

/** A customer's account: what each event did to what they owe us, with the balance after it; below nothing they have something with us. */
export const customerAccount = defineView({
  name: "customer-account",
  access: "money.see",
  about: { customerId: "customer" },
  input: input({ customerId: Id }),
  read(context, { customerId }) {
    const { sql, business } = context;
    const entries = readEntries(context, customerId);
    const customer = sql<Pick<Rows["customers"], "payment_days" | "payment_from">>(
      "SELECT payment_days, payment_from FROM customers WHERE id = ?",
    ).get(customerId);
    if (!customer) throw new Refusal("not-found");
    return {
      today: context.today,
      currency: business.currency,
      balanceMinor: entries[0]?.balance ?? 0,
      /** What they have with us that no work to come is meant to use. */
      creditMinor: sum(creditOf(context, customerId).map(({ leftMinor }) => leftMinor)),
      open: sql<{ id: number; number: string; dueDate: string; openMinor: number }>(
        `SELECT i.id, i.label AS number, i.due_date AS dueDate, b.open_minor AS openMinor
          FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
          WHERE i.customer_id = ? AND b.open_minor > 0 ORDER BY i.due_date, i.id LIMIT ${latest}`,
      ).all(customerId),
      terms: dueWords(
        customer.payment_days === null
          ? { days: business.payment_days, from: business.payment_from }
          : { days: customer.payment_days, from: customer.payment_from },
      ),
      cards: sql<{ id: number; label: string; expires: string | null }>(
        "SELECT id, label, expires FROM cards WHERE customer_id = ? AND removed_at IS NULL ORDER BY id DESC",
      ).all(customerId),
      /** Days on which they have promised to pay, the latest first. */
      promises: sql<{ id: number; invoice: string; day: string; ended: "kept" | "broken" | null }>(
        `SELECT p.id, i.label AS invoice, p.day, p.ended FROM pay_promises p JOIN invoices i ON i.id = p.invoice_id
          WHERE i.customer_id = ? AND p.ended IS NOT 'changed' ORDER BY p.id DESC LIMIT 4`,
      ).all(customerId),
      /** What was written to them about money, the latest first. */
      sent: sql<{ id: number; subject: string; channel: "mail" | "text"; state: string; at: number }>(
        `SELECT id, subject, channel, state, written_at AS at FROM messages
          WHERE customer_id = ? AND (occasion LIKE 'invoice%' OR occasion LIKE 'receipt%') ORDER BY id DESC LIMIT 8`,
      )
        .all(customerId)
        .map(({ at, ...message }) => ({ ...message, day: dayOf(context, at) })),
      count: entries.length,
      entries: entries.slice(0, latest).map(({ at, amount, balance, ...entry }) => ({
        ...entry,
        day: dayOf(context, at),
        amountMinor: amount,
        balanceMinor: balance,
      })),
    };
  },
});

/** All of an account, the latest first, as statements print it. */
export const entriesOfAccount = (context: ViewContext, customerId: number): PaperEntry[] =>
  readEntries(context, customerId).map((entry) => ({
    date: dayOf(context, entry.at),
    words: entryWords(entry),
    amountMinor: entry.amount,
    balanceMinor: entry.balance,
  }));

const dayOf = ({ business }: ViewContext, at: number) => localDate(Math.floor(at / 60_000), business.time_zone);

const readEntries = ({ sql }: ViewContext, customerId: number) =>
  sql<{
    id: number;
    at: number;
    kind: Rows["ledger_events"]["kind"];
    reason: string;
    amount: number;
    balance: number;
    invoiceId: number | null;
    invoice: string | null;
    note: string | null;
    paymentId: number | null;
    method: string | null;
  }>(
    `SELECT *, sum(amount) OVER (ORDER BY at, id) AS balance FROM (
          SELECT v.id, v.at, v.kind, v.reason, sum(e.amount_minor) AS amount, max(e.invoice_id) AS invoiceId,
            max(i.label) AS invoice, max(n.label) AS note, max(e.payment_id) AS paymentId, max(p.method) AS method
          FROM (
            SELECT e.* FROM invoices i JOIN ledger_entries e ON e.invoice_id = i.id
              WHERE i.customer_id = @customerId AND e.account = 'receivable'
            UNION ALL SELECT e.* FROM payments p JOIN ledger_entries e ON e.payment_id = p.id
              WHERE p.customer_id = @customerId AND e.account IN ('deposits', 'credit')
          ) e JOIN ledger_events v ON v.id = e.event_id LEFT JOIN invoices i ON i.id = e.invoice_id
            LEFT JOIN credit_notes n ON n.id = e.note_id LEFT JOIN payments p ON p.id = e.payment_id
          GROUP BY v.id HAVING sum(e.amount_minor) <> 0
        ) ORDER BY at DESC, id DESC`,
  ).all({ customerId });
