import type { Problem } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext, refused } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { checkRow, type OpenImport, openImport, rowIsWrong, rowStays, setState, takeRow, undoRow } from "../rows";

const GoOn = input({ importId: Id, most: Type.Integer({ minimum: 1, maximum: 500 }) });

type Row = Rows["import_rows"];

/** What is done in each state, to which rows in which order; what becomes of a row with which it goes wrong; and the state that follows when none is left. */
interface Stage {
  next: Rows["imports"]["state"];
  where: string;
  work: (context: OperationContext, open: OpenImport, row: Row) => void;
  wentWrong: (context: OperationContext, row: Row, problem: Problem) => void;
}
const stages: Partial<Record<Rows["imports"]["state"], Stage>> = {
  checking: {
    next: "checked",
    where: "verdict = 'waiting' ORDER BY number",
    work: checkRow,
    wentWrong: rowIsWrong,
  },
  taking: {
    next: "taken",
    where: "done IS NULL AND decision IN ('take', 'join') ORDER BY number",
    work: takeRow,
    wentWrong: rowIsWrong,
  },
  undoing: {
    next: "undone",
    where: "done IS NOT NULL AND kept = 0 ORDER BY number DESC",
    work: undoRow,
    wentWrong: rowStays,
  },
};

/** A transaction is over after so many milliseconds, however many rows it was meant for. */
const longestMs = 25;

/** Goes on with an import under way by some rows. Answers whether more is to do. */
export const goOnWithImport = defineOperation({
  name: "go-on-with-import",
  access: "system",
  input: GoOn,
  run(context, { importId, most }) {
    const open = openImport(context, importId);
    const stage = stages[open.row.state];
    if (!stage) return { more: false };
    const until = performance.now() + longestMs;
    const rows = context
      .sql<Rows["import_rows"]>(`SELECT * FROM import_rows WHERE import_id = ? AND ${stage.where} LIMIT ?`)
      .all(importId, most);
    for (const row of rows) {
      if (performance.now() > until) return { more: true };
      workOn(context, stage, open, row);
    }
    if (rows.length === most) return { more: true };
    setState(context, importId, stage.next);
    return { more: false };
  },
});

/** One row within a savepoint of its own: whatever goes wrong with it is taken back, told, and stops no other. */
function workOn(context: OperationContext, stage: Stage, open: OpenImport, row: Row): void {
  try {
    context.hogar.store.db.transaction(() => stage.work(context, open, row))();
  } catch (error) {
    const { problem } = refused(error);
    if (problem.code === "busy") throw error;
    stage.wentWrong(context, row, problem);
  }
}
