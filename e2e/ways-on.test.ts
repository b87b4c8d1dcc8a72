import type { Browser, Page } from "playwright-core";
import { findAddress } from "./support/door";
import { desk, go, openPage, phone, type Running, signIn, startBrowser, startDemo } from "./support/server";

/** What goes wrong while somebody books and pays, and the way on from there. */
jest.setTimeout(900_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startDemo(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

const [pays, declined, asks] = ["9900 0000 0000 1006", "9900 0000 0000 2004", "9900 0000 0000 3002"];
const card = (page: Page, number: string) =>
  page.frameLocator("iframe[title=Card]").getByRole("button", { name: number }).click();

/** A customer at the door with a stove to be serviced, as far as the deposit. */
async function upToTheDeposit(name: string): Promise<{ page: Page; close: () => Promise<void> }> {
  const { page, context } = await openPage(browser, phone);
  await go(page, `${app.url}/book`);
  await findAddress(page, "14 Birch");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Stove service/ }).click();
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .nth(2)
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await page
    .getByRole("textbox", { name: "Email", exact: true })
    .fill(`${name.split(" ")[0]!.toLowerCase()}.way@example.com`);
  await page.getByLabel("Phone").fill("+1 555 0143");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByText(/^kept for \d/).waitFor();
  return { page, close: () => context.close() };
}
const jobOf = (name: string) =>
  app.sql<{ id: number; state: string; visit: number; date: string }>(
    "SELECT j.id, j.state, v.id AS visit, v.date FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN visits v ON v.job_id = j.id WHERE c.name = ? ORDER BY j.id DESC",
    name,
  )[0]!;

it("a declined card keeps the window, says that nothing was charged, and another card books it", async () => {
  const { page, close } = await upToTheDeposit("Tilda Way");
  await card(page, declined);
  await page.getByRole("button", { name: "Pay €30.00 and book" }).click();
  await page.getByText(/Nothing was charged. Try another card/).waitFor();
  expect(jobOf("Tilda Way").state).toBe("awaiting deposit");
  await card(page, pays);
  await page.getByRole("button", { name: "Pay €30.00" }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(jobOf("Tilda Way").state).toBe("agreed");
  await close();
});

it("a bank that asks for a second step is asked, and its no is told", async () => {
  const { page, close } = await upToTheDeposit("Anton Way");
  await card(page, asks);
  await page.getByRole("button", { name: "Pay €30.00 and book" }).click();
  await page.getByRole("heading", { name: "Your bank asks you" }).waitFor();
  await page.getByRole("link", { name: "Go to your bank" }).click();
  await page.waitForURL(/\/standins\/cards\/step\//);
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
  await page.getByRole("button", { name: "No", exact: true }).click();
  await page.getByText(/Nothing was charged/).waitFor();
  expect(jobOf("Anton Way").state).toBe("awaiting deposit");
  await close();
});

it("a window that somebody else takes meanwhile sends the customer back to those that are free, with everything typed kept", async () => {
  const { page, close } = await upToTheDeposit("Selma Way");
  const { from } = await page.evaluate(
    () => (JSON.parse(sessionStorage.getItem("hogar booking 4")!) as { offer: { from: number } }).offer,
  );
  // Everybody who could come is away on that day, all of a sudden; and the hold has run out.
  const office = await openPage(browser, desk);
  await signIn(office.page, app.url, "odile");
  const [{ date }] = app.sql<{ date: string }>(
    "SELECT date FROM visits WHERE state = 'held' AND window_from = ?",
    from,
  ) as [{ date: string }];
  for (const { id } of app.sql<{ id: number }>(
    "SELECT DISTINCT t.id FROM technicians t JOIN technician_skills h ON h.technician_id = t.id JOIN skills s ON s.id = h.skill_id WHERE s.name = 'solid fuel'",
  )) {
    const result = await office.page.evaluate(
      async (input) =>
        (
          await fetch("/api/operations/record-time-off", {
            method: "POST",
            headers: { "content-type": "application/json" },
            body: JSON.stringify(input),
          })
        ).json() as Promise<{ ok: boolean }>,
      { technicianId: id, firstDate: date, lastDate: date, reason: "Storm" },
    );
    expect(result.ok).toBe(true);
  }
  await office.page.getByRole("button", { name: "Demo clock" }).click();
  await office.page.getByRole("menuitem", { name: "One hour on" }).click();
  for (let i = 0; i < 100 && app.sql("SELECT 1 FROM visits WHERE state = 'held'").length; i++)
    await office.page.evaluate(() => new Promise((done) => requestIdleCallback(done)));

  await card(page, pays);
  await page.getByRole("button", { name: "Pay €30.00 and book" }).click();
  await page.getByText(/Somebody was faster/).waitFor();
  await page.getByRole("heading", { name: "When shall we come?" }).waitFor();
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  expect(await page.getByRole("textbox", { name: "Name", exact: true }).inputValue()).toBe("Selma Way");
  await office.context.close();
  await close();
});

it("a cancelled visit frees its room, is told, and its deposit goes back", async () => {
  const { visit, date, id } = jobOf("Tilda Way");
  const { page, context } = await openPage(browser, desk);
  await signIn(page, app.url, "tomas");
  await go(page, `${app.url}/board?date=${date}&visit=${visit}`);
  await page.getByRole("button", { name: "Cancel this visit…" }).click();
  await page.getByText("Pay back the deposit of €30.00").waitFor();
  await page.getByRole("button", { name: "Cancel and tell" }).click();
  await page.getByRole("complementary", { name: "Details" }).getByText("cancelled", { exact: false }).first().waitFor();
  expect(
    app.sql("SELECT r.amount_minor FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE p.job_id = ?", id),
  ).toEqual([{ amount_minor: 3000 }]);
  expect(app.sql("SELECT 1 FROM placements WHERE visit_id = ?", visit)).toEqual([]);
  await context.close();
});
