import { groupBy } from "@/core/group";
import { type Contact, matchOf } from "@/core/people/matching";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";

/** Who somebody is: a customer we know for certain, or those who may be the same person. */
export function findSame(
  { sql, business }: ViewContext,
  contact: Contact,
): { same: { id: number } | null; possible: number[] } {
  const lastDigits = contact.phone.replace(/\D/g, "").slice(-6);
  const lastName = contact.name.split(" ").at(-1)!;
  // Whoever shares none of the three is not looked at.
  const near = sql<{ id: number; name: string; mail: string; phone: string; merged_into: number | null }>(
    `SELECT id, name, mail, phone, merged_into
      FROM customers
      WHERE (mail = @mail OR replace(replace(replace(replace(replace(phone, ' ', ''), '-', ''), '.', ''), '(', ''), ')', '') LIKE '%' || @lastDigits OR name LIKE '%' || @lastName || '%' ESCAPE '\\')
      ORDER BY id`,
  ).all({ mail: contact.mail, lastDigits: lastDigits || "-", lastName: lastName.replace(/[\\%_]/g, "\\$&") });
  const places = groupBy(
    sql<{ id: number; place: string }>(
      `SELECT customer_id AS id, line || ', ' || postcode AS place
        FROM sites WHERE customer_id IN (SELECT value FROM json_each(?))`,
    ).all(idsColumn.write(near.map((known) => known.id))),
    (site) => site.id,
  );
  // Whoever was merged into somebody is known by what they were, and is the other.
  const standing = (id: number, into: number | null): number =>
    into === null
      ? id
      : standing(
          into,
          sql<{ merged_into: number | null }>("SELECT merged_into FROM customers WHERE id = ?").get(into)!.merged_into,
        );
  const matches = near.map(({ id, merged_into, ...known }) => ({
    id: standing(id, merged_into),
    match: matchOf(contact, { ...known, places: (places.get(id) ?? []).map((site) => site.place) }, business.phone),
  }));
  const same = matches.find((m) => m.match === "certain");
  return {
    same: same ? { id: same.id } : null,
    possible: [...new Set(matches.filter((m) => m.match === "likely").map((m) => m.id))],
  };
}

/** Puts two side by side, for somebody of the office to look at. */
export const notePossibleDuplicate = ({ sql, now }: OperationContext, one: number, other: number): void =>
  void insertOnce(sql, "possible_duplicates", {
    one_id: Math.min(one, other),
    other_id: Math.max(one, other),
    found_at: now,
    state: "open",
  });
