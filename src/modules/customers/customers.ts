import { type Consent, consentWords } from "@/core/messages/consents";
import { phoneKept, phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { tidy } from "@/core/words";
import type { Address } from "@/gateways/types";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { Reach } from "@/modules/messages/messaging";
import { findSame, notePossibleDuplicate, type Shown } from "./same-person";

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

/** Takes down a yes or a no, with the words as they were shown; the same answer again is not written twice. */
export function recordConsent(
  { sql, now, business }: OperationContext,
  customerId: number,
  kind: Consent,
  given: boolean,
  takenBack = false,
): void {
  const words = consentWords(business.name)[kind];
  const last = sql<{ given: number; words: string }>(
    "SELECT given, words FROM consents WHERE customer_id = ? AND kind = ? ORDER BY id DESC LIMIT 1",
  ).get(customerId, kind);
  // Somebody who books again without a tick has not taken back what they agreed to before.
  if (last && (last.given === (given ? 1 : 0) || (!given && !takenBack))) return;
  insertRow(sql, "consents", { customer_id: customerId, kind, given: given ? 1 : 0, words, at: now });
  if (kind !== "card on file") sql(`UPDATE customers SET ${kind} = ? WHERE id = ?`).run(given ? 1 : 0, customerId);
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
