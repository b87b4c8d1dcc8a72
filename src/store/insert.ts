import type { Store } from "./database";
import type { LeftOut, Rows } from "./rows";

export type NewRow<T extends keyof LeftOut> = Omit<Rows[T], LeftOut[T]> &
  Partial<Pick<Rows[T], LeftOut[T] & keyof Rows[T]>>;

const insertion = (table: string, row: object, then: string): string => {
  const columns = Object.keys(row);
  return `INSERT INTO ${table} (${columns.join(", ")}) VALUES (${columns.map((column) => `@${column}`).join(", ")}) ${then}`;
};

/** Puts a row into a table, each value by the name of its column. Answers its id, where the table has one. */
export const insertRow = <T extends keyof LeftOut>(sql: Store["sql"], table: T, row: NewRow<T>, then = ""): number =>
  Number(sql(insertion(table, row, then)).run(row).lastInsertRowid);

/** The same where such a row may be there already: then nothing is written, and the answer is null. */
export function insertOnce<T extends keyof LeftOut>(sql: Store["sql"], table: T, row: NewRow<T>): number | null {
  const { changes, lastInsertRowid } = sql(insertion(table, row, "ON CONFLICT DO NOTHING")).run(row);
  return changes === 0 ? null : Number(lastInsertRowid);
}
