import type { Actor } from "@/core/people/permissions";
import { insertRow } from "@/store/insert";
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

/** What else a link opens, beside a booking: a wish that can be met, a quote, whether it is time again, an invoice, or all that a customer owes; each kept in a table of its own, with a nonce. */
const opened = {
  wish: "requests",
  quote: "quotes",
  again: "repeat_asks",
  invoice: "invoices",
  owed: "account_links",
} as const;
export interface OpenedBy {
  kind: keyof typeof opened;
  id: number;
}

/** Stands in a text for such a link until it is sent: like every link, it is never stored. */
export const ownLinkPlaceholder = "{{own_link}}";

/** The token that opens a wish or a quote: it reads it, and takes it. */
export function sealedToken(hogar: Hogar, { kind, id }: OpenedBy): string {
  return `${id}.${hashed(hogar.keys, "own links", sealedOf(hogar, { kind, id }) ?? "")}`;
}

/** The id of the wish or quote that a token opens, or null. */
export function openedBy(hogar: Hogar, kind: OpenedBy["kind"], token: string): number | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const text = sealedOf(hogar, { kind, id: Number(id) });
  return text !== null && isHashOf(hogar.keys, "own links", text, sealed) ? Number(id) : null;
}

/** What is sealed for a wish or a quote: its kind and its nonce; null where there is none. */
function sealedOf({ store }: Hogar, { kind, id }: OpenedBy): string | null {
  const nonce = store.sql<{ nonce: string }>(`SELECT nonce FROM ${opened[kind]} WHERE id = ?`).get(id)?.nonce;
  return nonce ? `${kind} ${nonce}` : null;
}
