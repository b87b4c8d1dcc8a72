/**
 * Tables of states: what may follow what, and what each state allows. Operations enforce them, screens ask them, and
 * queries get their lists from them, so that a new state is added in one place.
 */
export interface StateTable<S extends string, A extends string> {
  states: readonly S[];
  /** Whether one state may follow another. */
  follows: (next: S, state: S) => boolean;
  /** Whether a state allows an act. */
  allows: (act: A, state: S) => boolean;
  /** The states that allow an act. */
  that: (act: A) => readonly S[];
  /** The same as a list for SQL: `('promised', 'on the way')`. The words are our own, never somebody's input. */
  sql: (act: A) => string;
}

export function stateTable<S extends string, A extends string>(
  rows: Record<S, { next: readonly S[]; allows: readonly A[] }>,
): StateTable<S, A> {
  const states = Object.keys(rows) as S[];
  const that = (act: A) => states.filter((state) => rows[state].allows.includes(act));
  return {
    states,
    follows: (next, state) => rows[state].next.includes(next),
    allows: (act, state) => rows[state].allows.includes(act),
    that,
    sql: (act) =>
      `(${that(act)
        .map((state) => `'${state}'`)
        .join(", ")})`,
  };
}
