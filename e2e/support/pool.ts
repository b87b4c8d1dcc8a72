import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, type IncomingMessage } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { serve, type Served } from "./serving";

/**
 * Servers that the files of a run share, kept by Jest's own process: whoever takes a server gets it with a
 * fresh copy of the world that was asked for, and every law of the data holds when it is given back.
 */
export interface Pool {
  /** Where it is asked: POST /take, /giveBack. */
  url: string;
  stop: () => Promise<void>;
}

/** What a file of tests gets. */
export interface Taken {
  url: string;
  folder: string;
  pid: number;
  /** The file that all it writes out goes to, and how much of that was there before. */
  log: string;
  logFrom: number;
}

interface Shared extends Served {
  log: string;
  taken: boolean;
}

export async function startPool(worldOf: (name: string) => string): Promise<Pool> {
  const servers: Shared[] = [];

  const start = async (): Promise<Shared> => {
    const folder = mkdtempSync(path.join(tmpdir(), "hogar-shared-"));
    const log = `${folder}.log`;
    writeFileSync(log, "");
    const preload = path.join(process.cwd(), "e2e/support/set-back.mjs");
    const served = await serve(folder, (text) => appendFileSync(log, text), {}, preload);
    const shared = { ...served, log, taken: true };
    servers.push(shared);
    return shared;
  };
  const asked: Record<string, (input: string) => Promise<unknown>> = {
    async take(world): Promise<Taken> {
      const free = servers.find((server) => !server.taken && server.process.exitCode === null);
      if (free) free.taken = true;
      const server = free ?? (await start());
      await tell(server, "setBack", worldOf(world));
      const { url, folder, log } = server;
      return { url, folder, pid: server.process.pid!, log, logFrom: statSync(log).size };
    },
    /** Answers the first law that is broken. */
    async giveBack(url) {
      const server = servers.find((one) => one.url === url)!;
      try {
        return await tell(server, "check");
      } finally {
        server.taken = false;
      }
    },
  };
  const desk = createServer((request, response) => {
    // Minutes pass between two questions: no connection is kept for so long.
    response.setHeader("connection", "close");
    void bodyOf(request)
      .then((body) => asked[request.url!.slice(1)]!(body))
      .then(
        (answer) => response.end(JSON.stringify({ answer })),
        (error: unknown) => response.end(JSON.stringify({ error: String(error) })),
      );
  });
  await new Promise<void>((resolve) => desk.listen(0, "127.0.0.1", resolve));
  return {
    url: `http://127.0.0.1:${(desk.address() as AddressInfo).port}`,
    async stop() {
      desk.close();
      await Promise.all(servers.map((server) => server.stop()));
      for (const { folder, log } of servers) {
        rmSync(folder, { recursive: true, force: true });
        rmSync(log);
      }
    },
  };
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  let body = "";
  for await (const part of request) body += String(part);
  return body;
}

/** Tells a server's preload something and waits for its answer. */
function tell({ process: child, log }: Shared, what: string, about?: string): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const ended = () => reject(new Error(`The server has ended: ${readFileSync(log, "utf8").slice(-2_000)}`));
    child.once("exit", ended);
    child.once("message", (said: { answer?: unknown; error?: string }) => {
      child.off("exit", ended);
      if (said.error) reject(new Error(said.error));
      else resolve(said.answer);
    });
    child.send({ what, about });
  });
}
