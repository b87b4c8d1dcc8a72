import { type ChildProcess, spawn } from "node:child_process";
import { createServer } from "node:net";

// Read by Jest's global set-up too, which knows no path aliases.

/** A server's process, told where its data is. */
export interface Served {
  url: string;
  folder: string;
  process: ChildProcess;
  stop: () => Promise<void>;
}

/** Starts the built application on a data folder; `preload` is loaded before it and may talk with its parent. `heard` gets all that it writes out. */
export async function serve(
  folder: string,
  heard: (text: string) => void,
  env: Partial<NodeJS.ProcessEnv> = {},
  preload?: string,
): Promise<Served> {
  const port = await freePort();
  const child = spawn(process.execPath, [...(preload ? ["--import", preload] : []), "bin/hogar.mjs", "serve"], {
    cwd: process.cwd(),
    env: { ...process.env, ...servedEnv(folder), PORT: String(port), ...env },
    stdio: ["ignore", "pipe", "pipe", ...(preload ? (["ipc"] as const) : [])],
  });
  for (const stream of [child.stdout!, child.stderr!]) stream.on("data", (text: Buffer) => heard(String(text)));
  await says(child, "Ready on");
  return {
    url: `http://localhost:${port}`,
    folder,
    process: child,
    async stop() {
      const gone =
        child.exitCode !== null || child.signalCode !== null
          ? null
          : new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGTERM");
      await gone;
    },
  };
}

/** What the commands of tests are started with. */
export const servedEnv = (folder: string) => ({
  HOGAR_DATA: folder,
  HOGAR_FRONT_DOOR_PER_MINUTE: "100000",
  NEXT_TELEMETRY_DISABLED: "1",
  NODE_ENV: "production" as const,
});

/** Resolves when a process has printed something. */
export function says(child: ChildProcess, words: string): Promise<void> {
  return new Promise((resolve, reject) => {
    let heard = "";
    const listen = (text: Buffer) => {
      heard += String(text);
      if (heard.includes(words)) resolve();
    };
    child.stdout?.on("data", listen);
    child.stderr?.on("data", listen);
    child.once("exit", (code) => reject(new Error(`Ended with ${code} before it said “${words}”: ${heard}`)));
  });
}

export function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}
