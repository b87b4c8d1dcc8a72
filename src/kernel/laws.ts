import type { ViewContext } from "./operation";

type Sql = ViewContext["sql"];

/** A law of the data: what it says, and what breaks it, in words: a query that answers `what`, or a look that answers it or null. */
export interface Law {
  says: string;
  breaks: string | ((sql: Sql) => string | null);
}

/** How far a look at the laws is: how many of them were looked at, and the first that is broken. */
export interface Checked {
  done: number;
  laws: number;
  broken: { law: string; what: string } | null;
}

/** Looks at one law after the other, until one is broken. */
export function* checkLaws(sql: Sql, laws: readonly Law[]): Generator<Checked> {
  for (const [i, { says, breaks }] of laws.entries()) {
    const what =
      typeof breaks === "string" ? (sql<{ what: string }>(`${breaks} LIMIT 1`).get()?.what ?? null) : breaks(sql);
    yield { done: i + 1, laws: laws.length, broken: what === null ? null : { law: says, what } };
    if (what !== null) return;
  }
}
