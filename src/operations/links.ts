import { createHmac, timingSafeEqual } from "node:crypto";
import { nanoid } from "nanoid";
import type { Actor } from "@/core/people/permissions";
import type { Hogar } from "./hogar";
import type { OperationContext } from "./door";

/**
 * Private links of customers. The database holds only a nonce: the token is sealed with the
 * installation's secret, so a copy of the database opens nobody's link. Each opens one job.
 */
export function linkTokenOf(hogar: Hogar, jobId: number): string | null {
  const link = hogar.store.sql<{ id: number; nonce: string }>("SELECT id, nonce FROM links WHERE job_id = ? AND revoked_at IS NULL").get(jobId);
  return link ? `${link.id}.${seal(hogar.secret, link.nonce)}` : null;
}

export const linkAddressOf = (hogar: Hogar, jobId: number): string | null => {
  const token = linkTokenOf(hogar, jobId);
  return token && `${hogar.publicUrl}/my/${token}`;
};

export function makeLink({ sql, now }: OperationContext, jobId: number): void {
  sql("INSERT INTO links (job_id, nonce, made_at) VALUES (?, ?, ?)").run(jobId, nanoid(32), now);
}

/** Who a token stands for, or null where it opens nothing (any more). */
export function actorOfLink(hogar: Hogar, token: string): Extract<Actor, { kind: "link" }> | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const link = hogar.store.sql<{ id: number; nonce: string; job_id: number; customer_id: number }>(
    "SELECT l.id, l.nonce, l.job_id, j.customer_id FROM links l JOIN jobs j ON j.id = l.job_id WHERE l.id = ? AND l.revoked_at IS NULL",
  ).get(Number(id));
  if (!link) return null;
  if (!isSealed(seal(hogar.secret, link.nonce), sealed)) return null;
  return { kind: "link", linkId: link.id, jobId: link.job_id, customerId: link.customer_id };
}

/** Stands in a text for the link of a wish until it is sent: like every link, it is never stored. */
export const wishPlaceholder = "{{wish_link}}";

/** The link by which somebody takes the window that a wish of theirs was told of. */
export function sealedWish({ store, secret }: Hogar, requestId: number): string {
  const { nonce } = store.sql<{ nonce: string }>("SELECT nonce FROM requests WHERE id = ?").get(requestId)!;
  return `${requestId}.${seal(secret, `wish ${nonce}`)}`;
}

/** The request of such a link, or null. */
export function wishOf(hogar: Hogar, token: string): number | null {
  const [id, sealed, ...more] = token.split(".");
  if (!id || !sealed || more.length || !/^\d{1,12}$/.test(id)) return null;
  const request = hogar.store.sql<{ nonce: string }>("SELECT nonce FROM requests WHERE id = ?").get(Number(id));
  return request?.nonce && isSealed(seal(hogar.secret, `wish ${request.nonce}`), sealed) ? Number(id) : null;
}

function isSealed(expected: string, given: string): boolean {
  const [one, other] = [Buffer.from(expected), Buffer.from(given)];
  return one.length === other.length && timingSafeEqual(one, other);
}

const seal = (secret: string, nonce: string): string => createHmac("sha256", secret).update(`link ${nonce}`).digest("base64url");
