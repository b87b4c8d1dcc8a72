import { moneyWords } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import type { NeedsPerson } from "./needs";

/** Of each kind so many are named one by one. */
const mostShown = 6;
const invoiceHref = (id: number) => `/money?list=invoices&show=all&id=${id}`;

/** What of the money needs a person, each with its one next action. */
export const moneyNeeds = (context: ViewContext): NeedsPerson[] => [
  ...overdue(context),
  ...disputes(context),
  ...objections(context),
  ...paidTwice(context),
  ...notCollected(context),
  ...brokenPromises(context),
  ...bank(context),
];

function overdue({ sql, today }: ViewContext): NeedsPerson[] {
  const { n } = sql<{ n: number }>(
    `SELECT count(*) AS n FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE i.due_date < ? AND b.open_minor > 0`,
  ).get(today)!;
  if (n === 0) return [];
  return [
    {
      kind: "overdue",
      words: `${n} ${n === 1 ? "invoice is" : "invoices are"} overdue`,
      detail: "Reminders go out by themselves",
      href: "/money?list=invoices&show=overdue",
    },
  ];
}

const disputes = ({ sql, business }: ViewContext): NeedsPerson[] =>
  sql<{ name: string; minor: number; answerBy: string | null }>(
    `SELECT c.name, d.amount_minor AS minor, d.answer_by AS answerBy
      FROM disputes d JOIN payments p ON p.id = d.payment_id JOIN customers c ON c.id = p.customer_id
      WHERE d.state = 'open' ORDER BY d.answer_by LIMIT ?`,
  )
    .all(mostShown)
    .map(({ name, minor, answerBy }) => ({
      kind: "dispute",
      words: `The bank of ${name} asks ${moneyWords(minor, business.currency)} back`,
      detail: answerBy ? `Answer the card service until ${dayWords(answerBy)}` : "Answer the card service",
      href: "/money?list=collection",
    }));

/** Invoices that their customers object to, until somebody has answered. */
const objections = ({ sql, business }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; label: string; name: string; phone: string; minor: number; words: string }>(
    `SELECT i.id, i.label, c.name, c.phone, b.open_minor AS minor, i.objection AS words
      FROM invoices i JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE i.objected_at IS NOT NULL AND b.open_minor > 0 ORDER BY i.objected_at LIMIT ?`,
  )
    .all(mostShown)
    .map(({ id, label, name, phone, minor, words }) => ({
      kind: "objection",
      words: `${name} objects to ${moneyWords(minor, business.currency)} of invoice ${label}`,
      detail: [words && `“${words}”`, "Nobody reminds or charges until you have answered", phone]
        .filter(Boolean)
        .join(" · "),
      href: invoiceHref(id),
    }));

/** Money that came for an invoice which something else had paid by then, and lies there since. */
const paidTwice = ({ sql, business, now }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; label: string; name: string; minor: number }>(
    `SELECT i.id, i.label, c.name, sum(b.left_minor) AS minor
      FROM payments p JOIN payment_balances b ON b.payment_id = p.id JOIN customers c ON c.id = p.customer_id
        JOIN invoices i ON i.id = coalesce(p.invoice_id, (SELECT id FROM invoices WHERE job_id = p.job_id))
      WHERE p.state = 'received' AND p.purpose <> 'account' AND p.settled_at > @since AND b.left_minor > 0
        AND EXISTS (SELECT 1 FROM allocations a WHERE a.invoice_id = i.id AND a.payment_id <> p.id)
      GROUP BY i.id ORDER BY max(p.settled_at) DESC LIMIT @most`,
  )
    .all({ since: now - 90 * 86_400_000, most: mostShown })
    .map(({ id, label, name, minor }) => ({
      kind: "paid twice",
      words: `${name} has paid invoice ${label} twice: ${moneyWords(minor, business.currency)} is over`,
      detail: "Give it back, or keep it for what comes next if they agree",
      href: invoiceHref(id),
    }));

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
      href: invoiceHref(id),
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

function bank({ sql }: ViewContext): NeedsPerson[] {
  const { n } = sql<{ n: number }>("SELECT count(*) AS n FROM bank_lines WHERE state = 'open'").get()!;
  if (n === 0) return [];
  return [
    {
      kind: "bank",
      words: `${n} ${n === 1 ? "line" : "lines"} of the bank wait to be matched`,
      detail: "What came in finds its invoices there",
      href: "/money?list=bank",
    },
  ];
}
