import { Refusal } from "@/core/problems";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation, type ViewContext } from "@/kernel/operation";
import { movedColumn, wordsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { termGroups, termsBack } from "../merging-terms";
import { belongings, emptyGaps, joinCustomers } from "../joining";

/** Two customers side by side. */
const OnePair = input({ pairId: Id });
const MergeCustomers = input({
  keepId: Id,
  goneId: Id,
  /** What of the other's terms counts where both have agreed something else. */
  takes: Type.Optional(Type.Array(OneOf(termGroups), { maxItems: termGroups.length, uniqueItems: true })),
});
const KeepApart = input({ pairId: Id, apart: Type.Boolean() });

interface Pair {
  id: number;
  one_id: number;
  other_id: number;
  state: "open" | "two people" | "merged";
  moved: string;
  filled: string;
  terms: string;
}

function readPair({ sql }: ViewContext, id: number, state: Pair["state"]): Pair {
  const pair = sql<Pair>("SELECT * FROM possible_duplicates WHERE id = ? AND state = ?").get(id, state);
  if (!pair) throw new Refusal("not-found", { sentence: "Somebody has dealt with these two already." });
  return pair;
}

/** Two are one: what belongs to the other goes to the one who is kept. Can be undone by the pair that is answered. */
export const mergeCustomers = defineOperation({
  name: "merge-customers",
  access: "board.change of all",
  input: MergeCustomers,
  run(context, { keepId, goneId, takes = [] }) {
    if (keepId === goneId)
      throw new Refusal("invalid-input", { fields: { "/goneId": "Choose another customer than this one." } });
    for (const id of [keepId, goneId])
      if (!context.sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").get(id))
        throw new Refusal("not-found", { sentence: "Somebody has dealt with these two already." });
    return { pairId: joinCustomers(context, keepId, goneId, takes) };
  },
});

/** Takes a merge back: what it moved belongs to the other again. What came since stays where it is. */
export const splitCustomers = defineOperation({
  name: "split-customers",
  access: "board.change of all",
  input: OnePair,
  run(context, { pairId }) {
    const { sql } = context;
    const pair = readPair(context, pairId, "merged");
    const gone = sql<{ id: number; merged_into: number }>(
      "SELECT id, merged_into FROM customers WHERE id IN (?, ?) AND merged_into IN (?, ?)",
    ).get(pair.one_id, pair.other_id, pair.one_id, pair.other_id);
    if (!gone) throw new Refusal("not-found");
    if (sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NOT NULL").get(gone.merged_into))
      throw new Refusal("not-found", { sentence: "These were merged with a third since. Take that back first." });
    const moved = movedColumn.read(pair.moved);
    for (const table of belongings)
      sql(`UPDATE ${table} SET customer_id = ? WHERE customer_id = ? AND id IN (SELECT value FROM json_each(?))`).run(
        gone.id,
        gone.merged_into,
        JSON.stringify(moved[table] ?? []),
      );
    termsBack(context, gone.merged_into, pair.terms);
    emptyGaps(context, gone.merged_into, gone.id, wordsColumn.read(pair.filled));
    sql("UPDATE customers SET merged_into = NULL WHERE id = ?").run(gone.id);
    sql(
      `UPDATE possible_duplicates SET state = 'open', moved = '{}', filled = '[]', terms = '{"columns":{},"withheld":[]}' WHERE id = ?`,
    ).run(pairId);
  },
});

/** They are two people, and are not asked about again; or, put back, they are. */
export const keepApart = defineOperation({
  name: "keep-apart",
  access: "board.change of all",
  input: KeepApart,
  run(context, { pairId, apart }) {
    readPair(context, pairId, apart ? "open" : "two people");
    context.sql("UPDATE possible_duplicates SET state = ? WHERE id = ?").run(apart ? "two people" : "open", pairId);
  },
});
