import Database from "better-sqlite3";
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync } from "node:fs";
import path from "node:path";
import { asked, password } from "./asked";
import type { Taken } from "./pool";
import { servedEnv } from "./serving";

// Read by Jest's global set-up too, which knows no path aliases.

/** The worlds that tests begin with, each made in a folder of its own when it is first asked for. */
export function worldsIn(folder: string): (name: string) => string {
  const made = new Map<string, string>();
  const worldOf = (name: string): string => {
    let at = made.get(name);
    if (!at) {
      made.set(name, (at = path.join(folder, name)));
      makers[name]!(at, worldOf);
    }
    return at;
  };
  return worldOf;
}

const makers: Record<string, (folder: string, worldOf: (name: string) => string) => void> = {
  /** The demo with what strangers may keep, as an owner gets it. */
  limited: (folder) => makeDemo(folder),
  /** The same, in which everybody books as often as they like. */
  demo(folder, worldOf) {
    cpSync(worldOf("limited"), folder, { recursive: true, preserveTimestamps: true });
    const db = new Database(path.join(folder, "hogar.sqlite"));
    db.exec(
      "UPDATE business SET unproved_each = 1000, proved_each = 1000, unproved_percent = 100, unproved_a_day = 1000",
    );
    db.close();
  },
  /** A business that has only just been made, in the demo's town. */
  empty(folder, worldOf) {
    mkdirSync(folder, { recursive: true });
    cpSync(path.join(worldOf("limited"), "town.json"), path.join(folder, "town.json"));
    const owner = ["--owner", "Odile Brandt", "--mail", "odile@marrowick.example", "--password", password];
    const place = ["--time-zone", "Europe/Lisbon", "--lng=-18.6", "--lat=-41.2"];
    runTsx(["cli/hogar.ts", "init", "--name", "Alder Roofs", ...owner, ...place], folder);
  },
};

/** Eight days of history, on a Tuesday morning. */
export const makeDemo = (folder: string, historyDays = 8): void =>
  runTsx(["demo/make.ts", "--history-days", String(historyDays), "--at", nextTuesday()], folder);

/** Tests begin on a Tuesday morning, on whatever day and at whatever hour they run. */
function nextTuesday(): string {
  const day = new Date();
  do day.setUTCDate(day.getUTCDate() + 1);
  while (day.getUTCDay() !== 2);
  return `${day.toISOString().slice(0, 10)}T08:05`;
}

function runTsx(args: string[], folder: string): void {
  const made = spawnSync("npx", ["--no-install", "tsx", ...args], {
    env: { ...process.env, ...servedEnv(folder) },
    encoding: "utf8",
  });
  if (made.status !== 0) throw new Error(`${args[0]} failed: ${made.stderr}`);
}

export type Cookies = { name: string; value: string }[];

/** Signs everybody of the demo in, once: answers their cookies, and lets their sessions stand in its world. */
export async function keepSignedIn(pool: string, world: string): Promise<Record<string, Cookies>> {
  const { url, folder } = await asked<Taken>(pool, "take", "demo");
  const cookies: Record<string, Cookies> = {};
  for (const who of ["odile", "tomas", "ines", "bram"]) {
    const response = await fetch(`${url}/api/session`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ mail: `${who}@marrowick.example`, password }),
    });
    cookies[who] = response.headers.getSetCookie().map((cookie) => {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie)!;
      return { name: name!, value: value! };
    });
  }
  const db = new Database(path.join(world, "hogar.sqlite"));
  db.prepare("ATTACH ? AS live").run(path.join(folder, "hogar.sqlite"));
  db.exec("INSERT INTO main.sessions SELECT * FROM live.sessions; DETACH live");
  db.close();
  await asked(pool, "giveBack", url);
  return cookies;
}
