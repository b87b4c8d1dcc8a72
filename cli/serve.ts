import { dataFolder, shared } from "@/server/shared";
import { addressHeader, clientAddress } from "@/server/client-address";
import { nanoid } from "nanoid";
import next from "next";
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { parseArgs } from "node:util";
import { isQuestion, wholeQuestion } from "./direct";
import { middleSigns, openGate } from "./gate";
import { isLight, middleHeader, shed, turnOf } from "./shedding";
import { onStop } from "./stopping";

/** Office, front door and worker in this one process, until it is told to stop. */
export async function serve(args: string[]): Promise<void> {
  const { values } = parseArgs({
    args,
    options: { port: { type: "string", default: process.env.PORT ?? "3000" }, "no-worker": { type: "boolean" } },
  });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new Error("--port: a number up to 65535");
  Object.assign(process.env, {
    HOGAR_DATA: dataFolder(),
    PORT: values.port,
    NODE_ENV: "production",
    ...(values["no-worker"] && { HOGAR_WORKER: "off" }),
  });
  await serveApplication(port);
}

/** Serves the built application on a port. Told to stop, it takes no new requests, finishes those under way, and closes the database. */
async function serveApplication(port: number): Promise<void> {
  const application = next({ dev: false, dir: process.cwd(), port });
  await application.prepare();
  const handle = application.getRequestHandler();
  const trusted = trustedProxies();
  let toldOfProxy = false;
  const server = createServer((request, response) => {
    if (trusted === 0 && request.headers["x-forwarded-for"] && !toldOfProxy) {
      toldOfProxy = true;
      console.warn(
        "Requests come through a proxy, and all count as one address: say how many with HOGAR_TRUSTED_PROXIES.",
      );
    }
    if (!methods.includes(request.method ?? ""))
      return void response.writeHead(405, { allow: methods.join(", ") }).end("This cannot be done here.");
    if (!isReadable(request.url ?? "/")) return void response.writeHead(400).end("This address cannot be read.");
    // Whoever has come by https comes by it from now on (RFC 6797).
    if (process.env.HOGAR_URL?.startsWith("https:"))
      response.setHeader("strict-transport-security", "max-age=31536000");
    // Only this server says where a request came from and what it is called.
    request.headers[addressHeader] = clientAddress(
      request.socket.remoteAddress,
      String(request.headers["x-forwarded-for"] ?? ""),
      trusted,
    );
    request.headers["x-request-id"] = nanoid(8);
    if (isLight(request.url ?? "/")) return void handle(request, response);
    void answerInTurn(request, response).catch((error: unknown) => {
      console.error(`request ${String(request.headers["x-request-id"])}`, error);
      response.destroy();
    });
  });
  const answerInTurn = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const turn = await turnOf(request, signs);
    // Told before it is read: that takes as long as some answers.
    if (gate.isFull(turn)) return shed(request, response);
    const question = isQuestion(request) ? await wholeQuestion(request, turn === 1) : null;
    if (!(await gate.enter(turn))) return shed(request, response);
    try {
      if (turn >= 2) response.setHeader(middleHeader, signs.give());
      const answered = question ? question.answer(response) : handle(request, response);
      // Whoever reads a page slowly keeps nobody else from theirs.
      await Promise.race([answered, new Promise((resolve) => setTimeout(resolve, longestPlaceMs).unref())]);
    } finally {
      gate.leave();
    }
  };
  const gate = openGate(server);
  const signs = middleSigns();
  // A connection that stays is one less to be taken on; longer than what stands before us waits.
  server.keepAliveTimeout = 65_000;
  await new Promise<void>((resolve, reject) => server.once("error", reject).listen(port, resolve));
  await loadWhatCustomersAsk(port);
  // By that the application has begun. It is ready when the days are read: the first who asked would read all of them, and the others wait behind.
  await shared.ready;
  console.log(`Ready on http://localhost:${port}`);

  onStop(async () => {
    const closed = new Promise((resolve) => server.close(resolve));
    // Those that are under way become idle one after the other.
    const closing = setInterval(() => server.closeIdleConnections(), 20);
    await closed;
    clearInterval(closing);
    // Given by the application as it starts (src/instrumentation.ts).
    await (globalThis as { end?: () => Promise<void> }).end?.();
  });
}

/** So long one answer keeps a place among those that are worked on, in milliseconds. */
const longestPlaceMs = 1_000;

/** What can be asked of an address here; `TRACE`, for one, would only tell somebody what their browser keeps secret. */
const methods = ["GET", "HEAD", "POST", "DELETE", "OPTIONS"];

/** Whether an address is written as addresses are: a half-written escape is nobody's page. */
function isReadable(address: string): boolean {
  try {
    decodeURIComponent(address);
    return true;
  } catch {
    return false;
  }
}

/** How many proxies of ours stand before this server: HOGAR_TRUSTED_PROXIES, none where it is not set. */
function trustedProxies(): number {
  const count = Number(process.env.HOGAR_TRUSTED_PROXIES ?? 0);
  if (!Number.isInteger(count) || count < 0 || count > 10)
    throw new Error("HOGAR_TRUSTED_PROXIES: how many proxies stand before Hogar, 0 to 10");
  return count;
}

/** The code behind the views is read when it is first asked for: by us, so that the first customer does not wait. */
async function loadWhatCustomersAsk(port: number): Promise<void> {
  await fetch(`http://localhost:${port}/api/views/front-door`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: "{}",
  }).catch(() => {});
}
