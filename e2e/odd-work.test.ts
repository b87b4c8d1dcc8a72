import type { Browser, Page } from "playwright-core";
import { findAddress } from "./support/door";
import { desk, expectSoon, go, openPage, phone, type Running, signIn, startBrowser, startDemo } from "./support/server";

/** Work that is more than one service on one day, and prices of many services. */
jest.setTimeout(900_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startDemo(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

const pays = "9900 0000 0000 1006";
const card = (page: Page, number: string) =>
  page.frameLocator("iframe[title=Card]").getByRole("button", { name: number }).click();
const jobOf = (name: string) =>
  app.sql<{ id: number; state: string; visit: number; date: string }>(
    "SELECT j.id, j.state, v.id AS visit, v.date FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN visits v ON v.job_id = j.id WHERE c.name = ? ORDER BY j.id DESC",
    name,
  )[0]!;

it("work of several days is booked at the front door with all its days", async () => {
  const { page, context } = await openPage(browser, phone);
  await go(page, `${app.url}/book`);
  await findAddress(page, "16 Birch");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Flue relining.*2 days of/ }).click();
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page.getByText("The work takes 2 days in a row").waitFor();
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Edmund Way");
  await page.getByRole("textbox", { name: "Email", exact: true }).fill("edmund.way@example.com");
  await page.getByLabel("Phone").fill("+1 555 0144");
  await page.getByRole("button", { name: "Continue" }).click();
  await card(page, pays);
  await page.getByRole("button", { name: /^Pay .* and book/ }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  await page
    .getByText(/day \d+ \w+ and \w+day \d+/)
    .first()
    .waitFor();
  const days = app.sql<{ crew: string }>(
    "SELECT (SELECT group_concat(technician_id) FROM placements WHERE visit_id = v.id) AS crew FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE c.name = 'Edmund Way'",
  );
  expect(days).toHaveLength(2);
  expect(new Set(days.map((d) => d.crew)).size).toBe(1);
  await context.close();
});

it("questions change the price while they are answered, and the technician reads the answers", async () => {
  const { page, context } = await openPage(browser, phone);
  await go(page, `${app.url}/book`);
  await findAddress(page, "18 Birch");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Chimney sweep/ }).click();
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page.getByText("Please answer this.").first().waitFor();
  for (let i = 0; i < 2; i++) await page.getByRole("button", { name: "More: How many flues?" }).click();
  const nest = page.getByRole("group", { name: "Could there be a nest?" });
  await nest.getByRole("button", { name: "Yes" }).click();
  await page.locator("footer").getByText("€154.00").waitFor();
  await page.getByRole("textbox", { name: "What have you seen of it?" }).fill("Twigs in the hearth");
  await page.getByRole("button", { name: "More: Carbon monoxide alarm" }).click();
  await page.locator("footer").getByText("€188.00").waitFor();
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Selma Way");
  await page.getByRole("textbox", { name: "Email", exact: true }).fill("selma.way@example.com");
  await page.getByLabel("Phone").fill("+1 555 0145");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("button", { name: "Book", exact: true }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  await page.getByText("€188.00").first().waitFor();
  await context.close();
  const { visit, date } = jobOf("Selma Way");
  expect(app.sql("SELECT minutes FROM visits WHERE id = ?", visit)).toEqual([{ minutes: 45 + 30 + 20 }]);
  const office = await openPage(browser, desk);
  await signIn(office.page, app.url, "tomas");
  await go(office.page, `${app.url}/board?date=${date}&visit=${visit}`);
  await office.page.getByText("Twigs in the hearth").waitFor();
  await office.context.close();
});

it("prices of many services change at once, with the way back", async () => {
  const { page, context } = await openPage(browser, desk);
  const prices = () =>
    app.sql<{ code: string; price_minor: number }>("SELECT code, price_minor FROM services ORDER BY code");
  const before = prices();
  await signIn(page, app.url, "odile");
  await go(page, `${app.url}/setup/prices`);
  await page.getByLabel("Change, %").fill("10");
  await page.getByLabel("Rounded to").click();
  await page.getByRole("option", { name: "ending in 9" }).click();
  await page
    .getByRole("row", { name: /Stove service/ })
    .getByRole("checkbox")
    .click();
  await page
    .getByRole("row", { name: /Chimney sweep/ })
    .getByText("€89.00")
    .waitFor();
  await page.getByRole("button", { name: "Change prices" }).click();
  await page.getByText(/prices are changed/).waitFor();
  const after = new Map(prices().map((p) => [p.code, p.price_minor]));
  expect([after.get("SW"), after.get("ST")]).toEqual([8900, 11_900]);
  await page.getByRole("button", { name: "Undo" }).click();
  await page
    .getByRole("row", { name: /Chimney sweep/ })
    .getByText("€79.00")
    .first()
    .waitFor();
  await expectSoon(page, () => JSON.stringify(prices()) === JSON.stringify(before));
  await context.close();
});
