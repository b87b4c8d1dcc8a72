import Database from "better-sqlite3";
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import PostalMime from "postal-mime";
import { type Browser, type BrowserContext, chromium, type Locator, type Page } from "playwright-core";
import { brokenIn } from "../../cli/check";
import { asked, password } from "./asked";
import type { Taken } from "./pool";
import { serve } from "./serving";
import { type Cookies, makeDemo } from "./worlds";

/** Where servers that the files of a run share are had (make-world.ts); scripts have none. */
const pool = process.env.HOGAR_E2E_POOL;
/** Cookies of people of the demo, who have signed in once for all files. */
const signedIn = JSON.parse(process.env.HOGAR_E2E_SIGNED_IN ?? "{}") as Record<string, Cookies>;
/** Addresses of servers on which those sign-ins stand. */
const demos = new Set<string>();
/** By its address, where the data of a running server is. */
const folders = new Map<string, string>();

/** The built application on a world of its own, as `npm run demo` would start it. */
export interface Running {
  url: string;
  folder: string;
  /** Of the server's process. */
  pid: number;
  /** All that the server has written out. */
  log: () => string;
  /** Reads the database beside the running application. */
  sql: <Row = Record<string, unknown>>(query: string, ...values: unknown[]) => Row[];
  /** Gives it back; whatever was done to it, every law of the data holds in the end. */
  stop: () => Promise<void>;
}

interface DemoOptions {
  /** A process of its own, for what is about processes: their memory, their environment. */
  own?: { env?: Partial<NodeJS.ProcessEnv>; historyDays?: number };
  /** What strangers may keep, as an owner gets it; other tests book as often as they like. */
  strangersAreLimited?: boolean;
}

export async function startDemo({ own, strangersAreLimited = false }: DemoOptions = {}): Promise<Running> {
  const world = strangersAreLimited ? "limited" : "demo";
  if (own || !pool) return startOwn(world, own ?? {});
  const app = await takeShared(world);
  demos.add(app.url);
  return app;
}

/** The same on a business that has only just been made, in the demo's town. */
export const startEmpty = (): Promise<Running> => takeShared("empty");

async function takeShared(world: string): Promise<Running> {
  const taken = await asked<Taken>(pool!, "take", world);
  return running(
    taken,
    () => readFileSync(taken.log).subarray(taken.logFrom).toString(),
    async () => {
      demos.delete(taken.url);
      return asked<string | null>(pool!, "giveBack", taken.url);
    },
  );
}

async function startOwn(world: string, { env, historyDays }: NonNullable<DemoOptions["own"]>): Promise<Running> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-e2e-"));
  const copied = path.join(folder, "data");
  const worlds = process.env.HOGAR_E2E_WORLDS;
  if (worlds) cpSync(path.join(worlds, world), copied, { recursive: true, preserveTimestamps: true });
  else makeDemo(copied, historyDays);
  let log = "";
  const served = await serve(copied, (text) => void (log += text), env);
  if (worlds) demos.add(served.url);
  return running(
    { ...served, pid: served.process.pid! },
    () => log,
    async () => {
      await served.stop();
      const { broken } = brokenIn(path.join(copied, "hogar.sqlite"));
      rmSync(folder, { recursive: true, force: true });
      return broken;
    },
  );
}

function running(
  { url, folder, pid }: Pick<Running, "url" | "folder" | "pid">,
  log: () => string,
  giveBack: () => Promise<string | null>,
): Running {
  const db = new Database(path.join(folder, "hogar.sqlite"), { readonly: true });
  folders.set(url, folder);
  return {
    url,
    folder,
    pid,
    log,
    sql: <Row>(query: string, ...values: unknown[]) => db.prepare<unknown[], Row>(query).all(...values),
    async stop() {
      db.close();
      const broken = await giveBack();
      if (broken) throw new Error(`A law is broken: ${broken}`);
    },
  };
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
  // Generous: what fails here fails for what it waits for, not for a busy machine.
  page.setDefaultTimeout(180_000);
  const troubles: string[] = [];
  page.on("pageerror", (error) => troubles.push(String(error)));
  return { page, context, troubles };
}

/** Opens a page and waits until it answers to what is typed. */
export async function go(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
}

/** Signs somebody in; where they have signed in for all files before, their cookies are taken. */
export async function signIn(page: Page, url: string, who: string): Promise<void> {
  const cookies = demos.has(url) ? signedIn[who] : undefined;
  if (!cookies) return signInByForm(page, url, who);
  await page.context().addCookies(cookies.map((cookie) => ({ ...cookie, url })));
  await go(page, `${url}/`);
}

async function signInByForm(page: Page, url: string, who: string): Promise<void> {
  await go(page, `${url}/signin`);
  await page.getByLabel("Email").fill(`${who}@marrowick.example`);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((at) => !at.pathname.startsWith("/signin"));
}

/** The words of the newest email that was sent of whose subject and address this is true; it is waited for. */
export async function mailAbout(page: Page, url: string, about: RegExp): Promise<string> {
  let words: string | undefined;
  const folder = path.join(folders.get(url)!, "standins/mail");
  await expectSoon(page, async () => (words = await newestMail(folder, about)) !== undefined, 3_000);
  return words!;
}

/** The link of a kind that stands in such an email. */
export async function mailedLink(
  page: Page,
  url: string,
  about: RegExp,
  kind: "my" | "wish" | "quote" | "again" | "offer" | "review",
): Promise<string> {
  return url + new RegExp(`/${kind}/\\S+`).exec(await mailAbout(page, url, about))![0];
}

/** The words of the newest mail in a folder that is about something. */
async function newestMail(folder: string, about: RegExp): Promise<string | undefined> {
  const files = readdirSync(folder)
    .map((name) => path.join(folder, name))
    .map((file) => ({ file, at: statSync(file).mtimeMs }))
    .sort((a, b) => b.at - a.at);
  for (const { file } of files) {
    const { subject, to, text } = await PostalMime.parse(readFileSync(file));
    if (about.test(`${subject} ${to?.[0]?.address}`)) return text ?? "";
  }
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
