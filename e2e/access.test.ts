import type { Browser } from "playwright-core";
import { linkOf } from "./support/http";
import { findings } from "./support/axe";
import { findAddress, sayWho } from "./support/door";
import { desk, go, openPage, phone, type Running, signIn, startBrowser, startDemo } from "./support/server";

jest.setTimeout(900_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startDemo(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

it("the front door, the sign-in and the field are too, and the front door fits a small phone", async () => {
  const { page, context } = await openPage(browser, { width: 320, height: 640 });
  for (const path of ["/book", "/signin", "/standins/directory"]) {
    await go(page, app.url + path);
    expect([path, await findings(page)]).toEqual([path, []]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  }
  await context.close();
  const [{ id }] = app.sql<{ id: number }>(
    "SELECT v.job_id AS id FROM visits v JOIN jobs j ON j.id = v.job_id WHERE v.state = 'promised' AND j.state = 'agreed' ORDER BY v.date DESC LIMIT 1",
  ) as [{ id: number }];
  const mine = await openPage(browser, { width: 320, height: 640 });
  await go(mine.page, await linkOf(app.url, id));
  for (const what of ["Move", "Cancel", "Tell us something"]) {
    await mine.page.getByRole("button", { name: what, exact: true }).click();
    await mine.page.getByRole("group", { name: new RegExp(`^${what}`) }).waitFor();
    expect([what, await findings(mine.page)]).toEqual([what, []]);
    expect(await mine.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  }
  await mine.context.close();
  const field = await openPage(browser, phone);
  await signIn(field.page, app.url, "bram");
  expect(await findings(field.page)).toEqual([]);
  await field.context.close();
});

it("so is each step of a booking, with its questions open, on a small phone and by keyboard", async () => {
  const { page, context, troubles } = await openPage(browser, { width: 320, height: 640 });
  const clean = async (step: string) => {
    expect([step, await findings(page)]).toEqual([step, []]);
    expect([step, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([step, 320]);
  };
  await go(page, `${app.url}/book`);
  await page.getByRole("button", { name: "My address is not in the list" }).click();
  await clean("an address by hand");
  await findAddress(page, "14 alder");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Gas fire check/ }).focus();
  await page.keyboard.press("Space");
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page.getByText("Please answer this.").waitFor();
  await clean("what");
  await page.getByRole("button", { name: "More: How many gas fires?" }).press("Enter");
  await page.getByRole("button", { name: "Choose a time" }).press("Enter");
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .press("Enter");
  await page.getByRole("button", { name: "None of these suits me" }).click();
  await clean("when");
  await page.getByRole("button", { name: /^Choose \w+day/ }).press("Enter");
  await page.getByRole("heading", { name: "Your details" }).waitFor();
  await clean("who");
  await sayWho(page, "Tilda Marsh", "tilda@example.com");
  await page.getByRole("heading", { name: "Check and book" }).waitFor();
  await clean("pay");
  expect(troubles).toEqual([]);
  await context.close();
});

it("a booking fits a phone that is magnified twice, to the end", async () => {
  const { page, context } = await openPage(browser, { width: 195, height: 422 });
  const fits = async (step: string) =>
    expect([step, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([step, 195]);
  await go(page, `${app.url}/book`);
  await fits("where");
  await findAddress(page, "14 alder");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Gas fire check/ }).click();
  await page.getByRole("button", { name: "More: How many gas fires?" }).click();
  await fits("what");
  await page.getByRole("button", { name: "Choose a time" }).click();
  const last = page.getByRole("group", { name: /day \d/ }).last();
  await last.getByRole("button").first().click();
  await fits("when");
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(page, "Selma Marsh", "selma@example.com");
  await page.getByRole("heading", { name: "Check and book" }).waitFor();
  await fits("pay");
  await page.getByRole("button", { name: "Book", exact: true }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  await fits("booked");
  await context.close();
});

it("anything is found by Ctrl+K, and the keys of a screen by a question mark", async () => {
  const { page, context } = await openPage(browser, desk);
  await signIn(page, app.url, "odile");
  const [customer] = app.sql<{ name: string; phone: string }>("SELECT name, phone FROM customers ORDER BY id LIMIT 1");
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
  await page.keyboard.press("Control+k");
  await page.keyboard.type(customer!.name);
  await page.getByRole("option", { name: new RegExp(customer!.phone.replace("+", "\\+")) }).click();
  await page.getByRole("heading", { name: customer!.name, level: 1 }).waitFor();
  await go(page, `${app.url}/board`);
  await page.keyboard.press("?");
  await page.getByText("Lift a visit, carry it, put it down").waitFor();
  await context.close();
});

it("each role sees its own places, and goes nowhere else by address either", async () => {
  const { page, context } = await openPage(browser, desk);
  await signIn(page, app.url, "ines");
  const places = await page.getByRole("navigation", { name: "Places" }).getByRole("link").allInnerTexts();
  expect(places).toEqual(["Today", "Board", "Customers", "Repeats", "Messages", "Money"]);
  await go(page, `${app.url}/setup/people`);
  expect(new URL(page.url()).pathname).toBe("/today");
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.waitForURL(/signin/);
  await go(page, `${app.url}/money`);
  expect(new URL(page.url()).pathname).toBe("/signin");
  await context.close();
});
