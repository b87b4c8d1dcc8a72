import { seesOnly } from "@/core/people/permissions";
import { repeatWords } from "@/core/repeats/rule-words";
import { windowWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import { input } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { seenCustomers } from "@/modules/customers/seen";

const sorts = ["customer", "service", "next", "state"] as const;
const coming = `FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state IN ${visitStates.sql("move")}`;

/** One page of the repeats, those that go on first; looked for by customer and service. */
export const repeats = defineView({
  name: "repeats",
  access: "customers.see",
  input: input(pageInput(sorts)),
  read(context, asked) {
    const { sql, today, actor } = context;
    const params = { today, only: seesOnly(actor), search: likePattern(asked.search) };
    const { rows: ids, count } = readPage(context, asked, {
      from: "FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id",
      where: `${seenCustomers} AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR s.name LIKE @search ESCAPE '\\') AND @today IS NOT NULL`,
      id: "r.id",
      order: {
        customer: "c.name COLLATE NOCASE",
        service: "s.name",
        next: `(SELECT min(date) ${coming})`,
        state: "r.state",
      },
      params,
    });
    const row = sql<{
      id: number;
      customer: string;
      service: string;
      code: string;
      hue: number;
      rule: string;
      start_date: string;
      from_minute: number;
      to_minute: number;
      state: string;
      technician: string | null;
      site: string;
      next: string | null;
      nextVisit: number | null;
      ahead: number;
      unplaced: number;
    }>(
      `SELECT r.*, c.name AS customer, s.name AS service, s.code, s.hue, t.line AS site,
          te.name AS technician, (SELECT min(date) ${coming}) AS next,
          (SELECT id ${coming} ORDER BY date LIMIT 1) AS nextVisit,
          (SELECT count(*) ${coming} AND v.state = 'forecast') AS ahead,
          (SELECT count(*) ${coming} AND v.state = 'forecast' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)) AS unplaced
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
          JOIN sites t ON t.id = r.site_id LEFT JOIN technicians te ON te.id = r.technician_id
        WHERE r.id = @id`,
    );
    const sums = sql<{ active: number; unplaced: number }>(
      `SELECT (SELECT count(*) FROM repeats r JOIN customers c ON c.id = r.customer_id WHERE r.state = 'active' AND ${seenCustomers}) AS active,
          (SELECT count(*) FROM visits v JOIN repeats r ON r.id = v.repeat_id JOIN customers c ON c.id = r.customer_id WHERE v.state = 'forecast' AND v.date >= @today AND r.state = 'active' AND ${seenCustomers} AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)) AS unplaced`,
    ).get({ today, only: params.only })!;
    return {
      count,
      sums,
      rows: ids.map((id) => {
        const r = row.get({ id, today })!;
        return {
          ...r,
          words: repeatWords(r),
          window: windowWords(r.from_minute, r.to_minute),
        };
      }),
    };
  },
});
