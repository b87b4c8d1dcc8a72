import type { OperationContext } from "@/kernel/operation";

/** A service or an extra, whichever. */
export interface Entry {
  table: "services" | "extras";
  id: number;
}

/** Columns of an entry of the catalogue, and nothing else, from now on. */
export function changeColumns(
  { sql }: OperationContext,
  { table, id }: Entry,
  set: Readonly<Record<string, string | number | null>>,
): void {
  const sets = Object.keys(set).map((column) => `${column} = @${column}`);
  if (sets.length) sql(`UPDATE ${table} SET ${sets.join(", ")} WHERE id = @id`).run({ ...set, id });
}

/** What nobody has used yet goes again. Answers whether it could. */
export function removeUnused({ sql }: OperationContext, { table, id }: Entry): boolean {
  const used =
    table === "services"
      ? sql(
          "SELECT 1 FROM visits WHERE service_id = @id UNION ALL SELECT 1 FROM job_items WHERE service_id = @id UNION ALL SELECT 1 FROM repeats WHERE service_id = @id",
        ).get({ id })
      : sql("SELECT 1 FROM service_extras WHERE extra_id = ?").get(id);
  if (used) return false;
  if (table === "services")
    for (const belonging of ["service_skills", "service_hours", "service_technicians", "service_extras"])
      sql(`DELETE FROM ${belonging} WHERE service_id = ?`).run(id);
  sql(`DELETE FROM ${table} WHERE id = ?`).run(id);
  return true;
}
