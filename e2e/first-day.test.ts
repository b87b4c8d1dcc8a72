import type { Browser } from "playwright-core";
import { findAddress, sayWho } from "./support/door";
import { desk, go, openPage, phone, type Running, signIn, startBrowser, startEmpty } from "./support/server";

/** From nothing to the first online booking, as an owner who has never seen it. */
jest.setTimeout(420_000);

let app: Running;
let browser: Browser;
beforeAll(async () => void ([app, browser] = await Promise.all([startEmpty(), startBrowser()])));
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

it("an owner takes a starter kit, adds a technician and a zone, and a customer books", async () => {
  const { page, context, troubles } = await openPage(browser, desk);
  await signIn(page, app.url, "odile");
  await page.getByRole("link", { name: /^Set the business up/ }).click();
  await page.getByRole("heading", { name: "0 of 6 steps to the first booking" }).waitFor();
  await page.getByText("There is no zone: every address is outside.").waitFor();
  await page.getByRole("button", { name: /^Gutters and roofs/ }).click();
  await page.getByRole("checkbox", { name: "Moss removal" }).click();
  await page.getByRole("button", { name: "Take 4 services" }).click();
  await page.getByText("4 services made, with a window pattern. Change them as you like.").waitFor();
  expect(app.sql("SELECT code FROM services ORDER BY code")).toEqual(
    ["GC", "GR", "RI", "TI"].map((code) => ({ code })),
  );

  await go(page, `${app.url}/setup/business`);
  await findAddress(page, "3 alder");
  await page.getByLabel("Phone").fill("+1 555 0130");
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByText("Alder Roofs is saved").waitFor();

  await go(page, `${app.url}/setup/technicians?id=new`);
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Runa Holt");
  await page.getByLabel("Phone").fill("+1 555 0131");
  await page.getByRole("combobox", { name: "Skills" }).click();
  await page.getByRole("option", { name: "ladder" }).click();
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByText("Runa Holt is saved").waitFor();

  await go(page, `${app.url}/setup/zones?id=new`);
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Town");
  await page.getByLabel("Postcodes").fill("MW 1*, MW 3*");
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByText("Town is saved").waitFor();

  await go(page, `${app.url}/setup/start`);
  await page.getByRole("heading", { name: "5 of 6 steps to the first booking" }).waitFor();
  await page
    .getByText(/“Roof inspection” cannot be booked in .*: no technician has all the skills it asks for/)
    .waitFor({ timeout: 30_000 });
  await page.getByRole("link", { name: /Mend it: “Roof inspection” cannot/ }).click();
  await page.getByRole("heading", { name: "Roof inspection" }).waitFor();
  expect(troubles).toEqual([]);
  await context.close();

  const customer = await openPage(browser, phone);
  const door = customer.page;
  await go(door, `${app.url}/book`);
  await findAddress(door, "12 Alder");
  await door.getByRole("button", { name: "Continue" }).click();
  await door.getByRole("checkbox", { name: /Gutter clearing/ }).click();
  await door
    .getByRole("group", { name: "How high is the house?" })
    .getByRole("button", { name: "two storeys" })
    .click();
  await door.getByRole("spinbutton", { name: "How long are the gutters, about?, m" }).fill("30");
  await door.locator("footer").getByText("€160.00").waitFor();
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await door.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(door, "Mira Okonjo", "mira@example.com");
  await door.getByRole("button", { name: "Book", exact: true }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  await customer.context.close();
  expect(
    app.sql(
      "SELECT j.total_minor, v.minutes, t.name FROM jobs j JOIN visits v ON v.job_id = j.id JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id",
    ),
  ).toEqual([{ total_minor: 16_000, minutes: 60 + 20 + 25, name: "Runa Holt" }]);
});
