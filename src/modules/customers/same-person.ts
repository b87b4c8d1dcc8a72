import { groupBy } from "@/core/group";
import { type Contact, isSameMail, matchOf, samePhone } from "@/core/people/matching";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";
import type { Way } from "@/kernel/links";

/** How somebody has shown who they are. */
export type Shown =
  /** One of us has typed it, with them before us or on the phone; or it came with a list of the owner's. */
  | "the office"
  /** By a link that went to nobody but the email, or the number, that was typed. */
  | Way
  /** By a link that is known to be of this customer. */
  | { customerId: number }
  /** They have typed it. */
  | "nothing";

/** Who somebody is: a customer we know for certain, by what was shown of them, or those who may be the same person. */
export function findSame(
  { sql, business }: ViewContext,
  contact: Contact,
  shown: Shown = "the office",
  /** Whom it is not. */
  but: number | null = null,
): { same: { id: number } | null; possible: number[] } {
  const match = nearMatch(contact);
  // Whoever shares none of the three is not looked at.
  const near =
    match === null
      ? []
      : sql<{ id: number; name: string; mail: string; phone: string; merged_into: number | null }>(
          `SELECT id, name, mail, phone, merged_into
            FROM customers
            WHERE id IN (SELECT rowid FROM customer_search WHERE customer_search MATCH ?) AND erased_at IS NULL
            ORDER BY id`,
        ).all(match);
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
      known,
    }))
    .filter((m) => m.match !== null && m.id !== but);
  const isShown = (m: (typeof matches)[number]): boolean => {
    if (shown === "mail") return isSameMail(m.known.mail, contact.mail);
    if (shown === "text") return samePhone(m.known.phone, contact.phone, business.phone);
    return shown === "the office" || (shown !== "nothing" && m.id === shown.customerId);
  };
  const same = matches.find((m) => m.match === "certain" && isShown(m));
  return { same: same ? { id: same.id } : null, possible: [...new Set(matches.map((m) => m.id))] };
}

/** A query of the index for whoever has the email, the end of the phone number or the family name; null where none can be looked for. */
function nearMatch({ name, mail, phone }: Contact): string | null {
  const parts = [
    ["mail", mail.trim()],
    ["phone", phone.replace(/\D/g, "").slice(-6)],
    ["name", name.trim().split(/\s+/).at(-1)!],
  ] as const;
  const asked = parts.filter(([, text]) => [...text].length >= 3);
  return asked.length
    ? asked.map(([column, text]) => `${column} : "${text.replaceAll('"', '""')}"`).join(" OR ")
    : null;
}

/** Puts two side by side, for somebody of the office to look at. */
export const notePossibleDuplicate = ({ sql, now }: OperationContext, one: number, other: number): void =>
  void insertOnce(sql, "possible_duplicates", {
    one_id: Math.min(one, other),
    other_id: Math.max(one, other),
    found_at: now,
    state: "open",
  });
