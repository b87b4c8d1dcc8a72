import { type Contact, matchOf } from "@/core/people/matching";
import type { OperationContext, ViewContext } from "@/kernel/operation";

interface Known extends Contact {
  id: number;
}

/** Who somebody is: a customer we know for certain, or those who may be the same person. */
export function sameOrAlike(
  { sql, business }: ViewContext,
  contact: Contact,
): { same: { id: number } | null; alike: number[] } {
  const lastDigits = contact.phone.replace(/\D/g, "").slice(-6);
  const lastName = contact.name.split(" ").at(-1)!;
  // Whoever shares none of the three is not looked at.
  const near = sql<Known>(
    `SELECT id, name, mail, phone FROM customers WHERE (mail = @mail OR replace(replace(replace(replace(replace(phone, ' ', ''), '-', ''), '.', ''), '(', ''), ')', '') LIKE '%' || @lastDigits OR name LIKE '%' || @lastName || '%' ESCAPE '\\') ORDER BY id`,
  ).all({ mail: contact.mail, lastDigits: lastDigits || "-", lastName: lastName.replace(/[\\%_]/g, "\\$&") });
  const placesOf = (id: number) =>
    sql<{ place: string }>("SELECT line || ', ' || postcode AS place FROM sites WHERE customer_id = ?")
      .all(id)
      .map((site) => site.place);
  // Whoever was merged into somebody is known by what they were, and is the other.
  const standing = (id: number): number => {
    const into = sql<{ merged_into: number | null }>("SELECT merged_into FROM customers WHERE id = ?").get(
      id,
    )!.merged_into;
    return into === null ? id : standing(into);
  };
  const matches = near.map((known) => ({
    id: standing(known.id),
    match: matchOf(contact, { ...known, places: placesOf(known.id) }, business.phone),
  }));
  const same = matches.find((m) => m.match === "certain");
  return {
    same: same ? { id: same.id } : null,
    alike: [...new Set(matches.filter((m) => m.match === "likely").map((m) => m.id))],
  };
}

/** Puts two side by side, for somebody of the office to look at. */
export const noteAlike = ({ sql, now }: OperationContext, one: number, other: number): void =>
  void sql("INSERT INTO alike (one_id, other_id, found_at, state) VALUES (?, ?, ?, 'open') ON CONFLICT DO NOTHING").run(
    Math.min(one, other),
    Math.max(one, other),
    now,
  );
