import { dayMs, importRowsDays } from "@/core/horizons";
import { type Columns, valuesOf } from "@/core/imports/match-columns";
import type { ImportKind } from "@/core/imports/fields";
import { type Access, may } from "@/core/people/permissions";
import { type Problem, Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { columnsColumn, doneColumn, wordsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import type { KindOfImport } from "./kind";
import { kinds } from "./kinds";

/** An import with what is needed to read its rows. */
export interface OpenImport {
  row: Rows["imports"];
  columns: Columns;
  kind: KindOfImport;
}

type State = Rows["imports"]["state"];

/** An import somebody may work with. */
export function openImport(context: ViewContext, importId: number, states?: readonly State[]): OpenImport {
  const row = context.sql<Rows["imports"]>("SELECT * FROM imports WHERE id = ?").get(importId);
  if (!row || row.made_at < keptSince(context)) throw new Refusal("not-found");
  mayImport(context, row.kind);
  if (states && !states.includes(row.state))
    throw new Refusal("wrong-order", { sentence: `This import is ${row.state} already. Look at it again.` });
  return { row, columns: columnsColumn.read(row.columns), kind: kinds[row.kind] };
}

/** Imports that were begun before this, in epoch milliseconds, have been let go. */
export const keptSince = ({ now }: ViewContext): number => now - importRowsDays * dayMs;

export function mayImport({ actor }: ViewContext, kind: ImportKind): void {
  if (!may(actor, accessTo(kind))) throw new Refusal("not-allowed");
}

/** Customers are brought in by whoever changes all of them, the bank's lines by whoever keeps the books, the catalogue by whoever sets up. */
const accesses: Record<ImportKind, Access> = {
  customers: "customers.change of all",
  repeats: "board.change",
  "bank lines": "money.change",
  services: "setup.change",
  extras: "setup.change",
  prices: "setup.change",
};
export const accessTo = (kind: ImportKind): Access => accesses[kind];

export const setState = ({ sql }: OperationContext, importId: number, state: State): void =>
  void sql("UPDATE imports SET state = ? WHERE id = ?").run(state, importId);

type Row = Rows["import_rows"];
const valuesIn = (columns: Columns, row: Row) => valuesOf(columns, wordsColumn.read(row.cells));

/** Looks one row over: what is wrong with it, and who it may be: of those we know, or of the rows before it. */
export function checkRow(context: OperationContext, { row: { id }, columns, kind }: OpenImport, row: Row): void {
  const { sql } = context;
  const values = valuesIn(columns, row);
  const { problems, same: known } = kind.check(context, values, columns);
  const keys = kind.keys(context, values, columns);
  const before = (of: readonly string[]) => earlierRow(context, id, row.number, of);
  const same_row = known?.certain ? null : (before(keys.certain) ?? (known ? null : before(keys.likely)));
  const isCertain = known?.certain === true || before(keys.certain) !== null;
  const verdict = problems.length ? "wrong" : isCertain ? "certain" : known || same_row !== null ? "likely" : "new";
  // What is certain joins by itself unless a person says otherwise; what is likely waits for one.
  const decision = ({ wrong: null, new: "take", certain: "join", likely: null } as const)[verdict];
  sql("UPDATE import_rows SET verdict = ?, problems = ?, same_id = ?, same_row = ?, decision = ? WHERE id = ?").run(
    verdict,
    JSON.stringify(problems),
    same_row === null ? (known?.id ?? null) : null,
    same_row,
    decision,
    row.id,
  );
  keepKeys(context, id, row.number, [...keys.certain, ...keys.likely]);
}

function keepKeys({ sql }: OperationContext, importId: number, number: number, keys: readonly string[]): void {
  sql("DELETE FROM import_keys WHERE import_id = ? AND number = ? AND key NOT IN (SELECT value FROM json_each(?))").run(
    importId,
    number,
    JSON.stringify(keys),
  );
  for (const key of keys) insertOnce(sql, "import_keys", { import_id: importId, key, number });
}

/** The first row before this one that is not wrong and has a key in common. */
const earlierRow = (
  { sql }: OperationContext,
  importId: number,
  number: number,
  keys: readonly string[],
): number | null =>
  sql<{ number: number }>(
    `SELECT r.number
      FROM json_each(@keys) w CROSS JOIN import_keys k ON k.import_id = @importId AND k.key = w.value
        CROSS JOIN import_rows r ON r.import_id = @importId AND r.number = k.number
      WHERE k.number < @number AND r.verdict <> 'wrong' ORDER BY r.number LIMIT 1`,
  ).get({ keys: JSON.stringify(keys), importId, number })?.number ?? null;

/** Takes one row as was decided. Refuses where it cannot be taken after all. */
export function takeRow(context: OperationContext, { row: { id }, columns, kind }: OpenImport, row: Row): void {
  const joined = row.decision === "join" ? joinedTo(context, id, row) : null;
  const done = kind.take(context, valuesIn(columns, row), columns, joined);
  context.sql("UPDATE import_rows SET done = ? WHERE id = ?").run(JSON.stringify(done), row.id);
}

/** A row with which something went wrong: it stays out and says why, the others go on. */
export const rowIsWrong = ({ sql }: OperationContext, row: Row, { sentence, fields }: Problem): void =>
  void sql("UPDATE import_rows SET verdict = 'wrong', decision = NULL, problems = ? WHERE id = ?").run(
    JSON.stringify([{ field: "", sentence: fields ? Object.values(fields).join(" ") : sentence }]),
    row.id,
  );

/** Whom a row joins: somebody we knew, or who was made of an earlier row; nobody where that one was left out. */
function joinedTo({ sql }: OperationContext, importId: number, { same_id, same_row }: Row): number | null {
  if (same_row === null) return same_id;
  const done = sql<{ done: string | null }>("SELECT done FROM import_rows WHERE import_id = ? AND number = ?").get(
    importId,
    same_row,
  )?.done;
  return done ? doneColumn.read(done).id : null;
}

/** Takes back what a row has made; refuses where that has been used since. */
export function undoRow(context: OperationContext, { kind }: OpenImport, row: Row): void {
  if (!kind.undo(context, doneColumn.read(row.done!))) throw new Refusal("in-use");
  context.sql("UPDATE import_rows SET done = NULL WHERE id = ?").run(row.id);
}

/** What cannot be taken back stays, and is counted as such. */
export const rowStays = ({ sql }: OperationContext, row: Row): void =>
  void sql("UPDATE import_rows SET kept = 1 WHERE id = ?").run(row.id);
