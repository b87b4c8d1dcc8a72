import type { Browser, Page } from "playwright-core";
import { desk, openPage, type Running, signIn, startBrowser, startDemo } from "./server";

/** Somebody of the office at a desk, in a demo of its own. */
export interface Desk {
  app: Running;
  browser: Browser;
  page: Page;
}

/** The same for all tests of a file, open while they run; what is thrown in the page fails the test. */
export function deskForTests(who: string): Desk {
  const at = {} as Desk;
  const troubles: string[] = [];
  beforeAll(async () => {
    const [app, browser] = await Promise.all([startDemo(), startBrowser()]);
    const { page } = await openPage(browser, desk);
    Object.assign(at, { app, browser, page });
    page.on("pageerror", (error) => troubles.push(String(error)));
    await signIn(page, app.url, who);
  });
  afterAll(async () => {
    await at.browser?.close();
    await at.app?.stop();
  });
  afterEach(() => expect(troubles.splice(0)).toEqual([]));
  return at;
}
