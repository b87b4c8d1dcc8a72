import type { CustomerFilter } from "@/core/customers/filter";
import { dayMs } from "@/core/horizons";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";

/** What is open on all invoices of a customer `c`. */
export const openOf = "(SELECT coalesce(sum(open_minor), 0) FROM invoice_balances b WHERE b.customer_id = c.id)";
const visitsOf = "FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = c.id";
/** The day of their last visit that was made, and of the next one that is promised (`@today`). */
export const lastVisit = `(SELECT max(v.date) ${visitsOf} AND v.state = 'done')`;
export const nextVisit = `(SELECT min(v.date) ${visitsOf} AND v.state = 'promised' AND v.date >= @today)`;

/** A filter as a condition on customers `c`. */
export function filterCondition({ now }: ViewContext, filter: CustomerFilter): { where: string; params: object } {
  const parts = [filter.archived ? "c.archived_at IS NOT NULL" : "c.archived_at IS NULL"];
  if (filter.openMoney)
    parts.push("EXISTS (SELECT 1 FROM invoice_balances b WHERE b.customer_id = c.id AND b.open_minor > 0)");
  if (filter.noVisitDays !== null)
    parts.push(
      `c.since_at < @before AND NOT EXISTS (SELECT 1 ${visitsOf} AND v.state = 'done' AND v.date > date(@today, '-' || @noVisitDays || ' days'))`,
    );
  if (filter.noComing)
    parts.push(
      `NOT EXISTS (SELECT 1 ${visitsOf} AND v.state IN ${visitStates.sql("expect")})
        AND NOT EXISTS (SELECT 1 FROM repeats r WHERE r.customer_id = c.id AND r.state = 'active')`,
    );
  if (filter.zoneId !== null)
    parts.push(
      "EXISTS (SELECT 1 FROM sites s WHERE s.customer_id = c.id AND s.zone_id = @zoneId AND s.archived_at IS NULL)",
    );
  if (filter.source !== null)
    parts.push(
      "(c.source = @source OR EXISTS (SELECT 1 FROM jobs j WHERE j.customer_id = c.id AND j.source = @source))",
    );
  if (filter.tag !== null)
    parts.push("EXISTS (SELECT 1 FROM customer_tags t WHERE t.customer_id = c.id AND t.tag = @tag)");
  const before = filter.noVisitDays === null ? null : now - filter.noVisitDays * dayMs;
  const { noVisitDays, zoneId, source, tag } = filter;
  return { where: parts.join(" AND "), params: { before, noVisitDays, zoneId, source, tag } };
}
