import { seesOnly } from "@/core/people/permissions";
import { Id, input, Nothing } from "@/kernel/inputs";
import { Refusal } from "@/core/problems";
import type { Rows } from "@/store/rows";
import { differingTerms } from "../merging-terms";
import { defineView } from "@/kernel/view";

/** Pairs who may be the same person, side by side; and merges that can be taken back. */
export const possibleDuplicates = defineView({
  name: "possible-duplicates",
  access: "board.change",
  input: Nothing,
  read({ sql, actor }) {
    if (seesOnly(actor) !== null) return { open: [], alike: [], merged: [] };
    const customer = (id: number) => sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(id)!;
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
        .map((pair) => ({
          id: pair.id,
          sides: [side(pair.one_id), side(pair.other_id)] as const,
          /** What is agreed differently with them: which of it counts is chosen. */
          terms: differingTerms(customer(pair.one_id), customer(pair.other_id)),
        })),
      /** Alike in name, email, phone and an address: joined with one press, into the one who was there first. */
      alike: sql<{ keepId: number; goneId: number }>(
        `SELECT o.id AS keepId, t.id AS goneId
          FROM possible_duplicates a JOIN customers o ON o.id = a.one_id JOIN customers t ON t.id = a.other_id
          WHERE a.state = 'open' AND o.merged_into IS NULL AND t.merged_into IS NULL
            AND o.name = t.name COLLATE NOCASE AND o.mail <> '' AND o.mail = t.mail COLLATE NOCASE AND o.phone <> '' AND o.phone = t.phone
            AND EXISTS (SELECT 1 FROM sites s JOIN sites w ON w.customer_id = t.id AND w.line = s.line AND w.postcode = s.postcode
              WHERE s.customer_id = o.id)
          ORDER BY a.id LIMIT 500`,
      ).all(),
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

/** What two customers have agreed differently, before they are merged: which of it counts is chosen. */
export const mergingTerms = defineView({
  name: "merging-terms",
  access: "board.change of all",
  input: input({ oneId: Id, otherId: Id }),
  about: { oneId: "customer", otherId: "customer" },
  read({ sql }, { oneId, otherId }) {
    const [one, other] = [oneId, otherId].map((id) =>
      sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(id),
    );
    if (!one || !other) throw new Refusal("not-found");
    return { terms: differingTerms(one, other) };
  },
});
