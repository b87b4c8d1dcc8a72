import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";

/** The id of a skill, made where it is not there yet. */
export function skillNamed({ sql }: OperationContext, name: string): number {
  const tidy = name.trim();
  return (
    sql<{ id: number }>("SELECT id FROM skills WHERE name = ?").get(tidy)?.id ??
    insertRow(sql, "skills", { name: tidy })
  );
}
