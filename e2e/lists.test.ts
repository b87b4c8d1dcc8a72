import type { Browser, Page } from "playwright-core";
import { desk, go, openPage, type Running, signIn, startBrowser, startDemo } from "./support/server";

/** Long lists, and what a screen does when it cannot be read again. */
jest.setTimeout(300_000);

let app: Running;
let browser: Browser;
let page: Page;
const troubles: string[] = [];
beforeAll(async () => {
  [app, browser] = await Promise.all([startDemo(), startBrowser()]);
  page = (await openPage(browser, desk)).page;
  page.on("pageerror", (error) => troubles.push(String(error)));
  await signIn(page, app.url, "odile");
});
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});
afterEach(() => expect(troubles.splice(0)).toEqual([]));

const names = (order: string, skip: number, count: number) =>
  app
    .sql<{ name: string }>(
      `SELECT name FROM customers c WHERE merged_into IS NULL ORDER BY ${order} LIMIT ${count} OFFSET ${skip}`,
    )
    .map((c) => c.name);
const cell = (row: number) => page.locator(`[role=row][data-rowindex="${row}"] [data-field=name]`);

it("a long list is turned page by page", async () => {
  await go(page, `${app.url}/customers`);
  const [first, next] = [names("name COLLATE NOCASE, id", 0, 1)[0]!, names("name COLLATE NOCASE, id", 50, 1)[0]!];
  await cell(0).getByText(first, { exact: true }).waitFor();
  await page.getByRole("button", { name: "Go to next page" }).click();
  await page.locator("[role=row] [data-field=name]").getByText(next, { exact: true }).first().waitFor();
  await page.getByText(/^51–100 of \d+$/).waitFor();
});

it("a long list is put in order by its heads, from end to end and not only what is seen", async () => {
  await go(page, `${app.url}/customers`);
  await page.getByRole("columnheader", { name: "Name" }).click();
  await cell(0)
    .getByText(names("name COLLATE NOCASE DESC, id", 0, 1)[0]!, { exact: true })
    .waitFor();
});

it("a long list is searched while one types, and says when nothing is found", async () => {
  await go(page, `${app.url}/customers`);
  const search = page.getByRole("textbox", { name: "Search customers" });
  const last = names("name COLLATE NOCASE DESC, id", 0, 1)[0]!;
  await search.fill(last);
  await cell(0).getByText(last, { exact: true }).waitFor();
  await search.fill("nobody of this name");
  await page.getByText("Nothing is found. Try fewer letters.").waitFor();
});

it("what was on the screen stays there when it cannot be read again, and says so", async () => {
  await go(page, `${app.url}/today`);
  const shown = await page.getByRole("heading", { name: /Needs a person/ }).innerText();
  await page.route("**/api/views/**", (route) =>
    route.fulfill({
      status: 400,
      contentType: "application/json",
      body: JSON.stringify({ ok: false, problem: { code: "unexpected", sentence: "Something went wrong." } }),
    }),
  );
  const warning = page.getByText("This may be out of date. Something went wrong.");
  // Coming back to the tab reads again what is older than some seconds.
  while (!(await warning.isVisible())) {
    await page.evaluate(() => window.dispatchEvent(new Event("visibilitychange")));
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
  }
  expect(await page.getByRole("heading", { name: /Needs a person/ }).innerText()).toBe(shown);
  await page.unroute("**/api/views/**");
  while (await warning.isVisible()) {
    await page.evaluate(() => window.dispatchEvent(new Event("visibilitychange")));
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
  }
});
