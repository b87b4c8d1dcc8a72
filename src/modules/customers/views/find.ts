import { quoteStates } from "@/core/catalogue/quote-states";
import { seesOnly } from "@/core/people/permissions";
import { defineView } from "@/kernel/view";
import { FindAddress } from "@/modules/place/inputs";
import { seenCustomers } from "../seen";

/** Customers and visits for the command palette. */
export const find = defineView({
  name: "find",
  access: "customers.see",
  input: FindAddress,
  read({ sql, today, actor }, { text }) {
    const only = seesOnly(actor);
    const like = `%${text.trim().replace(/[\\%_]/g, "\\$&")}%`;
    const found = sql<{ id: number; name: string; mail: string; phone: string }>(
      `SELECT id, name, mail, phone
        FROM customers c
        WHERE (name LIKE @like ESCAPE '\\' OR mail LIKE @like ESCAPE '\\' OR replace(phone, ' ', '') LIKE replace(@like, ' ', '') ESCAPE '\\')
          AND merged_into IS NULL AND ${seenCustomers}
        ORDER BY name LIMIT 6`,
    ).all({ like, only });
    const visits = sql<{ id: number; date: string; service: string; name: string; line: string }>(
      `SELECT v.id, v.date, v.title AS service, c.name, t.line
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
          JOIN sites t ON t.id = j.site_id
        WHERE v.state <> 'cancelled' AND (c.name LIKE @like ESCAPE '\\' OR t.line LIKE @like ESCAPE '\\')
          AND ${seenCustomers}
        ORDER BY abs(julianday(v.date) - julianday(@today)) LIMIT 6`,
    ).all({ like, today, only });
    // What waits belongs to nobody yet: whoever sees only their own visits finds none of it.
    const waiting =
      only !== null
        ? []
        : sql<{ key: string; name: string; where: string }>(
            `SELECT 'request ' || id AS key, name, address AS "where"
              FROM requests
              WHERE outcome = 'open' AND (name LIKE @like ESCAPE '\\' OR address LIKE @like ESCAPE '\\')
              UNION ALL SELECT 'quote ' || id, name, line
              FROM quotes WHERE state IN ${quoteStates.sql("open")}
                AND (name LIKE @like ESCAPE '\\' OR line LIKE @like ESCAPE '\\') LIMIT 6`,
          ).all({ like });
    return { customers: found, visits, waiting };
  },
});
