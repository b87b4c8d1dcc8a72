import { Type } from "@sinclair/typebox";
import { OneOf } from "./inputs";
import type { ViewContext } from "./operation";

/** What every long list can be asked: one page of it, in an order, of the rows that hold some words. */
export const pageInput = <const S extends readonly string[]>(sorts: S) => ({
  page: Type.Integer({ minimum: 0, maximum: 1_000_000 }),
  size: Type.Integer({ minimum: 1, maximum: 200 }),
  sort: OneOf(sorts),
  descending: Type.Boolean(),
  search: Type.String({ maxLength: 80 }),
});

export interface PageAsked {
  page: number;
  size: number;
  sort: string;
  descending: boolean;
  search: string;
}

export interface Page<R> {
  rows: R[];
  /** Rows in all, on every page. */
  count: number;
}

interface PagedQuery {
  /** The table with its joins: `FROM customers c JOIN …`. */
  from: string;
  where: string;
  /** The column by which rows are told apart, and ordered where all else is equal. */
  id: string;
  /** Expressions to order by, by the name of the sort. */
  order: Record<string, string>;
  params: Record<string, unknown>;
}

/** The ids of one page, in order, and how many there are: sorted and counted by the database. Rows without a value come last. */
export function readPage<Id extends number | string = number>(
  { sql }: Pick<ViewContext, "sql">,
  { page, size, sort, descending }: Pick<PageAsked, "page" | "size" | "sort" | "descending">,
  { from, where, id, order, params }: PagedQuery,
): Page<Id> {
  const by = order[sort]!;
  const direction = descending ? "DESC" : "ASC";
  const ids = sql<{ id: Id }>(
    `SELECT ${id} AS id ${from} WHERE ${where} ORDER BY ${by} ${direction} NULLS LAST, ${id} LIMIT @size OFFSET @skip`,
  ).all({ ...params, size, skip: page * size });
  const { count } = sql<{ count: number }>(`SELECT count(*) AS count ${from} WHERE ${where}`).get(params)!;
  return { rows: ids.map((row) => row.id), count };
}

/** Words to look for as a pattern of LIKE, with ESCAPE '\'; null where nothing is looked for. */
export const likePattern = (search: string): string | null =>
  search.trim() === "" ? null : `%${search.trim().replace(/[\\%_]/g, "\\$&")}%`;
