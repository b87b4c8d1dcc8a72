import { groupBy } from "@/core/group";
import { type Contact, matchOf } from "@/core/people/matching";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";

/** Who somebody is: a customer we know for certain, or those who may be the same person. */
export function findSame(
  { sql, business }: ViewContext,
  contact: Contact,
  /** Of whom only the mail is shown, nobody else is certain; and whom it is not. */
  { byMail = false, but = null }: { byMail?: boolean; but?: number | null } = {},
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
  const matches = near
    .map(({ id, merged_into, ...known }) => ({
      id: standing(id, merged_into),
      match: matchOf(contact, { ...known, places: (places.get(id) ?? []).map((site) => site.place) }, business.phone),
      mail: known.mail.trim().toLowerCase() === contact.mail.trim().toLowerCase(),
    }))
    .filter((m) => m.match !== null && m.id !== but);
  const same = matches.find((m) => m.match === "certain" && (m.mail || !byMail));
  return { same: same ? { id: same.id } : null, possible: [...new Set(matches.map((m) => m.id))] };
}

/** Puts two side by side, for somebody of the office to look at. */
export const notePossibleDuplicate = ({ sql, now }: OperationContext, one: number, other: number): void =>
  void insertOnce(sql, "possible_duplicates", {
    one_id: Math.min(one, other),
    other_id: Math.max(one, other),
    found_at: now,
    state: "open",
  });

/** Everything that belongs to a customer. */
export const belongings = [
  "sites",
  "jobs",
  "repeats",
  "invoices",
  "payments",
  "messages",
  "replies",
  "consents",
  "cards",
] as const;

/** What belongs to one goes to the other, whom they are. What was moved is taken down with the two, so that it can be taken back. */
export function joinCustomers(context: OperationContext, keepId: number, goneId: number): void {
  const { sql } = context;
  notePossibleDuplicate(context, keepId, goneId);
  const moved = Object.fromEntries(
    belongings.map((table) => [
      table,
      sql<{ id: number }>(`UPDATE ${table} SET customer_id = ? WHERE customer_id = ? RETURNING id`)
        .all(keepId, goneId)
        .map((row) => row.id),
    ]),
  );
  sql("UPDATE customers SET merged_into = ? WHERE id = ?").run(keepId, goneId);
  sql("UPDATE possible_duplicates SET state = 'merged', moved = ? WHERE one_id = ? AND other_id = ?").run(
    JSON.stringify(moved),
    Math.min(keepId, goneId),
    Math.max(keepId, goneId),
  );
  // Others who are like the one that is gone are like the one that stays.
  for (const { one_id, other_id } of sql<{ one_id: number; other_id: number }>(
    "SELECT one_id, other_id FROM possible_duplicates WHERE state = 'open' AND (one_id = @goneId OR other_id = @goneId)",
  ).all({ goneId })) {
    const third = one_id === goneId ? other_id : one_id;
    if (third !== keepId) notePossibleDuplicate(context, keepId, third);
  }
}
