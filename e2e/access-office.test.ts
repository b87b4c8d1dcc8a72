import type { Browser } from "playwright-core";
import { findings } from "./support/axe";
import { desk, go, openPage, type Running, signIn, startBrowser, startDemo } from "./support/server";

jest.setTimeout(900_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startDemo(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

it("every screen of the office is free of findings by axe", async () => {
  const { page, context, troubles } = await openPage(browser, desk);
  await signIn(page, app.url, "odile");
  const found: Record<string, string[]> = {};
  for (const path of [
    "/today",
    "/board",
    "/incoming",
    "/customers",
    "/customers/1",
    "/import",
    "/repeats",
    "/money",
    "/setup/start",
    "/setup/business",
    "/setup/hours",
    "/setup/technicians?id=1",
    "/setup/services?id=1",
    "/setup/services?id=order",
    "/setup/zones",
    "/setup/zones?id=1",
    "/setup/windows",
    "/setup/front-door",
    "/setup/sharing",
    "/setup/coupons?id=1",
    "/setup/people?id=1",
    "/why-not?address=a1200&service=1",
  ]) {
    await go(page, app.url + path);
    const here = await findings(page);
    if (here.length) found[path] = here;
  }
  const sheet = "aside[aria-label=Details]";
  for (const path of ["/incoming?open=request%202", "/incoming?open=quote%202", "/money?show=all&id=1"]) {
    await go(page, app.url + path);
    await page.locator(`${sheet} h3`).first().waitFor();
    const here = await findings(page, sheet);
    if (here.length) found[path] = here;
  }
  expect(found).toEqual({});
  expect(troubles).toEqual([]);
  await context.close();
});
