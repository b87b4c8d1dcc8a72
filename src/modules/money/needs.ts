import { dayMs } from "@/core/horizons";
import { moneyWords } from "@/core/money/amounts";
import { paymentStates } from "@/core/money/states";
import { momentIn } from "@/core/time/local-words";
import { dayWords } from "@/core/time/words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";

/** Of each kind so many are named one by one. */
const mostShown = 6;
const mostCharges = 10;
const invoiceHref = (id: number) => `/money?list=invoices&show=all&id=${id}`;

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

/** Deposits and bills whose card was declined within a week, and nothing has been tried since. */
const declined = ({ sql, now }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; visit_id: number; date: string; name: string; purpose: string; problem: string }>(
    `SELECT p.id, v.id AS visit_id, v.date, c.name, p.purpose, p.problem
      FROM payments p JOIN customers c ON c.id = p.customer_id JOIN visits v ON v.job_id = p.job_id
        JOIN jobs j ON j.id = p.job_id
      WHERE p.state = 'declined' AND j.state <> 'cancelled' AND p.settled_at > ?
        AND NOT EXISTS (SELECT 1 FROM payments q WHERE q.job_id = p.job_id AND q.purpose = p.purpose AND q.id > p.id)
      GROUP BY p.id ORDER BY p.id DESC LIMIT 10`,
  )
    .all(now - 7 * dayMs)
    .map((p) => ({
      kind: "failed card",
      words: `${p.name}: the card for the ${p.purpose} was declined`,
      detail: p.problem,
      href: `/board?date=${p.date}&visit=${p.visit_id}`,
    }));

/** Charges of which the card service has said nothing for a day: a person looks there, and says how it was. */
const unknownCharges = ({ sql, now, business }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; minor: number; customerId: number; at: number }>(
    `SELECT p.id, c.name, p.amount_minor + p.tip_minor AS minor, c.id AS customerId, p.asked_at AS at
      FROM payments p JOIN customers c ON c.id = p.customer_id
      WHERE p.method = 'card' AND p.state IN ${paymentStates.sql("under way")} AND p.asked_at < ? ORDER BY p.id DESC LIMIT ?`,
  )
    .all(now - dayMs, mostCharges)
    .map(({ id, name, minor, customerId, at }) => ({
      kind: "stuck",
      words: `Whether ${name}’s card was charged ${moneyWords(minor, business.currency)} is not known`,
      detail: `Asked on ${momentIn(at, business.time_zone)}. Look at your card service, and say how it was; until then it is asked again.`,
      href: `/customers/${customerId}`,
      charge: { paymentId: id },
    }));

export const moneyNeeds: readonly Needs[] = [
  { may: "office.see", read: declined },
  { may: "money.change", read: unknownCharges },
  ...[overdue, disputes, objections, paidTwice, bank].map((read): Needs => ({ may: "money.see", read })),
];
