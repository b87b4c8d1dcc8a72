import { makeTown } from "@demo/town";
import Database from "better-sqlite3";
import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Browser, type BrowserContext, chromium, type Locator, type Page } from "playwright-core";
import { makeDemo, runTsx } from "./demo-world";

/** Tests and scripts run from the project's root. */
const root = process.cwd();
const password = "open the door";

/** The built application on a demo world of its own, as `npm run demo` would start it. */
export interface Running {
  url: string;
  folder: string;
  /** Of the server's process. */
  pid: number;
  /** All that the server has written out. */
  log: () => string;
  /** Reads the database beside the running application. */
  sql: <Row = Record<string, unknown>>(query: string, ...values: unknown[]) => Row[];
  stop: () => Promise<void>;
}

interface DemoOptions {
  historyDays?: number;
  env?: Record<string, string>;
  /** What strangers may keep, as an owner gets it; other tests book as often as they like. */
  strangersAreLimited?: boolean;
}

export async function startDemo({
  historyDays,
  env = {},
  strangersAreLimited = false,
}: DemoOptions = {}): Promise<Running> {
  const template = historyDays === undefined ? process.env.HOGAR_E2E_WORLD : undefined;
  return start(env, (more, folder) => {
    if (template) cpSync(template, folder, { recursive: true, preserveTimestamps: true });
    else makeDemo(more, historyDays);
    if (strangersAreLimited) return;
    const db = new Database(path.join(folder, "hogar.sqlite"));
    db.exec("UPDATE business SET unproved_each = 1000, unproved_percent = 100, unproved_a_day = 1000");
    db.close();
  });
}

/** The same on a business that has only just been made, in the demo's town. */
export async function startEmpty(): Promise<Running> {
  return start({}, (more, folder) => {
    writeFileSync(path.join(folder, "town.json"), JSON.stringify(makeTown(7)));
    runTsx(
      [
        "cli/hogar.ts",
        "init",
        "--name",
        "Alder Roofs",
        "--owner",
        "Odile Brandt",
        "--mail",
        "odile@marrowick.example",
        "--password",
        password,
        "--time-zone",
        "Europe/Lisbon",
        "--lng=-18.6",
        "--lat=-41.2",
      ],
      more,
    );
  });
}

async function start(
  env: Record<string, string>,
  make: (env: NodeJS.ProcessEnv, folder: string) => void,
): Promise<Running> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-e2e-"));
  const port = await freePort();
  const more = {
    ...process.env,
    HOGAR_DATA: folder,
    PORT: String(port),
    HOGAR_FRONT_DOOR_PER_MINUTE: "100000",
    NEXT_TELEMETRY_DISABLED: "1",
    NODE_ENV: "production" as const,
    ...env,
  };
  make(more, folder);
  const server = spawn(process.execPath, ["bin/hogar.mjs", "serve"], {
    cwd: root,
    env: more,
    stdio: ["ignore", "pipe", "pipe"],
  });
  let log = "";
  for (const stream of [server.stdout, server.stderr]) stream.on("data", (text: Buffer) => void (log += String(text)));
  await says(server, "Ready on");
  const db = new Database(path.join(folder, "hogar.sqlite"), { readonly: true });
  return {
    url: `http://localhost:${port}`,
    folder,
    pid: server.pid!,
    log: () => log,
    sql: <Row>(query: string, ...values: unknown[]) => db.prepare<unknown[], Row>(query).all(...values),
    stop: async () => {
      db.close();
      const gone =
        server.exitCode !== null || server.signalCode !== null
          ? null
          : new Promise((resolve) => server.once("exit", resolve));
      server.kill("SIGTERM");
      await gone;
      checkLaws(more);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Whatever was done to it, every law of the data holds in the end. */
function checkLaws(env: NodeJS.ProcessEnv): void {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["bin/hogar.mjs", "check"], {
    cwd: root,
    env,
    encoding: "utf8",
  });
  if (status !== 0) throw new Error(`hogar check: ${stdout}${stderr}`);
}

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

export const startBrowser = (): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: [
      "--headless",
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
  });

export const desk = { width: 1280, height: 800 };
export const phone = { width: 390, height: 844 };

/** A page that fails the test when the application throws in the browser. */
export async function openPage(
  browser: Browser,
  viewport: { width: number; height: number },
): Promise<{ page: Page; context: BrowserContext; troubles: string[] }> {
  const context = await browser.newContext({ viewport, locale: "en-GB" });
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  const troubles: string[] = [];
  page.on("pageerror", (error) => troubles.push(String(error)));
  return { page, context, troubles };
}

/** Opens a page and waits until it answers to what is typed. */
export async function go(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
}

export async function signIn(page: Page, url: string, who: string): Promise<void> {
  await go(page, `${url}/signin`);
  await page.getByLabel("Email").fill(`${who}@marrowick.example`);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((at) => !at.pathname.startsWith("/signin"));
}

/** The link of a kind in the newest mail whose entry in the list of the stand-in reads so. The page must be a desk's. */
export async function mailedLink(
  page: Page,
  url: string,
  about: RegExp,
  kind: "my" | "wish" | "quote" | "again" | "offer" | "review",
): Promise<string> {
  const link = new RegExp(`/${kind}/\\S+`);
  for (let i = 0; i < 60; i++) {
    await go(page, `${url}/standins/mail`);
    const mail = page.getByRole("link", { name: about }).first();
    if ((await mail.count()) === 0) continue;
    // Not by a click: until the next page is there, the newest mail would be read in its place.
    await go(page, url + (await mail.getAttribute("href")));
    return url + link.exec(await page.getByRole("article").innerText())![0];
  }
  throw new Error(`No mail about ${about}`);
}

/** What comes true within some frames of a page; of more where the worker has to come by first. */
export async function expectSoon(page: Page, holds: () => boolean | Promise<boolean>, frames = 300): Promise<void> {
  for (let i = 0; i < frames; i++) {
    if (await holds()) return;
    await page.evaluate(() => new Promise(requestAnimationFrame));
  }
  throw new Error("It did not come true");
}

/** Types a date into a field, as people write one: day, month, year. */
export async function typeDate(field: Locator, date: string): Promise<void> {
  const [year, month, day] = date.split("-").map(Number);
  for (const [name, part] of Object.entries({ Day: day, Month: month, Year: year })) {
    await field.getByRole("spinbutton", { name }).click();
    await field.page().keyboard.type(String(part));
  }
}

/** Ticks a box of a table that may still be drawing itself, until what follows from it is seen. */
export async function tick(box: Locator, follows: Locator): Promise<void> {
  for (let tries = 1; ; tries++) {
    if (!(await box.isChecked())) await box.click();
    try {
      return await follows.waitFor({ timeout: 10_000 });
    } catch (error) {
      if (tries === 5) throw error;
    }
  }
}
