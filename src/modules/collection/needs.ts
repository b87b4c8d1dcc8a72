import { moneyWords } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";

/** Of each kind so many are named one by one. */
const mostShown = 6;

/** Cards that were tried to the end, as long as nothing has come of it and nobody has promised a day. */
const notCollected = ({ sql, business, today }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; minor: number; problem: string | null }>(
    `SELECT i.id, c.name, b.open_minor AS minor, p.problem
      FROM collection_items t JOIN payments p ON p.id = t.payment_id AND p.state = 'declined'
        JOIN invoices i ON i.id = t.invoice_id JOIN customers c ON c.id = i.customer_id
        JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE t.run_date >= ? AND t.followed = 1 AND i.collect_never = 1 AND b.open_minor > 0
        AND NOT EXISTS (SELECT 1 FROM pay_promises WHERE invoice_id = i.id)
      GROUP BY i.id ORDER BY max(t.run_date) DESC LIMIT ?`,
  )
    .all(addDays(today, -14), mostShown)
    .map(({ id, name, minor, problem }) => ({
      kind: "not collected",
      words: `${moneyWords(minor, business.currency)} of ${name} could not be collected`,
      detail: `${problem ?? "No card has paid"}; they were asked for another card`,
      href: `/money?list=invoices&show=all&id=${id}`,
    }));

const brokenPromises = ({ sql, business, today }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; minor: number; day: string; phone: string }>(
    `SELECT i.id, c.name, c.phone, b.open_minor AS minor, max(m.day) AS day
      FROM pay_promises m JOIN invoices i ON i.id = m.invoice_id JOIN customers c ON c.id = i.customer_id
        JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE m.ended = 'broken' AND m.day >= ? AND b.open_minor > 0
        AND NOT EXISTS (SELECT 1 FROM pay_promises WHERE invoice_id = i.id AND ended IS NULL)
        AND NOT EXISTS (SELECT 1 FROM money_calls k WHERE k.invoice_id = i.id AND k.at > m.made_at)
      GROUP BY i.id ORDER BY day LIMIT ?`,
  )
    .all(addDays(today, -30), mostShown)
    .map(({ name, minor, day, phone }) => ({
      kind: "broken promise",
      words: `${name} wanted to pay ${moneyWords(minor, business.currency)} on ${dayWords(day)}, and has not`,
      detail: `Phone ${phone}, and write down what they say`,
      href: "/money?list=collection",
      date: day,
    }));

export const collectionNeeds: readonly Needs[] = [notCollected, brokenPromises].map((read) => ({
  may: "money.see",
  read,
}));
