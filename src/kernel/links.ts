import type { LinkKind } from "@/core/messages/purposes";
import type { Actor } from "@/core/people/permissions";
import { insertOnce, insertRow } from "@/store/insert";
import { nanoid } from "nanoid";
import type { Hogar } from "./hogar";
import { hashed, isHashOf } from "./keys";
import type { OperationContext } from "./operation";

/**
 * Private links of customers. The database holds only a nonce: the token is sealed with the
 * installation's secret, so a copy of the database opens nobody's link. Each opens one job.
 */
export function linkTokenOf(hogar: Hogar, jobId: number): string | null {
  const link = hogar.store
    .sql<{ id: number; nonce: string }>("SELECT id, nonce FROM links WHERE job_id = ? AND revoked_at IS NULL")
    .get(jobId);
  return link ? `${link.id}.${hashed(hogar.keys, "links", link.nonce)}` : null;
}

/**
 * The link of a booking for whoever came to it by the key of a wish or a quote. Once the office has ended a
 * link and made a new one, that key opens the booking no more either.
 */
export function firstLinkTokenOf(hogar: Hogar, jobId: number): string | null {
  const { made } = hogar.store.sql<{ made: number }>("SELECT count(*) AS made FROM links WHERE job_id = ?").get(jobId)!;
  return made === 1 ? linkTokenOf(hogar, jobId) : null;
}

export const linkAddressOf = (hogar: Hogar, jobId: number): string | null => {
  const token = linkTokenOf(hogar, jobId);
  return token && `${hogar.publicUrl}/my/${token}`;
};

export function makeLink({ sql, now }: OperationContext, jobId: number): void {
  insertRow(sql, "links", { job_id: jobId, nonce: nanoid(32), made_at: now });
}

/** A link opens nothing any more; false where there was none. */
export const endLink = ({ sql, now }: OperationContext, jobId: number): boolean =>
  sql("UPDATE links SET revoked_at = ? WHERE job_id = ? AND revoked_at IS NULL").run(now, jobId).changes > 0;

/** Somebody of the office has taken a link down; false where there is none. */
export const noteCopied = ({ sql, now }: OperationContext, jobId: number): boolean =>
  sql("UPDATE links SET copied_at = ? WHERE job_id = ? AND revoked_at IS NULL").run(now, jobId).changes > 0;

/** Who a token stands for, or null where it opens nothing (any more). */
export function actorOfLink(hogar: Hogar, token: string): Extract<Actor, { kind: "link" }> | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const link = hogar.store
    .sql<{ id: number; nonce: string; job_id: number; customer_id: number }>(
      `SELECT l.id, l.nonce, l.job_id, j.customer_id
        FROM links l JOIN jobs j ON j.id = l.job_id WHERE l.id = ? AND l.revoked_at IS NULL`,
    )
    .get(Number(id));
  if (!link) return null;
  if (!isHashOf(hogar.keys, "links", link.nonce, sealed)) return null;
  return { kind: "link", linkId: link.id, jobId: link.job_id, customerId: link.customer_id };
}

/** What else a link opens, beside a booking: a wish that can be met, a quote, whether it is time again, an invoice, all that a customer owes, an offer of a campaign, how they found the work; each kept in a table of its own, with a nonce. */
const opened = {
  wish: "requests",
  quote: "quotes",
  again: "repeat_asks",
  invoice: "invoices",
  owed: "account_links",
  offer: "campaign_invites",
  review: "reviews",
} as const satisfies Record<LinkKind, string>;
export interface OpenedBy {
  kind: LinkKind;
  id: number;
}

/** By which way a link left the house: whoever comes by it has shown that this email, or this number, is theirs. */
export type Way = "mail" | "text";

/** The token that opens a wish or a quote: it reads it, and takes it. Each way it leaves has a token of its own. */
export function sealedToken(hogar: Hogar, { kind, id }: OpenedBy, way: Way = "mail"): string {
  return `${id}.${hashed(hogar.keys, "own links", sealedOf(hogar, { kind, id }, way) ?? "")}`;
}

/** What a token opens, and by which way it left; null where it opens nothing of this kind. */
export function openedWith(hogar: Hogar, kind: OpenedBy["kind"], token: string): { id: number; way: Way } | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const way = (["mail", "text"] as const).find((one) => {
    const text = sealedOf(hogar, { kind, id: Number(id) }, one);
    return text !== null && isHashOf(hogar.keys, "own links", text, sealed);
  });
  return way ? { id: Number(id), way } : null;
}

