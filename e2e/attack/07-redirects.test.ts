import type { Browser } from "playwright-core";
import { desk, go, openPage, startBrowser } from "../support/server";
import { underAttack } from "./attacker";

/** 7: signing in leads nowhere but into the application. */
const app = underAttack();
let browser: Browser;
beforeAll(async () => void (browser = await startBrowser()));
afterAll(() => browser.close());

it.each(["/%09/evil.example", "//evil.example", "/%5Cevil.example", "https://evil.example/"])(
  "not to %s",
  async (to) => {
    const { page, context } = await openPage(browser, desk);
    await go(page, `${app.url}/signin?to=${to}`);
    await page.getByLabel("Email").fill("odile@marrowick.example");
    await page.getByLabel("Password").fill("open the door");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL((at) => !at.pathname.startsWith("/signin"));
    expect(new URL(page.url()).origin).toBe(app.url);
    await context.close();
  },
);
