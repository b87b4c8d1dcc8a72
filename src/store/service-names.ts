import type { FieldValue } from "@/core/messages/fields";
import { otherNamesColumn } from "./columns";
import type { Store } from "./database";

/** What is done on a visit, as a message says it: each service by its name in the reader's language, where it has one. */
export function saidTitle(sql: Store["sql"], title: string): FieldValue {
  const names = sql<{ name: string; other_names: string }>(
    "SELECT name, other_names FROM services WHERE other_names <> '{}' AND instr(?, name) > 0",
  )
    .all(title)
    .map((one) => ({ name: one.name, in: otherNamesColumn.read(one.other_names) }));
  return names.length ? { title, names } : title;
}
