import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { checkRow, type OpenImport, openImport, setState, takeRow, undoRow } from "../rows";

const GoOn = input({ importId: Id, most: Type.Integer({ minimum: 1, maximum: 500 }) });

/** What is done in each state, to which rows in which order, and the state that follows when none is left. */
const stages = {
  checking: { next: "checked", where: "verdict = 'waiting' ORDER BY number", work: checkRow },
  taking: { next: "taken", where: "done IS NULL AND decision IN ('take', 'join') ORDER BY number", work: takeRow },
  undoing: { next: "undone", where: "done IS NOT NULL AND kept = 0 ORDER BY number DESC", work: undoRow },
} as const satisfies Record<
  string,
  {
    next: Rows["imports"]["state"];
    where: string;
    work: (c: OperationContext, o: OpenImport, r: Rows["import_rows"]) => unknown;
  }
>;

/** A transaction is over after so many milliseconds, however many rows it was meant for. */
const longestMs = 25;

/** Goes on with an import under way by some rows. Answers whether more is to do. */
export const goOnWithImport = defineOperation({
  name: "go-on-with-import",
  access: "system",
  input: GoOn,
  run(context, { importId, most }) {
    const open = openImport(context, importId);
    const stage = Object.hasOwn(stages, open.row.state) ? stages[open.row.state as keyof typeof stages] : null;
    if (!stage) return { more: false };
    const until = performance.now() + longestMs;
    const rows = context
      .sql<Rows["import_rows"]>(`SELECT * FROM import_rows WHERE import_id = ? AND ${stage.where} LIMIT ?`)
      .all(importId, most);
    for (const row of rows) {
      if (performance.now() > until) return { more: true };
      stage.work(context, open, row);
    }
    if (rows.length === most) return { more: true };
    setState(context, importId, stage.next);
    return { more: false };
  },
});
