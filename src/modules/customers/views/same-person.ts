import { seesOnly } from "@/core/people/permissions";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";

/** Pairs who may be the same person, side by side; and merges that can be taken back. */
export const possibleDuplicates = defineView({
  name: "possible-duplicates",
  access: "board.change",
  input: Nothing,
  read({ sql, actor }) {
    if (seesOnly(actor) !== null) return { open: [], merged: [] };
    const side = (id: number) => ({
      ...sql<{ id: number; name: string; mail: string; phone: string; since_at: number; visits: number }>(
        `SELECT id, name, mail, phone, since_at,
            (SELECT count(*) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id AND v.state <> 'cancelled') AS visits
          FROM customers c WHERE id = ?`,
      ).get(id)!,
      sites: sql<{ line: string; postcode: string }>("SELECT DISTINCT line, postcode FROM sites WHERE customer_id = ?")
        .all(id)
        .map((s) => `${s.line}, ${s.postcode}`),
    });
    return {
      open: sql<{ id: number; one_id: number; other_id: number }>(
        `SELECT a.id, a.one_id, a.other_id
          FROM possible_duplicates a JOIN customers o ON o.id = a.one_id JOIN customers t ON t.id = a.other_id
          WHERE a.state = 'open' AND o.merged_into IS NULL AND t.merged_into IS NULL ORDER BY a.id LIMIT 20`,
      )
        .all()
        .map((pair) => ({ id: pair.id, sides: [side(pair.one_id), side(pair.other_id)] as const })),
      merged: sql<{ id: number; kept: string; gone: string }>(
        `SELECT a.id, k.name AS kept, g.name AS gone
          FROM possible_duplicates a
            JOIN customers g ON g.id IN (a.one_id, a.other_id) AND g.merged_into IN (a.one_id, a.other_id)
            JOIN customers k ON k.id = g.merged_into
          WHERE a.state = 'merged' AND k.merged_into IS NULL ORDER BY a.id DESC LIMIT 10`,
      ).all(),
    };
  },
});
