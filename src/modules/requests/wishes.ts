import { Refusal } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { firstLinkTokenOf, openedWith, type Way } from "@/kernel/links";
import type { ViewContext } from "@/kernel/operation";
import type { RequestRow } from "./requests";

/** Requests that wait for a window. */
export const openWishes = ({ store }: Hogar): number[] =>
  store
    .sql<{ id: number }>(
      `SELECT id
        FROM requests
        WHERE outcome = 'open' AND about = 'no window suits' AND wish IS NOT NULL AND address_id IS NOT NULL
        ORDER BY id`,
    )
    .all()
    .map((request) => request.id);

/** The request of a sealed link, and by which way that left; refused where it opens nothing, or has ended otherwise than in a booking. */
export function openWish(context: ViewContext, token: string): RequestRow & { way: Way } {
  const opened = openedWith(context.hogar, "wish", token);
  const request = opened ? context.sql<RequestRow>("SELECT * FROM requests WHERE id = ?").get(opened.id) : undefined;
  const stands =
    request?.outcome === "open" ||
    (request?.outcome === "booked" && firstLinkTokenOf(context.hogar, request.job_id!) !== null);
  if (!opened || !request || !stands) throw new Refusal("link-ended");
  return { ...request, way: opened.way };
}
