import { hashed } from "@/kernel/keys";
import type { Origin } from "@/kernel/operation";
import type { Asked } from "./body";
import { addressOf } from "./guard";
import { getHogar } from "./hogar";

const sinceOf = (said: string | null): number | undefined =>
  said !== null && /^\d{1,15}$/.test(said) ? Number(said) : undefined;

/** Tells browsers apart for counting holds: a random name that our pages hand out, and nothing else. */
export const browserCookie = "hogar-browser";
const browserName = /(?:^|;\s*)hogar-browser=([\w-]{8,40})/;

/** Where a request came from, so that it can be counted and not read. */
export function originOf(request: Pick<Asked, "headers">): Origin {
  const { keys } = getHogar();
  const address = addressOf(request.headers);
  const browser = browserName.exec(request.headers.get("cookie") ?? "")?.[1];
  return {
    address: address === "unknown" ? null : hashed(keys, "origins", `address ${address}`),
    network: address === "unknown" ? "" : address,
    since: sinceOf(request.headers.get("x-hogar-since")),
    browser: browser ? hashed(keys, "origins", `browser ${browser}`) : null,
  };
}
