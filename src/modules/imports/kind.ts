import type { ImportKind } from "@/core/imports/fields";
import type { Columns } from "@/core/imports/match-columns";
import type { RowProblem } from "@/core/imports/customer-row";
import type { Done } from "@/store/columns";
import type { OperationContext, ViewContext } from "@/kernel/operation";

/** What a row was found to be when it was looked over. */
interface Verdict {
  problems: RowProblem[];
  /** Who or what we know that it is, or may be. */
  same: { id: number; certain: boolean } | null;
}

interface RowKeys {
  certain: string[];
  likely: string[];
}

/** One sort of thing that can be imported. Each is called row by row, within a transaction. */
export interface KindOfImport {
  check: (context: ViewContext, values: Record<string, string>, columns: Columns) => Verdict;
  /** What tells rows of one file apart: two with a `certain` key in common are the same, two with a `likely` one may be. */
  keys: (context: ViewContext, values: Record<string, string>, columns: Columns) => RowKeys;
  /** Makes something new, or joins the row to what we know. Refuses where it cannot. */
  take: (context: OperationContext, values: Record<string, string>, columns: Columns, joined: number | null) => Done;
  /** Takes it back. Answers whether it is gone: what has been used since stays. */
  undo: (context: OperationContext, done: Done) => boolean;
  /** What a person reads of a row as it will be: labelled lines. */
  words: (
    context: ViewContext,
    values: Record<string, string>,
    columns: Columns,
  ) => { name: string; details: string[] };
  /** The same of what we know. */
  known: (context: ViewContext, id: number) => { name: string; details: string[] } | null;
}

export type Kinds = Record<ImportKind, KindOfImport>;
