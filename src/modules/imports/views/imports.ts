import { valuesOf } from "@/core/imports/match-columns";
import { may } from "@/core/people/permissions";
import { Id, input, Nothing, OneOf } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { balancesColumn, doneColumn, rowProblemsColumn, wordsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { importKinds, verdicts } from "../inputs";
import { accessTo, keptSince, openImport } from "../rows";

/** Imports of the last weeks that somebody may see, newest first. */
export const imports = defineView({
  name: "imports",
  access: "person",
  input: Nothing,
  read(context) {
    const { sql, actor, business } = context;
    const seen = importKinds.filter((kind) => may(actor, accessTo(kind)));
    const latest = sql<Pick<Rows["imports"], "id" | "kind" | "file" | "made_at" | "made_by" | "state" | "row_count">>(
      `SELECT id, kind, file, made_at, made_by, state, row_count
        FROM imports WHERE kind IN (SELECT value FROM json_each(?)) AND made_at >= ? ORDER BY id DESC LIMIT 20`,
    ).all(JSON.stringify(seen), keptSince(context));
    return {
      /** In the demo: files to try it with. */
      examples: context.hogar.standins?.examples.list() ?? [],
      /** What each account closed with when its statement was imported last. */
      closed: seen.includes("bank lines")
        ? sql<{ balances: string }>(
            `SELECT balances FROM imports WHERE kind = 'bank lines' AND balances IS NOT NULL AND state = 'taken'
              ORDER BY json_extract(balances, '$.closing.date') DESC, id DESC LIMIT 50`,
          )
            .all()
            .map((one) => balancesColumn.read(one.balances))
        : [],
      kinds: seen,
      latest,
      ownPhone: business.phone,
      currency: business.currency,
      timeZone: business.time_zone,
      today: context.today,
    };
  },
});

/** One import: how far it is, and how many rows are what. */
export const oneImport = defineView({
  name: "import",
  access: "person",
  about: { importId: "shared" },
  input: input({ importId: Id }),
  read(context, { importId }) {
    const { row, columns } = openImport(context, importId);
    const counts = context
      .sql<{
        verdict: Rows["import_rows"]["verdict"];
        decision: Rows["import_rows"]["decision"];
        done: number;
        kept: number;
        n: number;
      }>(
        `SELECT verdict, decision, done IS NOT NULL AS done, kept, count(*) AS n
          FROM import_rows WHERE import_id = ? GROUP BY 1, 2, 3, 4`,
      )
      .all(importId);
    const sum = (of: (c: (typeof counts)[number]) => boolean) => counts.filter(of).reduce((n, c) => n + c.n, 0);
    return {
      id: row.id,
      kind: row.kind,
      file: row.file,
      state: row.state,
      columns,
      rowCount: row.row_count,
      timeZone: context.business.time_zone,
      counts: {
        waiting: row.row_count - sum((c) => c.verdict !== "waiting"),
        wrong: sum((c) => c.verdict === "wrong"),
        new: sum((c) => c.verdict === "new"),
        certain: sum((c) => c.verdict === "certain"),
        likely: sum((c) => c.verdict === "likely"),
        undecided: sum((c) => c.verdict === "likely" && c.decision === null),
        toTake: sum((c) => c.decision === "take"),
        toJoin: sum((c) => c.decision === "join"),
        leftOut: sum((c) => c.decision === "leave out"),
        done: sum((c) => c.done === 1),
        kept: sum((c) => c.kept === 1),
      },
    };
  },
});

/** Rows of an import, with what is wrong with each and who they may be. */
export const importRows = defineView({
  name: "import-rows",
  access: "person",
  about: { importId: "shared" },
  input: input({
    ...pageInput(["number"] as const),
    importId: Id,
    show: OneOf(["all", ...verdicts]),
    undecided: Type.Optional(Type.Boolean()),
  }),
  read(context, { importId, show, undecided = false, ...asked }) {
    const { sql } = context;
    const { kind, columns } = openImport(context, importId);
    const { rows: ids, count } = readPage(context, asked, {
      from: "FROM import_rows r",
      where: `r.import_id = @importId AND (@show = 'all' OR r.verdict = @show) AND (@undecided = 0 OR r.decision IS NULL)
        AND (@search IS NULL OR r.cells LIKE @search ESCAPE '\\')`,
      id: "r.id",
      order: { number: "r.number" },
      params: { importId, show, undecided: undecided ? 1 : 0, search: likePattern(asked.search) },
    });
    const rowOf = sql<Rows["import_rows"]>("SELECT * FROM import_rows WHERE id = ?");
    return {
      count,
      rows: ids.map((id) => {
        const row = rowOf.get(id)!;
        const cells = wordsColumn.read(row.cells);
        return {
          id: row.number,
          number: row.number,
          cells,
          ...kind.words(context, valuesOf(columns, cells), columns),
          verdict: row.verdict,
          problems: rowProblemsColumn.read(row.problems),
          decision: row.decision,
          sameRow: row.same_row,
          same: row.same_id === null ? null : kind.known(context, row.same_id),
          madeId: row.done ? doneColumn.read(row.done).id : null,
          kept: row.kept === 1,
        };
      }),
    };
  },
});
