import { phoneKept, phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { tidy } from "@/core/words";
import type { Address } from "@/gateways/types";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { recordConsent } from "./consents";
import type { Reach } from "./reach";
import { findSame, notePossibleDuplicate, type Shown } from "./same-person";
import type { Rows } from "@/store/rows";

export interface BookerDetails {
  name: string;
  mail: string;
  phone: string;
  /** What was agreed to; absent where it was not asked. */
  reminders?: boolean;
  offers?: boolean;
}

/** Whom something is for, and how they are reached about it: only as we know them, where they have shown one of their addresses and typed the rest. */
export interface Joined {
  customerId: number;
  reach: Reach | undefined;
}

/**
 * The one place that decides whose something is: the customer of these details where they have shown that they are, otherwise
 * a new one, put side by side with those who may be the same for a person to look at. What was agreed to is kept in the words
 * that were shown.
 */
export function customerFor(
  context: OperationContext,
  { name, mail, phone, reminders, offers }: BookerDetails,
  address: Pick<Address, "line" | "postcode">,
  shown: Shown,
): Joined {
  const { sql, now, business } = context;
  const wrongPhone = phoneProblem(phone, business.phone);
  if (wrongPhone) throw new Refusal("invalid-input", { fields: { "/customer/phone": wrongPhone } });
  const kept = { name: tidy(name), mail: mail.trim(), phone: phoneKept(phone, business.phone) };
  const found = findSame(context, { ...kept, places: [`${address.line}, ${address.postcode}`] }, shown);
  const { same } = found;
  const id =
    same?.id ??
    insertRow(sql, "customers", {
      ...kept,
      reminders: reminders ? 1 : 0,
      offers: 0,
      since_at: now,
      collect_never: context.business.collect_new ? 0 : 1,
    });
  // Whoever was put away and books again is back.
  if (same) sql("UPDATE customers SET archived_at = NULL WHERE id = ? AND archived_at IS NOT NULL").run(same.id);
  if (!same) for (const other of found.possible) notePossibleDuplicate(context, other, id);
  if (reminders !== undefined) recordConsent(context, id, "reminders", reminders);
  if (offers !== undefined) recordConsent(context, id, "offers", offers);
  const reachedAsTyped = !same || (shown !== "mail" && shown !== "text");
  return { customerId: id, reach: reachedAsTyped ? kept : undefined };
}

export function siteFor(
  { sql }: OperationContext,
  customerId: number,
  address: Pick<Address, "line" | "postcode" | "lng" | "lat">,
  zoneId: number | null,
): number {
  const same = sql<{ id: number }>("SELECT id FROM sites WHERE customer_id = ? AND line = ? AND postcode = ?").get(
    customerId,
    address.line,
    address.postcode,
  );
  if (same) {
    sql("UPDATE sites SET archived_at = NULL WHERE id = ? AND archived_at IS NOT NULL").run(same.id);
    return same.id;
  }
  return storeSite({ sql }, customerId, address, { zoneId, name: "", access: "", parking: "" });
}

/** A place of a customer, new. Answers its id. */
export const storeSite = (
  { sql }: Pick<OperationContext, "sql">,
  customerId: number,
  { line, postcode, lng, lat }: Pick<Address, "line" | "postcode" | "lng" | "lat">,
  { zoneId, name, access, parking }: { zoneId: number | null; name: string; access: string; parking: string },
): number =>
  insertRow(sql, "sites", {
    customer_id: customerId,
    line,
    postcode,
    lng,
    lat,
    zone_id: zoneId,
    name: name.trim(),
    access: access.trim(),
    parking: parking.trim(),
  });

/** Whoever was put away is back; false where there is no such customer any more. */
export const reopenCustomer = ({ sql }: OperationContext, id: number): boolean =>
  sql("UPDATE customers SET archived_at = NULL WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").run(id)
    .changes > 0;

/** Columns of a customer, and nothing else, from now on. */
export function changeCustomer(
  { sql }: OperationContext,
  id: number,
  values: Partial<Omit<Rows["customers"], "id">>,
): void {
  const sets = Object.keys(values).map((column) => `${column} = @${column}`);
  if (sets.length) sql(`UPDATE customers SET ${sets.join(", ")} WHERE id = @id`).run({ ...values, id });
}

/** Everything but sites, tags and consents that names a customer: whoever has any of it has been used. */
const usedBy = ["jobs", "repeats", "invoices", "payments", "messages", "replies", "cards"] as const;

/** A customer whom nothing names goes again, with what came along. Answers whether they could. */
export function removeUnused({ sql }: OperationContext, id: number): boolean {
  const isUsed =
    usedBy.some((table) => sql(`SELECT 1 FROM ${table} WHERE customer_id = ? LIMIT 1`).get(id)) ||
    sql(
      "SELECT 1 FROM customers WHERE merged_into = @id OR (id = @id AND (merged_into IS NOT NULL OR erased_at IS NOT NULL))",
    ).get({ id });
  if (isUsed) return false;
  for (const table of ["sites", "customer_tags", "consents"]) sql(`DELETE FROM ${table} WHERE customer_id = ?`).run(id);
  sql("DELETE FROM possible_duplicates WHERE one_id = @id OR other_id = @id").run({ id });
  sql("DELETE FROM customers WHERE id = ?").run(id);
  return true;
}

/** A place at which nothing was done and nothing is to be done goes again. Answers whether it could. */
export function removeUnusedSite({ sql }: OperationContext, siteId: number): boolean {
  const used = sql(
    "SELECT 1 FROM jobs WHERE site_id = @siteId UNION ALL SELECT 1 FROM repeats WHERE site_id = @siteId",
  );
  if (used.get({ siteId })) return false;
  sql("DELETE FROM sites WHERE id = ?").run(siteId);
  return true;
}

/** A tag less, by its row. */
export const removeTag = ({ sql }: OperationContext, id: number): void =>
  void sql("DELETE FROM customer_tags WHERE id = ?").run(id);

/** A place is in the zone in which it lies now. */
export const rezoneSite = ({ sql }: OperationContext, siteId: number, zoneId: number): void =>
  void sql("UPDATE sites SET zone_id = ? WHERE id = ?").run(zoneId, siteId);
