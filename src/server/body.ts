import { Refusal } from "@/core/problems";

/** What is asked of a request while it is answered: by a route, or before Next by src/server/direct.ts. */
export interface Asked {
  headers: { get: (name: string) => string | null };
  /** The bytes of the request; null as soon as there are more than `most`. */
  read: (most: number) => Promise<Buffer | null>;
}

/** What is sent back. */
export interface Answer {
  status: number;
  headers: Record<string, string>;
  body: string;
}

export const askedOf = (request: Request): Asked => ({
  headers: request.headers,
  read: (most) => bodyOf(request, most, "bad-request"),
});

/** The bytes of a request, cut off as soon as there are more than `most`: what is too large is not kept in memory to find that out. */
export async function bodyOf(request: Request, most: number, tooLarge: "bad-request" | "too-large"): Promise<Buffer> {
  if (Number(request.headers.get("content-length") ?? 0) > most) throw new Refusal(tooLarge);
  const reader = request.body?.getReader();
  if (!reader) return Buffer.alloc(0);
  const parts: Uint8Array[] = [];
  let length = 0;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    length += part.value.length;
    if (length > most) {
      await reader.cancel();
      throw new Refusal(tooLarge);
    }
    parts.push(part.value);
  }
  return Buffer.concat(parts);
}

/** JSON nested no deeper than anything we ask for; a refusal for what is none. */
export function jsonFrom(text: string): unknown {
  try {
    return JSON.parse(text || "{}");
  } catch {
    throw new Refusal("bad-request");
  }
}
