import { DateText, input } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { toBill } from "../billing";

const sorts = ["customer", "since"] as const;
/** Who is to be billed until a day: work that waits for its invoice, and flat prices whose month or year begins. */
const waiting = `SELECT customer_id, min(day) AS since FROM (
    SELECT customer_id, to_bill AS day FROM jobs WHERE to_bill <= @until
    UNION ALL SELECT customer_id, bill_from FROM repeats
      WHERE state = 'active' AND bill_from <= @until AND price_per IN ('month', 'year')
  ) GROUP BY customer_id`;

/** One page of the customers who are to be billed, each with what their invoice will say. */
export const toBillView = defineView({
  name: "to-bill",
  access: "money.see of all",
  input: input({ ...pageInput(sorts), until: DateText }),
  read(context, asked) {
    const { sql, business } = context;
    const { rows, count } = readPage(context, asked, {
      from: `FROM (${waiting}) w JOIN customers c ON c.id = w.customer_id`,
      where: "(@search IS NULL OR c.name LIKE @search ESCAPE '\\')",
      id: "c.id",
      order: { customer: "c.name COLLATE NOCASE", since: "w.since" },
      params: { until: asked.until, search: likePattern(asked.search) },
    });
    const name = sql<{ name: string }>("SELECT name FROM customers WHERE id = ?");
    return {
      currency: business.currency,
      count,
      rows: rows.map((id) => {
        const { lines, totalMinor } = toBill(context, id, { work: asked.until, flat: asked.until });
        return {
          id,
          customer: name.get(id)!.name,
          since: lines.map(({ date }) => date).sort()[0] ?? null,
          totalMinor,
          lines: lines.map(({ description, date, quantity, amountMinor }) => ({
            description,
            date,
            quantity,
            amountMinor,
          })),
        };
      }),
    };
  },
});

/** All who are to be billed until a day, to bill them one after the other. */
export const toBillIds = defineView({
  name: "to-bill-ids",
  access: "money.see of all",
  input: input({ until: DateText }),
  read: ({ sql }, { until }) =>
    sql<{ customer_id: number }>(`${waiting} ORDER BY customer_id LIMIT 5000`)
      .all({ until })
      .map(({ customer_id }) => customer_id),
});
