import { Refusal } from "@/core/problems";
import { requestId } from "@/kernel/request-id";
import { type RateLimiterAbstract, RateLimiterMemory } from "rate-limiter-flexible";
import { type Answer, type Asked, askedOf, bodyOf, jsonFrom } from "./body";
import { keptWith } from "@/store/kept";
import { addressHeader } from "./client-address";
import { getHogar } from "./hogar";

/** Keeps out what is not a request of our own pages, and slows down whoever asks too often. */
const perMinute = (points: number) => new RateLimiterMemory({ points, duration: 60 });
const frontDoorPerMinute = Number(process.env.HOGAR_FRONT_DOOR_PER_MINUTE ?? 180);
const makeLimits = () => ({
  office: perMinute(600),
  frontDoor: perMinute(frontDoorPerMinute),
  // What takes room from others, or somebody's time: nobody gets much of it.
  scarce: perMinute(Math.ceil(frontDoorPerMinute / 12)),
  images: perMinute(60),
  pages: perMinute(frontDoorPerMinute * 4),
});

export type LimitName = keyof ReturnType<typeof makeLimits>;

/** The body of a JSON request from a page of this application, of at most so many bytes; a refusal for anything else. */
export const jsonOf = (request: Request, most?: number): Promise<unknown> => jsonAsked(askedOf(request), most);

/** The same of a request that is answered before Next. */
export async function jsonAsked(asked: Asked, most = 200_000): Promise<unknown> {
  if (isForeign(asked) || !asked.headers.get("content-type")?.startsWith("application/json"))
    throw new Refusal("bad-request");
  const bytes = await asked.read(most);
  if (bytes === null) throw new Refusal("bad-request");
  return jsonFrom(bytes.toString("utf8"));
}

const largestImage = 15_000_000;

/** The bytes of a picture sent by a page of this application. */
export async function imageOf(request: Request): Promise<Buffer> {
  if (isForeign(request) || !request.headers.get("content-type")?.startsWith("image/"))
    throw new Refusal("bad-request");
  return bodyOf(request, largestImage, "too-large");
}

const largestDocument = 8_500_000;

/** The bytes of a document sent by a page of this application. */
export async function documentOf(request: Request): Promise<Buffer> {
  if (isForeign(request) || request.headers.get("content-type") !== "application/pdf") throw new Refusal("bad-request");
  return bodyOf(request, largestDocument, "too-large");
}

/** Whether a request comes from a page of somebody else. */
function isForeign(request: Pick<Asked, "headers">): boolean {
  const origin = request.headers.get("origin");
  const site = request.headers.get("sec-fetch-site");
  const host = origin === null ? null : (URL.parse(origin)?.host ?? "");
  return (
    (host !== null && host !== request.headers.get("host")) ||
    (site !== null && site !== "same-origin" && site !== "none")
  );
}

export async function limit(name: LimitName, key: string): Promise<void> {
  if (!(await isWithin(name, key))) throw new Refusal("too-many-tries");
}

/** Counts once more, and says whether that is still within the limit. */
export async function isWithin(name: LimitName, key: string): Promise<boolean> {
  const limiter: RateLimiterAbstract = keptWith(getHogar().store, "limits", makeLimits)[name];
  return limiter.consume(key).then(
    () => true,
    () => false,
  );
}

/** Where a request came from, as our own server has seen it. */
export const addressOf = (headers: Asked["headers"]): string => headers.get(addressHeader) ?? "unknown";

const statuses: Record<string, number> = {
  "not-signed-in": 401,
  "not-allowed": 403,
  "as-person": 403,
  "link-ended": 403,
  "not-found": 404,
  "bad-request": 400,
  "invalid-input": 422,
  "too-many-tries": 429,
  "too-many-codes": 429,
  unexpected: 500,
  busy: 503,
  crowded: 503,
};

/** A result as it is sent: 200, or the status that fits its problem. Short answers are sent faster as they are than packed. */
export function answerOf(result: { ok: true; value: unknown } | { ok: false; problem: { code: string } }): Answer {
  const body = JSON.stringify(result.ok ? { ok: true, value: result.value ?? null } : result);
  return {
    status: result.ok ? 200 : (statuses[result.problem.code] ?? 409),
    body,
    headers: {
      "content-type": "application/json",
      ...(requestId() && { "x-request-id": requestId()! }),
      "cache-control": body.length < 32_000 ? "no-store, no-transform" : "no-store",
    },
  };
}

/** The same as a response of a route. */
export const asResponse = ({ body, ...more }: Answer): Response => new Response(body, more);

export const answer = (result: Parameters<typeof answerOf>[0]): Response => asResponse(answerOf(result));
