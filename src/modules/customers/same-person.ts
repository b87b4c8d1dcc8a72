import { groupBy } from "@/core/group";
import { type Contact, isSameMail, matchOf, samePhone } from "@/core/people/matching";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn, mergedTermsColumn } from "@/store/columns";
import { mergeThreads } from "@/modules/messages/threads";
import { insertOnce } from "@/store/insert";
import { takeTerms, type TermGroup } from "./merging-terms";
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
  "customer_tags",
  "points",
  "reviews",
  "campaign_invites",
] as const;

/** What a customer takes over from one who turns out to be the same person, where they have nothing of their own there. */
const gaps = ["mail", "phone", "technician_note", "inside_note", "source"] as const;

/** Answers the columns that were filled. */
const fillGaps = ({ sql }: OperationContext, keepId: number, goneId: number): string[] =>
  gaps.filter(
    (column) =>
      sql(
        `UPDATE customers SET ${column} = (SELECT ${column} FROM customers WHERE id = @goneId)
          WHERE id = @keepId AND ${column} = '' AND EXISTS (SELECT 1 FROM customers WHERE id = @goneId AND ${column} <> '')`,
      ).run({ keepId, goneId }).changes > 0,
  );

/** Empties again what was filled, where it has not been changed since. */
export function emptyGaps({ sql }: OperationContext, keepId: number, goneId: number, filled: readonly string[]): void {
  for (const column of gaps.filter((name) => filled.includes(name)))
    sql(
      `UPDATE customers SET ${column} = '' WHERE id = @keepId AND ${column} = (SELECT ${column} FROM customers WHERE id = @goneId)`,
    ).run({ keepId, goneId });
}

/** What belongs to one goes to the other, whom they are. What was moved is taken down with the two, so that it can be taken back. Answers the pair. */
export function joinCustomers(
  context: OperationContext,
  keepId: number,
  goneId: number,
  /** What of the other's terms counts where both have agreed something. */
  takes: readonly TermGroup[] = [],
): number {
  const { sql } = context;
  notePossibleDuplicate(context, keepId, goneId);
  const moved = Object.fromEntries(
    belongings.map((table) => [
      table,
      // A tag that both had stays with the one that is gone; nothing else can stand in the way.
      sql<{ id: number }>(
        `UPDATE ${table === "customer_tags" ? "OR IGNORE " : ""}${table} SET customer_id = ? WHERE customer_id = ? RETURNING id`,
      )
        .all(keepId, goneId)
        .map((row) => row.id),
    ]),
  );
  mergeThreads(context, keepId, goneId);
  sql("UPDATE customers SET merged_into = ? WHERE id = ?").run(keepId, goneId);
  const filled = fillGaps(context, keepId, goneId);
  const terms = takeTerms(context, keepId, goneId, takes);
  sql(
    "UPDATE possible_duplicates SET state = 'merged', moved = ?, filled = ?, terms = ? WHERE one_id = ? AND other_id = ?",
  ).run(
    JSON.stringify(moved),
    JSON.stringify(filled),
    mergedTermsColumn.write(terms),
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
  return sql<{ id: number }>("SELECT id FROM possible_duplicates WHERE one_id = ? AND other_id = ?").get(
    Math.min(keepId, goneId),
    Math.max(keepId, goneId),
  )!.id;
}
