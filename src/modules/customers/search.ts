import { searchWords } from "@/core/customers/search-words";
import type { CustomerRights } from "@/kernel/seen";

/**
 * A condition on customers `c` for what somebody looks for: any part of name, phone, email, street, postcode, tag or note,
 * as far as they may see these. Answers the SQL with its parameters.
 */
export function searchCondition(text: string, rights: CustomerRights): { where: string; params: object } {
  const columns = ["name", "places", "tags", ...(rights.contacts ? ["mail"] : []), ...(rights.notes ? ["notes"] : [])];
  const { match, short } = searchWords(text, columns, rights.contacts);
  const parts: string[] = [];
  if (match !== null) parts.push("c.id IN (SELECT rowid FROM customer_search WHERE customer_search MATCH @match)");
  // One or two letters alone are the beginning of a name; beside longer words they may stand anywhere.
  short.forEach((_, i) =>
    parts.push(
      match === null
        ? `c.name LIKE @short${i} ESCAPE '\\'`
        : `EXISTS (SELECT 1 FROM customer_search s WHERE s.rowid = c.id AND (${columns.map((column) => `s.${column} LIKE @short${i} ESCAPE '\\'`).join(" OR ")}))`,
    ),
  );
  return {
    where: parts.length ? parts.join(" AND ") : "1",
    params: { match, ...Object.fromEntries(short.map((pattern, i) => [`short${i}`, pattern])) },
  };
}
