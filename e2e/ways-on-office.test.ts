import type { Browser } from "playwright-core";
import { findAddress } from "./support/door";
import { desk, go, openPage, type Running, signIn, startBrowser, startDemo, typeDate } from "./support/server";

/** What goes wrong in the office’s day, and the way on from there. */
jest.setTimeout(900_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startDemo(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

it("the dispatcher absorbs an ill technician: time off, then Place for what waits in the tray", async () => {
  const { page, context } = await openPage(browser, desk);
  await signIn(page, app.url, "odile");
  const busy = app.sql<{ id: number; name: string; date: string }>(
    `SELECT t.id, t.name, p.date FROM placements p JOIN technicians t ON t.id = p.technician_id JOIN visits v ON v.id = p.visit_id JOIN services s ON s.id = v.service_id
     WHERE v.state = 'promised' AND v.crew = 1 AND s.code = 'SW' AND NOT EXISTS (SELECT 1 FROM time_off o WHERE p.date BETWEEN o.first_date AND o.last_date)
     GROUP BY t.id, p.date ORDER BY p.date DESC LIMIT 1`,
  )[0]!;
  await go(page, `${app.url}/setup/technicians?id=${busy.id}`);
  for (const label of ["First day", "Last day"]) {
    const field = page.getByRole("group", { name: label });
    await typeDate(field, busy.date);
  }
  await page.getByRole("button", { name: "Add time off" }).click();
  await page.getByText(/visits? waits? in the tray/).waitFor();
  await go(page, `${app.url}/board?date=${busy.date}`);
  const tray = page.getByRole("complementary", { name: "Unplaced" });
  const waiting = () =>
    app.sql<{ n: number }>(
      "SELECT count(*) AS n FROM visits v WHERE date = ? AND state = 'promised' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)",
      busy.date,
    )[0]!.n;
  const before = waiting();
  expect(before).toBeGreaterThan(0);
  await tray.getByRole("button", { name: "Place", exact: true }).first().click();
  await page
    .getByText(/is placed/)
    .first()
    .waitFor();
  expect(waiting()).toBe(before - 1);
  await context.close();
});

it("the bookkeeper takes down cash, and cannot take down more than is open", async () => {
  const { page, context } = await openPage(browser, desk);
  await signIn(page, app.url, "ines");
  await go(page, `${app.url}/money?list=invoices&show=open`);
  await page.getByRole("row").nth(1).getByRole("gridcell").nth(1).click();
  const sheet = page.getByRole("complementary", { name: "Details" });
  await sheet.getByLabel("Amount").fill("99999");
  await sheet.getByText(/stays with .* as credit/).waitFor();
  await sheet.getByLabel("Amount").fill("1.00");
  await sheet.getByRole("button", { name: "Record payment" }).click();
  await page.getByText("€1.00 is recorded").waitFor();
  await sheet.getByText(/€1.00 by bank/).waitFor();
  await go(page, `${app.url}/money`);
  await page.getByText("✓ the books balance, to the cent").waitFor();
  await context.close();
});

it("why not: the office sees what stands against a window, and what would open it", async () => {
  const { page, context, troubles } = await openPage(browser, desk);
  await signIn(page, app.url, "odile");
  await go(page, `${app.url}/today`);
  await page.keyboard.press("Control+k");
  await page.keyboard.type("why");
  await page.getByRole("option", { name: "Why not?" }).click();
  await findAddress(page, "14 Birch");
  await page.getByLabel("Service").click();
  await page.getByRole("option", { name: "Gas fire check" }).click();
  const table = page.getByRole("table", { name: "Windows and technicians" });
  await table.getByRole("button", { name: /^Luca Arden, 9–11: does not have the skill/ }).click();
  await page.getByRole("complementary", { name: "Why" }).getByText("giving the skill “gas”").waitFor();
  await page.getByRole("link", { name: "Luca Arden in Set-up" }).click();
  await page.getByRole("heading", { name: "Luca Arden" }).waitFor();
  expect(troubles).toEqual([]);
  await context.close();
});

it("somebody on the phone is booked where it can be kept, and stands on the board", async () => {
  const { page, context, troubles } = await openPage(browser, desk);
  await signIn(page, app.url, "tomas");
  await go(page, `${app.url}/incoming`);
  await page.getByRole("link", { name: "Book on the phone" }).click();
  await findAddress(page, "16 Birch");
  // A day that is not full yet.
  const [later] = app.sql<{ date: string }>(
    "SELECT date(unixepoch() + demo_offset_ms / 1000, 'unixepoch', '+9 days') AS date FROM business",
  );
  await typeDate(page.getByRole("group", { name: "Day" }), later!.date);
  const offered = page.getByRole("button", { name: /: offered$/ });
  await offered.last().click();
  const form = page.locator("form").filter({ hasText: "On the phone?" });
  // What the service asks is asked on the and changes price and time as at the front door.
  await form.getByText(/, €95\.00\./).waitFor();
  for (let n = 0; n < 2; n++) await form.getByRole("button", { name: "More: How many gas fires?" }).click();
  await form.getByText(/, €155\.00\./).waitFor();
  await form.getByLabel("Name").fill("Greta Ring");
  await form.getByLabel("Email").fill("greta.ring@");
  await form.getByLabel("Phone").fill("+1 555 0146");
  await form.getByRole("button", { name: "Book it and tell them" }).click();
  await form.getByText(/Write a mail address/).waitFor();
  // Another window is looked at meanwhile: what was typed stays.
  await offered.first().click();
  await form.getByLabel("Email").fill("greta.ring@example.com");
  await form.getByRole("button", { name: "Book it and tell them" }).click();
  await page.waitForURL(/\/board\?date=/);
  await page.getByRole("complementary", { name: "Details" }).getByText("Greta Ring").first().waitFor();
  expect(
    app.sql(
      "SELECT v.state, v.minutes, j.total_minor, j.booked_by, (SELECT count(*) FROM messages m WHERE m.job_id = j.id AND m.occasion LIKE 'booked%') AS told FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE c.mail = 'greta.ring@example.com'",
    ),
  ).toEqual([
    { state: "promised", minutes: 75, total_minor: 15_500, booked_by: expect.stringContaining("Tomas Quill"), told: 1 },
  ]);
  expect(troubles).toEqual([]);
  await context.close();
});

it("an errand in the way puts a visit into the tray, and says so", async () => {
  const { page, context } = await openPage(browser, desk);
  const [visit] = app.sql<{ technician_id: number; date: string; arrives: number }>(
    "SELECT p.technician_id, p.date, p.arrives FROM placements p JOIN visits v ON v.id = p.visit_id WHERE v.state = 'promised' AND v.crew = 1 AND v.window_to - v.window_from = 120 AND p.date > date('now', '+2 days') ORDER BY p.date, p.arrives LIMIT 1",
  );
  await signIn(page, app.url, "odile");
  await go(page, `${app.url}/setup/technicians?id=${visit!.technician_id}`);
  const errands = page.getByRole("region", { name: "Errands" });
  await errands.getByLabel("What").fill("Van to the garage");
  await typeDate(errands.getByRole("group", { name: "Day" }), visit!.date);
  await errands.getByLabel("From").fill("6:00");
  await errands.getByLabel("To", { exact: true }).fill("20:00");
  await errands.getByRole("button", { name: "Add errand" }).click();
  await page.getByText(/waits? in the tray for somebody else/).waitFor();
  expect(
    app.sql(
      "SELECT 1 FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = ? AND p.date = ? AND v.state = 'promised'",
      visit!.technician_id,
      visit!.date,
    ),
  ).toEqual([]);
  await context.close();
});
