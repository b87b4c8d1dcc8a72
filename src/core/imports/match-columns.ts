import { fieldsOf, type ImportKind, neededOf } from "./fields";
import { type DateOrder, dateOrderOf } from "./dates";
import type { Table } from "./read-file";

/** What each column of a file holds. */
export interface Columns {
  /** Heads, as they stand in the file. */
  names: string[];
  /** Field by column; null leaves a column out. */
  fields: (string | null)[];
  /** How dates are written in it. */
  dates: DateOrder;
}

/** Rows that are looked at to see what a column holds, and the share of them that must look like it. */
const [lookedAt, share] = [200, 0.6];

/** Columns by the name of each, and where that says nothing by what stands in it. Each field is taken once. */
export function matchColumns(kind: ImportKind, { columns, rows }: Table): Columns {
  const sample = rows.slice(0, lookedAt);
  const taken = new Set<string>();
  const take = (id: string | undefined): string | null => {
    if (id === undefined || taken.has(id)) return null;
    taken.add(id);
    return id;
  };
  const fields = fieldsOf[kind];
  const byName = columns.map((head) => {
    const plain = head.toLowerCase().replace(/[^\p{L}\d]/gu, "");
    return take(fields.find((f) => f.heads.includes(plain) && !taken.has(f.id))?.id);
  });
  const matched = byName.map((known, i) => {
    if (known !== null) return known;
    const cells = sample.map((row) => row[i] ?? "").filter(Boolean);
    if (cells.length === 0) return null;
    return take(
      fields.find(
        ({ id, looks }) => looks && !taken.has(id) && cells.filter(looks).length >= Math.max(1, cells.length * share),
      )?.id,
    );
  });
  const dated = matched.findIndex((field) => field === "since" || field === "start" || field === "date");
  const dates = dateOrderOf(sample.map((row) => row[dated] ?? ""));
  return { names: columns, fields: matched, dates };
}

/** What is still to be matched before there is anything to import: a sentence, or null. */
export function missingColumns(kind: ImportKind, { fields }: Columns): string | null {
  const missing = neededOf[kind].find((any) => !any.some((id) => fields.includes(id)));
  if (!missing) return null;
  const names = missing.map((id) => fieldsOf[kind].find((f) => f.id === id)!.name);
  return `Say which column holds: ${names.join(", or ")}.`;
}

/** The cells of a row by field. */
export const valuesOf = ({ fields }: Columns, cells: readonly string[]): Record<string, string> =>
  Object.fromEntries(fields.flatMap((id, i) => (id === null ? [] : [[id, cells[i]?.trim() ?? ""]])));
