import { paymentStates } from "@/core/money/states";
import { dayMs } from "@/core/horizons";
import { planCollection, type WhyLeft } from "@/core/money/collecting";
import { sum } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { localDate } from "@/core/time/local";
import { Refusal } from "@/core/problems";
import { openedBy } from "@/kernel/links";
import { InvoiceToken } from "@/modules/money/inputs";
import { DateText, input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { reminderDays } from "@/modules/messages/reminders";
import { chargeComing } from "../coming";
import { expectedDue } from "../expected";
import { againDays, type Due, dueForCollection, plannedRuns, rulesOf } from "../rules";

/** So many days ahead runs are shown, and so many invoices of each. */
const daysAhead = 28;
const most = 60;

const why: Record<WhyLeft, string> = {
  never: "not collected by itself",
  "too small": "less is open than is collected",
  "too large": "more is open than the card service takes",
  later: "due later",
};

/** What is collected by itself: the coming runs with what each will take, what is left and why, and runs that were. */
export const collection = defineView({
  name: "collection",
  access: "money.see of all",
  input: Nothing,
  read(context) {
    const { sql, business: b, today, minute } = context;
    const horizon = { now: minute, until: minute + daysAhead * 1440 };
    const { runs, left } = planCollection(rulesOf(context), b.collects ? dueForCollection(context) : [], horizon);
    const expected = planCollection(rulesOf(context), b.collects ? expectedDue(context, daysAhead) : [], horizon).runs;
    return {
      today,
      currency: b.currency,
      takesCards: context.hogar.gateways.cards !== null,
      rules: {
        on: b.collects === 1,
        weekdays: b.collect_weekdays,
        at: b.collect_at,
        daysPastDue: b.collect_days,
        smallestMinor: b.collect_smallest_minor,
        cards: b.collect_cards as 1 | 2 | 3,
        again: againDays(context),
        reminders: reminderDays(context),
        mostMinor: b.card_most_minor,
        dayMinor: b.card_day_minor,
        newCustomers: b.collect_new === 1,
      },
      /** Today's run, as long as it has not begun. */
      todaysRun:
        sql<{ n: number; sumMinor: number }>(
          `SELECT count(*) AS n, sum(amount_minor) AS sumMinor FROM collection_notices
          WHERE run_date = @today AND objected_at IS NULL
            AND NOT EXISTS (SELECT 1 FROM collection_runs WHERE run_date = @today) HAVING count(*) > 0`,
        ).get({ today }) ?? null,
      runs: runs.map(({ at, taken, sumMinor }) => ({
        date: localDate(at, b.time_zone),
        n: taken.length,
        sumMinor,
        invoices: taken.slice(0, most).map(shown),
      })),
      /** What visits to come will bring, as they stand now. */
      expected: expected.map(({ at, taken, sumMinor }) => ({
        date: localDate(at, b.time_zone),
        n: taken.length,
        sumMinor,
        visits: taken.slice(0, most).map(({ id, jobId, customer, visitOn, due, openMinor }) => ({
          key: id,
          jobId,
          customer,
          visitOn,
          due,
          openMinor,
        })),
      })),
      left: left.slice(0, most).map(({ invoice, why: reason }) => ({ ...shown(invoice), why: why[reason] })),
      leftCount: left.length,
      past: sql<{
        date: string;
        ended: number | null;
        paid: number;
        paidMinor: number;
        declined: number;
        waits: number;
        left: number;
      }>(
        `SELECT r.run_date AS date, r.ended_at AS ended,
            count(*) FILTER (WHERE p.state = 'received') AS paid,
            coalesce(sum(p.amount_minor) FILTER (WHERE p.state = 'received'), 0) AS paidMinor,
            count(*) FILTER (WHERE p.state = 'declined') AS declined,
            count(*) FILTER (WHERE p.state IN ${paymentStates.sql("under way")}) AS waits,
            count(*) FILTER (WHERE i.left_out IS NOT NULL) AS left
          FROM collection_runs r LEFT JOIN collection_items i ON i.run_date = r.run_date LEFT JOIN payments p ON p.id = i.payment_id
          GROUP BY r.run_date ORDER BY r.run_date DESC LIMIT 30`,
      ).all(),
      declined: declined(context),
      toPhone: toPhone(context),
      disputes: sql<{
        id: number;
        customer: string;
        reason: string;
        amountMinor: number;
        answerBy: string | null;
        state: "open" | "won" | "lost";
        invoiceId: number | null;
      }>(
        `SELECT d.id, c.name AS customer, d.reason, d.amount_minor AS amountMinor, d.answer_by AS answerBy, d.state,
            (SELECT max(invoice_id) FROM allocations WHERE payment_id = d.payment_id) AS invoiceId
          FROM disputes d JOIN payments p ON p.id = d.payment_id JOIN customers c ON c.id = p.customer_id
          WHERE d.state = 'open' OR d.ended_at > @since ORDER BY d.state <> 'open', d.answer_by LIMIT 40`,
      ).all({ since: context.now - 60 * dayMs }),
    };
  },
});

const shown = ({ id, invoiceId, label, part, customer, card, due, openMinor }: Due) => ({
  key: id,
  invoiceId,
  label: part ? `${label}, part ${part.nth} of ${part.of}` : label,
  customer,
  card,
  due,
  openMinor,
});

/** So long a declined card is shown. */
const declinedDays = 45;

/** Invoices that are open since a card was declined, by what helps: the last try of each. */
const declined = ({ sql, today }: ViewContext) =>
  sql<{
    invoiceId: number;
    label: string;
    customer: string;
    openMinor: number;
    card: string;
    problem: string | null;
    kind: "later" | "another" | "never";
    again: string | null;
  }>(
    `SELECT i.id AS invoiceId, i.label, c.name AS customer, b.open_minor AS openMinor, coalesce(k.label, 'card') AS card, p.problem,
        coalesce(p.decline_kind, 'later') AS kind, iif(i.collect_never = 0 AND i.collect_on >= @today, i.collect_on, NULL) AS again
      FROM (SELECT invoice_id, max(payment_id) AS payment_id FROM collection_items
          WHERE run_date >= @since AND payment_id IS NOT NULL GROUP BY invoice_id) t
        JOIN payments p ON p.id = t.payment_id AND p.state = 'declined'
        JOIN collection_items n ON n.payment_id = p.id LEFT JOIN cards k ON k.id = n.card_id
        JOIN invoices i ON i.id = t.invoice_id JOIN customers c ON c.id = i.customer_id
        JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE b.open_minor > 0 ORDER BY p.id DESC LIMIT 60`,
  ).all({ since: addDays(today, -declinedDays), today });

/** Whom to phone: the last reminder did not help, or a promise was not kept; nobody who has promised a day that is to come. */
const toPhone = (context: ViewContext) =>
  context
    .sql<{
      invoiceId: number;
      label: string;
      customer: string;
      phone: string;
      due: string;
      openMinor: number;
      promised: string | null;
      said: string | null;
      saidAt: number | null;
    }>(
      `SELECT i.id AS invoiceId, i.label, c.name AS customer, c.phone, i.due_date AS due, o.open AS openMinor,
          (SELECT day FROM pay_promises WHERE invoice_id = i.id AND ended = 'broken' ORDER BY id DESC LIMIT 1) AS promised,
          (SELECT words FROM money_calls WHERE invoice_id = i.id ORDER BY id DESC LIMIT 1) AS said,
          (SELECT at FROM money_calls WHERE invoice_id = i.id ORDER BY id DESC LIMIT 1) AS saidAt
        FROM (SELECT invoice_id, sum(amount_minor) AS open FROM ledger_entries WHERE account = 'receivable'
            GROUP BY invoice_id HAVING sum(amount_minor) > 0) o
          JOIN invoices i ON i.id = o.invoice_id JOIN customers c ON c.id = i.customer_id
        WHERE NOT EXISTS (SELECT 1 FROM pay_promises WHERE invoice_id = i.id AND ended IS NULL)
          AND (i.due_date < @over OR i.id IN (SELECT invoice_id FROM pay_promises WHERE ended = 'broken'))
        ORDER BY i.due_date, i.id LIMIT 60`,
    )
    .all({ over: addDays(context.today, -Math.max(0, ...reminderDays(context))) })
    .map(({ saidAt, ...one }) => ({
      ...one,
      saidOn: saidAt === null ? null : localDate(Math.floor(saidAt / 60_000), context.business.time_zone),
    }));

/** What a run did, invoice by invoice. */
export const collectionRun = defineView({
  name: "collection-run",
  access: "money.see of all",
  input: input({ date: DateText }),
  read({ sql, business }, { date }) {
    const rows = sql<{
      invoiceId: number;
      label: string;
      customer: string;
      attempt: number;
      state: string | null;
      minor: number;
      card: string;
      problem: string | null;
      leftOut: string | null;
      next: string | null;
    }>(
      `SELECT i.invoice_id AS invoiceId, v.label, c.name AS customer, i.attempt, p.state, coalesce(p.amount_minor, n.amount_minor, 0) AS minor,
          coalesce(k.label, 'card') AS card, p.problem, i.left_out AS leftOut, v.collect_on AS next
        FROM collection_items i JOIN invoices v ON v.id = i.invoice_id JOIN customers c ON c.id = v.customer_id
          LEFT JOIN payments p ON p.id = i.payment_id LEFT JOIN cards k ON k.id = i.card_id
          LEFT JOIN collection_notices n ON n.invoice_id = i.invoice_id AND n.run_date = i.run_date
        WHERE i.run_date = ? ORDER BY c.name COLLATE NOCASE, i.invoice_id, i.attempt LIMIT 2000`,
    ).all(date);
    return {
      date,
      currency: business.currency,
      paidMinor: sum(rows.filter(({ state }) => state === "received").map(({ minor }) => minor)),
      rows,
    };
  },
});

/** What the runs of the next two weeks will take, by day. */
export const collectionPlan = defineView({
  name: "collection-plan",
  access: "money.see of all",
  input: Nothing,
  read: (context) => [...plannedRuns(context, 14)].map(([date, minor]) => ({ date, minor })),
});

/** What the customer of an invoice reads beside it: what is about to be charged, and the day that they have promised. */
export const invoiceComing = defineView({
  name: "invoice-coming",
  access: "anybody",
  input: input({ token: InvoiceToken }),
  read(context, { token }) {
    const id = openedBy(context.hogar, "invoice", token);
    if (id === null) throw new Refusal("link-ended");
    return chargeComing(context, id);
  },
});
