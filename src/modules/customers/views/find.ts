import { quoteStates } from "@/core/catalogue/quote-states";
import { defineView } from "@/kernel/view";
import { FindAddress } from "@/modules/place/inputs";
import { searchCondition } from "../search";
import { rightsOn, seenCustomers } from "@/kernel/seen";

const mostLookedAt = 400;

/** Customers and visits for the command palette: found by what is known of the customer. */
export const find = defineView({
  name: "find",
  access: "customers.see",
  input: FindAddress,
  read({ sql, today, actor }, { text }) {
    const rights = rightsOn(actor);
    const { only } = rights;
    const { where, params } = searchCondition(text, rights);
    const asked = { ...params, today, only, begins: `${text.trim().replace(/[\\%_]/g, "\\$&")}%` };
    const theirs = `c.merged_into IS NULL AND c.erased_at IS NULL AND ${seenCustomers} AND ${where}`;
    // Of a word that stands with thousands, some are looked at: whoever wants another one types more.
    const some = `SELECT c.id FROM customers c WHERE ${theirs} LIMIT ${mostLookedAt}`;
    const found = sql<{
      id: number;
      name: string;
      mail: string;
      phone: string;
      place: string | null;
      archived_at: number | null;
    }>(
      `SELECT c.id, c.name, c.mail, c.phone, c.archived_at,
          (SELECT s.line FROM sites s WHERE s.customer_id = c.id ORDER BY s.id LIMIT 1) AS place
        FROM customers c WHERE c.id IN (${some})
        ORDER BY c.archived_at IS NOT NULL, c.name NOT LIKE @begins ESCAPE '\\', c.name LIMIT 6`,
    )
      .all(asked)
      .map(({ archived_at, mail, phone, ...customer }) => ({
        ...customer,
        archived: archived_at !== null,
        detail: rights.contacts ? phone || mail : (customer.place ?? ""),
      }));
    const visits = sql<{ id: number; date: string; service: string; name: string; line: string }>(
      `SELECT v.id, v.date, v.title AS service, c.name, t.line
        FROM customers c JOIN jobs j ON j.customer_id = c.id JOIN visits v ON v.job_id = j.id JOIN sites t ON t.id = j.site_id
        WHERE v.state <> 'cancelled' AND c.id IN (${some})
        ORDER BY abs(julianday(v.date) - julianday(@today)) LIMIT 6`,
    ).all(asked);
    // What waits belongs to nobody yet: whoever sees only their own visits finds none of it.
    const like = `%${text.trim().replace(/[\\%_]/g, "\\$&")}%`;
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
