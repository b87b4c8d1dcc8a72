import type { Law } from "@/kernel/laws";
import type { ViewContext } from "@/kernel/operation";

type Sql = ViewContext["sql"];

/** Tables whose rows stand as the last recorded change left them: nothing is changed past the record. */
const recorded = [
  "ledger_events",
  "ledger_entries",
  "invoices",
  "invoice_lines",
  "credit_notes",
  "credit_note_lines",
  "payments",
  "refunds",
  "handovers",
  "payouts",
  "disputes",
  "bank_lines",
  "fees",
  "points",
  "repeat_bills",
  "placements",
];

/** That nothing was changed past the record: two laws for each table. */
export function asRecorded(sql: Sql): Law[] {
  return recorded.flatMap((table): Law[] => {
    const columns = sql<{ name: string; type: string; pk: number }>(
      `SELECT name, type, pk FROM pragma_table_info('${table}') ORDER BY pk`,
    ).all();
    const key = columns
      .filter(({ pk }) => pk > 0)
      .map(({ name }) => `t.${name}`)
      .join(" || ' ' || ");
    // A column that came later, and what the record does not repeat, says nothing; nor do fractions.
    const differs = columns
      .filter(({ type }) => type !== "REAL")
      .map(
        ({ name }) =>
          `(json_type(a.after, '$.${name}') IS NOT NULL AND json_extract(a.after, '$.${name}') IS NOT t.${name})`,
      )
      .join(" OR ");
    // The last change of every row is looked up once, and each row finds its own by an index on that.
    const last = `(SELECT row_key, max(id) AS id FROM audit_changes WHERE entity = '${table}' GROUP BY row_key)`;
    const changed = {
      says: `Every row of ${table} stands as the last recorded change left it.`,
      breaks: `SELECT '${table} ' || a.row_key AS what
        FROM ${table} t
          CROSS JOIN ${last} l ON l.row_key = CAST(${key} AS TEXT)
          CROSS JOIN audit_changes a ON a.id = l.id
        WHERE a.after IS NOT NULL AND (${differs})`,
    };
    const missing = {
      says: `No row of ${table} is missing that was written and not taken away by the door.`,
      breaks: `SELECT '${table} ' || l.row_key AS what
        FROM ${last} l CROSS JOIN audit_changes a ON a.id = l.id
        WHERE a.after IS NOT NULL AND l.row_key NOT IN (SELECT CAST(${key} AS TEXT) FROM ${table} t)`,
    };
    return [changed, missing];
  });
}
