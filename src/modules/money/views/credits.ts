import { parseMoney } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { input } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";

const sorts = ["number", "customer", "at", "amountMinor"] as const;
const joined = "FROM credit_notes n JOIN invoices i ON i.id = n.invoice_id JOIN customers c ON c.id = i.customer_id";

/** One page of the credit notes; looked for by number, customer, reason and amount. */
export const credits = defineView({
  name: "credits",
  access: "money.see of all",
  input: input(pageInput(sorts)),
  read(context, asked) {
    const { sql, business } = context;
    const { rows: ids, count } = readPage(context, asked, {
      from: joined,
      where:
        "(@search IS NULL OR n.label LIKE @search ESCAPE '\\' OR i.label LIKE @search ESCAPE '\\' OR c.name LIKE @search ESCAPE '\\' OR n.reason LIKE @search ESCAPE '\\' OR n.total_minor = @amount)",
      id: "n.id",
      order: {
        number: "n.id",
        customer: "c.name COLLATE NOCASE",
        at: "n.issued_at",
        amountMinor: "n.total_minor",
      },
      params: { search: likePattern(asked.search), amount: parseMoney(asked.search, business.currency) },
    });
    const row = sql<{
      id: number;
      number: string;
      customer: string;
      invoiceId: number;
      invoice: string;
      issued_at: number;
      reason: string;
      amountMinor: number;
    }>(
      `SELECT n.id, n.label AS number, c.name AS customer, i.id AS invoiceId, i.label AS invoice, n.issued_at, n.reason,
          n.total_minor AS amountMinor
        ${joined} WHERE n.id = ?`,
    );
    return {
      currency: business.currency,
      count,
      rows: ids.map((id) => {
        const { issued_at, ...note } = row.get(id)!;
        return { ...note, at: localDate(Math.floor(issued_at / 60_000), business.time_zone) };
      }),
    };
  },
});
