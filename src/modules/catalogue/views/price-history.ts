import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";

/** What a service has cost, when that changed and who changed it: read from the audit. */
export const priceHistory = defineView({
  name: "price-history",
  access: "setup.change",
  input: input({ serviceId: Id }),
  read: ({ sql }, { serviceId }) =>
    sql<{ at: number; actor: string; before: number | null; after: number }>(
      `SELECT a.at, a.actor, json_extract(c.before, '$.price_minor') AS before,
          json_extract(c.after, '$.price_minor') AS after
        FROM audit_changes c JOIN audit a ON a.id = c.audit_id
        WHERE c.entity = 'services' AND c.row_key = ? AND c.after IS NOT NULL
          AND json_extract(c.before, '$.price_minor') IS NOT json_extract(c.after, '$.price_minor')
        ORDER BY c.id DESC LIMIT 60`,
    )
      .all(String(serviceId))
      .map(({ at, actor, before, after }) => ({
        at,
        who: actor.replace(/^person \d+ /, "").replace(/^system /, ""),
        beforeMinor: before,
        afterMinor: after,
      })),
});
