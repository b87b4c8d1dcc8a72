import { fieldsOf } from "@/core/imports/fields";
import { missingColumns } from "@/core/imports/match-columns";
import { Refusal } from "@/core/problems";
import { actorWords, defineOperation } from "@/kernel/operation";
import { insertOnce, insertRow } from "@/store/insert";
import { balancesColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { AddImportRows, BeginImport, ChangeImportRow, DecideImportRows, OneImport } from "../inputs";
import { checkRow, mayImport, openImport, setState } from "../rows";

/** States in which a person decides about rows and mends them, and says that they are taken: what is left of one that was taken, too. */
const decidable = ["checked", "stopped", "undone", "taken"] as const;

/** Begins with a file: what its columns hold, and how many rows it has. Nothing of it is taken. */
export const beginImport = defineOperation({
  name: "begin-import",
  access: "person",
  input: BeginImport,
  run(context, { kind, file, columns, rowCount, balances }) {
    mayImport(context, kind);
    const known = new Set(fieldsOf[kind].map(({ id }) => id));
    if (columns.fields.length !== columns.names.length || columns.fields.some((id) => id !== null && !known.has(id)))
      throw new Refusal("bad-request");
    const missing = missingColumns(kind, columns);
    if (missing) throw new Refusal("invalid-input", { fields: { "/columns": missing } });
    return {
      id: insertRow(context.sql, "imports", {
        kind,
        file,
        made_at: context.now,
        made_by: actorWords(context.actor).replace(/^person \d+ /, ""),
        state: "filling",
        columns: JSON.stringify(columns),
        row_count: rowCount,
        balances: balances ? balancesColumn.write(balances) : null,
      }),
    };
  },
});

/** Brings rows of the file, some hundred at a time; the same ones twice are kept once. When all have come they are looked over. */
export const addImportRows = defineOperation({
  name: "add-import-rows",
  access: "person",
  about: { importId: "shared" },
  input: AddImportRows,
  run(context, { importId, from, rows }) {
    const { sql, hogar } = context;
    const { row } = openImport(context, importId, ["filling"]);
    for (const [i, cells] of rows.entries())
      insertOnce(sql, "import_rows", { import_id: importId, number: from + i, cells: JSON.stringify(cells) });
    const { n } = sql<{ n: number }>("SELECT count(*) AS n FROM import_rows WHERE import_id = ?").get(importId)!;
    if (n >= row.row_count) setState(context, importId, "checking");
    hogar.wake();
    return { rows: n };
  },
});

/** What is to become of rows: taken as new, joined to who they are, or left out. */
export const decideImportRows = defineOperation({
  name: "decide-import-rows",
  access: "person",
  about: { importId: "shared" },
  input: DecideImportRows,
  run(context, { importId, numbers = null, verdict = null, decision }) {
    openImport(context, importId, decidable);
    const { changes } = context
      .sql(
        `UPDATE import_rows SET decision = @decision
          WHERE import_id = @importId AND done IS NULL AND verdict IN ('new', 'certain', 'likely')
            AND (@decision <> 'join' OR verdict <> 'new')
            AND (@verdict IS NULL OR verdict = @verdict)
            AND (@numbers IS NULL OR number IN (SELECT value FROM json_each(@numbers)))`,
      )
      .run({ importId, verdict, decision, numbers: numbers && JSON.stringify(numbers) });
    return { changed: changes };
  },
});

/** Corrects a row; it is looked over again at once. */
export const changeImportRow = defineOperation({
  name: "change-import-row",
  access: "person",
  about: { importId: "shared" },
  input: ChangeImportRow,
  run(context, { importId, number, cells }) {
    const open = openImport(context, importId, decidable);
    if (cells.length !== open.columns.names.length) throw new Refusal("bad-request");
    const { sql } = context;
    const { changes } = sql("UPDATE import_rows SET cells = ? WHERE import_id = ? AND number = ? AND done IS NULL").run(
      JSON.stringify(cells),
      importId,
      number,
    );
    if (changes === 0) throw new Refusal("not-found");
    const row = sql<Rows["import_rows"]>("SELECT * FROM import_rows WHERE import_id = ? AND number = ?").get(
      importId,
      number,
    )!;
    checkRow(context, open, row);
  },
});

/** Says so: what was decided is done, in pieces, by the worker. Rows that wait for a decision keep everything back. */
export const takeImport = defineOperation({
  name: "take-import",
  access: "person",
  about: { importId: "shared" },
  input: OneImport,
  run(context, { importId }) {
    const left = context
      .sql("SELECT 1 FROM import_rows WHERE import_id = ? AND done IS NULL AND decision IN ('take', 'join')")
      .get(importId);
    openImport(context, importId, left ? decidable : decidable.filter((state) => state !== "taken"));
    const { n } = context
      .sql<{ n: number }>(
        "SELECT count(*) AS n FROM import_rows WHERE import_id = ? AND verdict = 'likely' AND decision IS NULL",
      )
      .get(importId)!;
    if (n > 0)
      throw new Refusal("invalid-input", {
        sentence: `${n === 1 ? "One row waits" : `${n} rows wait`} for your decision: join, keep apart or leave out.`,
      });
    setState(context, importId, "taking");
    context.hogar.wake();
  },
});

/** Stops taking, or undoing; what was done stays and can be gone on with or undone. */
export const stopImport = defineOperation({
  name: "stop-import",
  access: "person",
  about: { importId: "shared" },
  input: OneImport,
  run(context, { importId }) {
    openImport(context, importId, ["taking", "undoing"]);
    setState(context, importId, "stopped");
  },
});

/** Takes back all that an import has made, but for what has been used since. */
export const undoImport = defineOperation({
  name: "undo-import",
  access: "person",
  about: { importId: "shared" },
  input: OneImport,
  run(context, { importId }) {
    openImport(context, importId, ["taken", "stopped"]);
    context.sql("UPDATE import_rows SET kept = 0 WHERE import_id = ? AND kept = 1").run(importId);
    setState(context, importId, "undoing");
    context.hogar.wake();
  },
});

/** Throws a file away of which nothing was taken. */
export const dropImport = defineOperation({
  name: "drop-import",
  access: "person",
  about: { importId: "shared" },
  input: OneImport,
  run(context, { importId }) {
    const { sql } = context;
    openImport(context, importId, ["filling", "checking", "checked", "stopped", "undone"]);
    if (sql("SELECT 1 FROM import_rows WHERE import_id = ? AND done IS NOT NULL").get(importId))
      throw new Refusal("in-use", { sentence: "Some of it has been taken. Undo that first." });
    sql("DELETE FROM import_keys WHERE import_id = ?").run(importId);
    sql("DELETE FROM import_rows WHERE import_id = ?").run(importId);
    sql("DELETE FROM imports WHERE id = ?").run(importId);
  },
});
