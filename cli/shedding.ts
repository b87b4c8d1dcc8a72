import { problems } from "@/core/problems";
import { shared } from "@/server/shared";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { middleSigns, Turn } from "./gate";

/** By which a page of ours shows that it was answered before (see src/api/client.ts). */
export const middleHeader = "x-hogar-middle";

/** What costs nothing to answer is answered to everybody; and what waits for something else than this thread has lines of its own, and keeps no place meanwhile. */
export const isLight = (address: string): boolean =>
  /^\/(_next\/static|fonts|favicon|icon|standins\/cards)/.test(address) ||
  (address.startsWith("/api/") && !/^\/api\/(views|operations)\//.test(address));

/** Money, and steps in the field: whoever has come so far is refused last. */
const last =
  /^\/api\/operations\/(book|take-[a-z-]+|accept-quote|pay-[a-z-]+|agree-[a-z-]+|advance-visit|ask-reader|end-reader)$/;

/** Who a request is from, as far as it decides who goes first. */
export async function turnOf(request: IncomingMessage, signs: ReturnType<typeof middleSigns>): Promise<Turn> {
  if (last.test(request.url ?? "")) return 0;
  if (await isSignedIn(request.headers.cookie)) return 1;
  return signs.isOurs(String(request.headers[middleHeader] ?? "")) ? 2 : 3;
}

/** Whether somebody is signed in, asked once in a while for the same cookies. */
async function isSignedIn(cookie: string | undefined): Promise<boolean> {
  if (!cookie?.includes("hogar=") || !shared.direct) return false;
  const known = signedIn.get(cookie);
  if (known && known.until > Date.now()) return known.is;
  const is = await shared.direct.isSignedIn(cookie);
  if (signedIn.size >= mostKnown) signedIn.clear();
  signedIn.set(cookie, { is, until: Date.now() + knownMs });
  return is;
}
const signedIn = new Map<string, { is: boolean; until: number }>();
const [mostKnown, knownMs] = [1_000, 30_000];

const againSeconds = 2;
const page = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="${againSeconds}"><title>One moment</title>
<body style="font:17px/1.5 system-ui;margin:15vh auto;max-width:26em;padding:0 1em">${problems.crowded} This page tries again by itself.`;

/** There are too many: says so, and when to come again. Nothing was begun. */
export function shed(request: IncomingMessage, response: ServerResponse): void {
  const isApi = request.url?.startsWith("/api/");
  const body = isApi ? JSON.stringify({ ok: false, problem: { code: "crowded", sentence: problems.crowded } }) : page;
  request.resume();
  response
    .writeHead(503, {
      "retry-after": String(againSeconds),
      "content-type": isApi ? "application/json" : "text/html; charset=utf-8",
      "cache-control": "no-store",
    })
    .end(body);
}
