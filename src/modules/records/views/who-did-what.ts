import { addDays } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { fieldChanges, type RowChange } from "@/core/records/changes";
import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { jsonRowColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";

const asked = {
  ...pageInput(["at"] as const),
  /** Whoever it was; people and customers; or what was done by itself. */
  by: OneOf(["anybody", "people", "itself"]),
  personId: OrNull(Id),
  customerId: OrNull(Id),
  visitId: OrNull(Id),
  operation: OrNull(Type.String({ maxLength: 60 })),
  from: OrNull(DateText),
  to: OrNull(DateText),
};

/** Rows of a customer, and of a visit with its job, by table: what the filters look for. */
const ofCustomer = `(ac.entity = 'customers' AND ac.row_key = CAST(@customerId AS TEXT))
  OR (ac.entity = 'jobs' AND ac.row_key IN (SELECT CAST(id AS TEXT) FROM jobs WHERE customer_id = @customerId))
  OR (ac.entity = 'visits' AND ac.row_key IN (SELECT CAST(v.id AS TEXT) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = @customerId))
  OR (ac.entity = 'payments' AND ac.row_key IN (SELECT CAST(id AS TEXT) FROM payments WHERE customer_id = @customerId))
  OR (ac.entity = 'invoices' AND ac.row_key IN (SELECT CAST(id AS TEXT) FROM invoices WHERE customer_id = @customerId))`;
const ofVisit = `(ac.entity = 'visits' AND ac.row_key = CAST(@visitId AS TEXT))
  OR (ac.entity = 'jobs' AND ac.row_key = (SELECT CAST(job_id AS TEXT) FROM visits WHERE id = @visitId))`;
const hasChange = (of: string) => `a.id IN (SELECT ac.audit_id FROM audit_changes ac WHERE ${of})`;

/** Most changes of one entry that are read: a large import has more. */
const mostChanges = 200;

/** Who did what and when, newest first, with each change before and after; by person, customer, visit, operation and time. */
export const whoDidWhat = defineView({
  name: "who-did-what",
  access: "audit.see of all",
  about: { personId: "shared", customerId: "customer", visitId: "visit" },
  input: input(asked),
  read(context, { by, personId, customerId, visitId, operation, from, to, ...page }) {
    const { sql, business } = context;
    const day = (date: string | null) => (date === null ? null : epochMinute(date, 0, business.time_zone) * 60_000);
    const params = {
      actor: personId === null ? null : `person ${personId} `,
      by,
      customerId,
      visitId,
      operation,
      from: day(from),
      to: to === null ? null : day(addDays(to, 1)),
    };
    const where = [
      "(@actor IS NULL OR (a.actor >= @actor AND a.actor < @actor || '~'))",
      "(@by = 'anybody' OR (a.actor LIKE 'system %') = (@by = 'itself'))",
      `(@customerId IS NULL OR ${hasChange(ofCustomer)})`,
      `(@visitId IS NULL OR ${hasChange(ofVisit)})`,
      "(@operation IS NULL OR a.operation = @operation)",
      "(@from IS NULL OR a.at >= @from)",
      "(@to IS NULL OR a.at < @to)",
    ].join(" AND ");
    const { rows: ids, count } = readPage(context, page, {
      from: "FROM audit a",
      where,
      id: "a.id",
      order: { at: "a.id" },
      params,
    });
    const entry = sql<{ id: number; at: number; actor: string; operation: string }>("SELECT * FROM audit WHERE id = ?");
    return {
      count,
      timeZone: business.time_zone,
      people: sql<{ id: number; name: string }>("SELECT id, name FROM people ORDER BY name").all(),
      operations: sql<{ operation: string }>("SELECT DISTINCT operation FROM audit ORDER BY operation")
        .all()
        .map((row) => row.operation),
      rows: ids.map((id) => ({ ...entry.get(id)!, changes: changesOf(context, id) })),
    };
  },
});

function changesOf({ sql, business }: ViewContext, auditId: number) {
  const reading = { currency: business.currency, timeZone: business.time_zone };
  return sql<{ entity: string; row_key: string; before: string | null; after: string | null }>(
    "SELECT entity, row_key, before, after FROM audit_changes WHERE audit_id = ? LIMIT ?",
  )
    .all(auditId, mostChanges)
    .map(({ entity, row_key: key, before, after }): RowChange => ({
      entity,
      key,
      before: before === null ? null : jsonRowColumn.read(before),
      after: after === null ? null : jsonRowColumn.read(after),
    }))
    .flatMap((change) => fieldChanges(change, reading));
}
