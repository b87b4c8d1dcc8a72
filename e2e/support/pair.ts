import type { Browser, BrowserContext, Page } from "playwright-core";
import { desk, openPage, phone, type Running, signIn, startBrowser, startDemo } from "./server";

/** A demo of its own with the two who meet in it: a customer on a phone, and the owner at a desk. */
export interface Pair {
  app: Running;
  door: Page;
  office: Page;
  /** The customer's, to take the connection away. */
  context: BrowserContext;
  /** What was thrown in either page. */
  troubles: string[];
  /** Every address that either page has asked for. */
  addresses: string[];
  close: () => Promise<void>;
}

/** The same for all tests of a file, open while they run; what is thrown in either page fails the test. */
export function pairForTests(): Pair {
  const pair = {} as Pair;
  beforeAll(async () => void Object.assign(pair, await openPair()));
  afterAll(() => pair.close?.());
  afterEach(() => expect(pair.troubles.splice(0)).toEqual([]));
  return pair;
}

async function openPair(): Promise<Pair> {
  const [app, browser]: [Running, Browser] = await Promise.all([startDemo(), startBrowser()]);
  const [customer, desktop] = [await openPage(browser, phone), await openPage(browser, desk)];
  const troubles: string[] = [];
  const addresses: string[] = [];
  for (const { page } of [customer, desktop]) {
    page.on("pageerror", (error) => troubles.push(String(error)));
    page.on("request", (request) => addresses.push(request.url()));
  }
  await signIn(desktop.page, app.url, "odile");
  return {
    app,
    door: customer.page,
    office: desktop.page,
    context: customer.context,
    troubles,
    addresses,
    close: async () => {
      await browser.close();
      await app.stop();
    },
  };
}

/** Moves the demo's clock to five past eight, or to another time, on a date, as somebody in the office; where it is later already it stays. */
export const moveToMorningOf = (at: Pick<Pair, "app" | "office">, date: string, time = "08:05"): Promise<void> =>
  moveClock(at, Date.parse(`${date}T${time}:00Z`));

/** The same to a moment, in epoch milliseconds. */
export async function moveClock({ app, office }: Pick<Pair, "app" | "office">, to: number): Promise<void> {
  const [clock] = app.sql<{ offset: number }>("SELECT demo_offset_ms AS offset FROM business");
  const minutes = Math.ceil((to - Date.now() - clock!.offset) / 60_000);
  if (minutes <= 0) return;
  const status = await office.evaluate(
    (body) =>
      fetch("/api/operations/move-clock", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body,
      }).then((response) => response.status),
    JSON.stringify({ minutes }),
  );
  if (status !== 200) throw new Error(`The clock was not moved: ${status}`);
}
