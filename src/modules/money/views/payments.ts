import { paymentStates } from "@/core/money/states";
import { parseMoney } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { input, OneOf } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { paymentsShown, type PaymentsShown } from "@/core/money/applying";

const sorts = ["customer", "at", "amountMinor", "leftMinor"] as const;
/** Which payments: a condition each. */
const shown: Record<PaymentsShown, string> = {
  all: "TRUE",
  // The same as `left_minor > 0` of each, added up at once.
  "not used up": `p.id IN (SELECT payment_id FROM ledger_entries
    WHERE payment_id IS NOT NULL AND account IN ('deposits', 'credit') GROUP BY payment_id HAVING sum(amount_minor) < 0)`,
  "under way": `p.state IN ${paymentStates.sql("under way")}`,
  declined: "p.state = 'declined'",
};
const joined =
  "FROM payments p JOIN customers c ON c.id = p.customer_id JOIN payment_balances b ON b.payment_id = p.id";

/** One page of the payments; looked for by customer and by the gateway's reference. */
export const payments = defineView({
  name: "payments",
  access: "money.see of all",
  input: input({ ...pageInput(sorts), show: OneOf(paymentsShown) }),
  read(context, asked) {
    const { sql, business } = context;
    const { rows: ids, count } = readPage(context, asked, {
      from: joined,
      where: `${shown[asked.show]} AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR p.gateway_reference LIKE @search ESCAPE '\\' OR p.amount_minor = @amount)`,
      id: "p.id",
      order: {
        customer: "c.name COLLATE NOCASE",
        at: "p.asked_at",
        amountMinor: "p.amount_minor",
        leftMinor: "b.left_minor",
      },
      params: { search: likePattern(asked.search), amount: parseMoney(asked.search, business.currency) },
    });
    const row = sql<{
      id: number;
      customer: string;
      asked_at: number;
      method: string;
      purpose: string;
      amount_minor: number;
      left_minor: number;
      refunded_minor: number;
      state: string;
      problem: string | null;
      invoiceId: number | null;
      invoice: string | null;
    }>(
      `SELECT p.id, c.name AS customer, p.asked_at, p.method, p.purpose, p.amount_minor, b.left_minor, b.refunded_minor,
          p.state, p.problem, i.id AS invoiceId, i.label AS invoice
        ${joined} LEFT JOIN invoices i ON i.job_id = p.job_id
        WHERE p.id = ?`,
    );
    return {
      currency: business.currency,
      count,
      rows: ids.map((id) => {
        const { asked_at, amount_minor, left_minor, refunded_minor, ...payment } = row.get(id)!;
        return {
          ...payment,
          at: localDate(Math.floor(asked_at / 60_000), business.time_zone),
          amountMinor: amount_minor,
          leftMinor: left_minor,
          refundedMinor: refunded_minor,
        };
      }),
    };
  },
});