/** The id of the wish or quote that a token opens, or null. */
export const openedBy = (hogar: Hogar, kind: OpenedBy["kind"], token: string): number | null =>
  openedWith(hogar, kind, token)?.id ?? null;

/** What a short link opens: a customer's own page, or what another link opens. */
export type ShortOpens = { kind: "my"; id: number } | OpenedBy;

/** Letters of a short link's seal: 48 bits. */
const sealLetters = 8;

/** A short address for a text: it says nothing of anybody, and ends with what it is about. The same opens the same. */
export function shortAddress(hogar: Hogar, opens: ShortOpens): string {
  const { sql } = hogar.store;
  const link = sql<{ id: number; nonce: string }>(
    "SELECT id, nonce FROM short_links WHERE kind = ? AND opens_id = ?",
  ).get(opens.kind, opens.id);
  return link ? `${hogar.publicUrl}/s/${link.id.toString(36)}-${sealOf(hogar, link.nonce)}` : hogar.publicUrl;
}

/** Makes sure that there is one, within an operation. */
export const makeShortLink = ({ sql, now }: OperationContext, { kind, id }: ShortOpens): void =>
  void insertOnce(sql, "short_links", { kind, opens_id: id, nonce: nanoid(16), made_at: now });

const sealOf = (hogar: Hogar, nonce: string): string => hashed(hogar.keys, "short links", nonce).slice(0, sealLetters);

/** Where a short link leads, as a path; null where it opens nothing, or no more. */
export function shortLeadsTo(hogar: Hogar, code: string): string | null {
  const [, id, seal] = /^([0-9a-z]{1,10})-([\w-]{8})$/.exec(code) ?? [];
  if (!id || !seal) return null;
  const { sql } = hogar.store;
  const link = sql<{ nonce: string; kind: ShortOpens["kind"]; opens_id: number }>(
    "SELECT nonce, kind, opens_id FROM short_links WHERE id = ?",
  ).get(Number.parseInt(id, 36));
  if (!link || sealOf(hogar, link.nonce) !== seal) return null;
  if (link.kind !== "my") return `/${link.kind}/${sealedToken(hogar, { kind: link.kind, id: link.opens_id }, "text")}`;
  if (isJobOver(hogar, link.opens_id)) return null;
  const token = linkTokenOf(hogar, link.opens_id);
  return token && `/my/${token}`;
}

/** So long after its last visit a text's link still opens what is left to be done. */
const shortLinkDays = 3;

/** Whether the last visit of a job was some days ago, and nothing of it is open. */
const isJobOver = ({ store, now }: Hogar, jobId: number): boolean =>
  store
    .sql(
      `SELECT 1 FROM jobs j WHERE j.id = @jobId
          AND NOT EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND window_to > @since)
          AND NOT EXISTS (SELECT 1 FROM billed_lines o JOIN invoice_balances b ON b.invoice_id = o.invoice_id WHERE o.job_id = j.id AND b.open_minor > 0)`,
    )
    .get({ jobId, since: Math.floor(now() / 60_000) - shortLinkDays * 1440 }) !== undefined;

/** What is sealed for a wish or a quote: its kind and its nonce, and the way where that is not the email; null where there is none. */
function sealedOf({ store }: Hogar, { kind, id }: OpenedBy, way: Way): string | null {
  const nonce = store.sql<{ nonce: string }>(`SELECT nonce FROM ${opened[kind]} WHERE id = ?`).get(id)?.nonce;
  return nonce ? `${kind} ${nonce}${way === "text" ? " by text" : ""}` : null;
}

/** A token that stands for one message: its reader ends such messages by it, and is known to have opened it. */
export const messageToken = (hogar: Hogar, { id, occasion }: { id: number; occasion: string }): string =>
  `${id}.${hashed(hogar.keys, "messages", occasion)}`;

/** The id of the message that a token stands for, or null. */
export function messageOf(hogar: Hogar, token: string): number | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const message = hogar.store.sql<{ occasion: string }>("SELECT occasion FROM messages WHERE id = ?").get(Number(id));
  return message && isHashOf(hogar.keys, "messages", message.occasion, sealed) ? Number(id) : null;
}
