import type { Asked } from "@/server/body";
import { shared } from "@/server/shared";
import type { IncomingMessage, ServerResponse } from "node:http";

const asks = /^\/api\/(views|operations)\/([a-z-]{1,60})$/;

/** A question of a page that has come in whole. */
export interface WholeQuestion {
  answer: (response: ServerResponse) => Promise<void>;
}

/** Whether a request is what pages ask, and can be answered without going through Next, which takes as long as the answer itself. */
export const isQuestion = ({ method, url = "" }: IncomingMessage): boolean =>
  method === "POST" && shared.direct !== undefined && asks.test(url);

/** Reads such a request to its end: whoever sends slowly takes nobody's place meanwhile. `isOffice`: it is known to come from somebody who is signed in. */
export async function wholeQuestion(request: IncomingMessage, isOffice: boolean): Promise<WholeQuestion> {
  const [, kind, name] = asks.exec(request.url!) as unknown as [string, "views" | "operations", string];
  const bytes = await readUpTo(request, isOffice ? mostOfOffice : mostOfStrangers);
  const asked: Asked = {
    headers: { get: (header) => (request.headers[header] === undefined ? null : String(request.headers[header])) },
    read: (limit) => Promise.resolve(bytes !== null && bytes.length <= limit ? bytes : null),
  };
  return {
    async answer(response) {
      const { status, headers, body } = await shared.direct!.answer[kind](name, asked);
      // Whoever has gone meanwhile is answered by nobody.
      if (!response.destroyed)
        response.writeHead(status, { ...headers, "content-length": Buffer.byteLength(body) }).end(body);
    },
  };
}

/** What is taken into memory before it is answered, in bytes; the same limits as in src/server/guarded.ts. */
const [mostOfStrangers, mostOfOffice] = [200_000, 8_000_000];

function readUpTo(request: IncomingMessage, most: number): Promise<Buffer | null> {
  return new Promise((resolve) => {
    const parts: Buffer[] = [];
    let length = 0;
    const tooMuch = () => {
      // It is not kept; the rest runs by.
      request.removeAllListeners("data").resume();
      resolve(null);
    };
    if (Number(request.headers["content-length"] ?? 0) > most) return tooMuch();
    request
      .on("data", (part: Buffer) => {
        if ((length += part.length) > most) return tooMuch();
        parts.push(part);
      })
      .once("end", () => resolve(Buffer.concat(parts)))
      .once("close", () => resolve(null))
      .once("error", () => resolve(null));
  });
}
