import type { Asked } from "@/server/body";
import { shared } from "@/server/shared";
import type { IncomingMessage, ServerResponse } from "node:http";

const asks = /^\/api\/(views|operations)\/([a-z-]{1,60})$/;

/** Answers what pages ask without going through Next, which takes as long as the answer itself; undefined where it is something else. */
export function answerDirectly(request: IncomingMessage, response: ServerResponse): Promise<void> | undefined {
  const [, kind, name] = (request.method === "POST" && asks.exec(request.url ?? "")) || [];
  const { direct } = shared;
  if (!direct || !kind || !name) return undefined;
  return direct.answer[kind as "views" | "operations"](name, askedOf(request)).then(({ status, headers, body }) => {
    // Whoever has gone meanwhile is answered by nobody.
    if (response.destroyed) return;
    response.writeHead(status, { ...headers, "content-length": Buffer.byteLength(body) }).end(body);
  });
}

const askedOf = (request: IncomingMessage): Asked => ({
  headers: { get: (name) => (request.headers[name] === undefined ? null : String(request.headers[name])) },
  read: (most) =>
    new Promise((resolve) => {
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
    }),
});
