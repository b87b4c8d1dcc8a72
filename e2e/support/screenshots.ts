import path from "node:path";
import { findAddress } from "./door";
import { desk, go, mailedLink, openPage, phone, signIn, startBrowser, startDemo } from "./server";

/** Takes the pictures in docs/screenshots. */
const folder = path.join(process.cwd(), "docs/screenshots");
const app = await startDemo({ own: { historyDays: 42 } });
const browser = await startBrowser();
const { page } = await openPage(browser, desk);
const shoot = (name: string, from = page) => from.screenshot({ path: path.join(folder, `${name}.png`) });

await signIn(page, app.url, "odile");
const [busy] = app.sql<{ date: string; visit: number }>(
  `SELECT p.date, max(p.visit_id) AS visit FROM placements p JOIN visits v ON v.id = p.visit_id WHERE v.state = 'promised' AND p.date > date(unixepoch() + (SELECT demo_offset_ms FROM business) / 1000, 'unixepoch') AND p.date IN (SELECT date FROM visits WHERE state = 'promised' AND id NOT IN (SELECT visit_id FROM placements)) GROUP BY p.date ORDER BY p.date LIMIT 1`,
);
const [landlord] = app.sql<{ id: number }>("SELECT id FROM customers WHERE bill_name <> ''");
const [moving] = app.sql<{ id: number }>(
  "SELECT thread_id AS id FROM replies WHERE understood LIKE '%wishes to move%' ORDER BY id DESC LIMIT 1",
);
const screens: [string, string][] = [
  ["today", "/today"],
  ["board", `/board?date=${busy!.date}`],
  ["visit", `/board?date=${busy!.date}&visit=${busy!.visit}`],
  ["customers", "/customers"],
  ["customer", `/customers/${landlord!.id}`],
  ["incoming", "/incoming?open=quote%202"],
  ["repeats", "/repeats"],
  ["money", "/money"],
  ["messages", `/messages?open=${moving!.id}`],
  ["campaign", "/messages?list=campaigns&open=1"],
  ["set-up", "/setup/technicians?id=1"],
  ["service", "/setup/services?id=1"],
  ["zones", "/setup/zones"],
  ["windows", "/setup/windows"],
  ["why-not", "/why-not?address=a700&service=1"],
];
for (const [name, at] of screens) {
  await go(page, app.url + at);
  await page.waitForLoadState("networkidle");
  if (name === "messages") await page.getByLabel(/^Write to/).waitFor();
  if (name === "windows") await page.getByText(/ windows offered/).waitFor();
  await shoot(name);
}

await go(page, `${app.url}/import?kind=customers`);
await page.getByLabel("File to import").setInputFiles(path.join(app.folder, "standins/examples/customers-200.csv"));
await page.getByRole("button", { name: "Look over all 200 rows" }).click();
await page.waitForURL(/\/import\/\d+$/);
await page.getByText("7 rows wait for your decision.").waitFor();
await page.getByRole("button", { name: /May be known/ }).click();
await page.getByText("Perhaps the same as row 101 of this file").waitFor();
await shoot("import");

const { page: door } = await openPage(browser, phone);
await go(door, `${app.url}/book`);
await findAddress(door, "12 Alder");
await door.getByText("We come to Northfield.").waitFor();
await door.getByRole("button", { name: "Continue" }).click();
await door.getByRole("checkbox", { name: /Chimney sweep/ }).click();
await door.getByRole("button", { name: "More: How many flues?" }).click();
await door.getByRole("group", { name: "Could there be a nest?" }).getByRole("button", { name: "No" }).click();
await door.getByRole("button", { name: "Choose a time" }).click();
await door
  .getByRole("group", { name: /day \d/ })
  .nth(1)
  .getByRole("button")
  .first()
  .click();
await door.mouse.move(0, 0);
await door
  .getByRole("button", { name: /^Choose \w+day/ })
  .and(door.locator(":enabled"))
  .waitFor();
await door.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)));
await shoot("front-door-when", door);
await go(door, await mailedLink(page, app.url, /Your quote.*ruth/s, "quote"));
await door
  .getByRole("group", { name: /day \d/ })
  .first()
  .waitFor();
await shoot("quote", door);
const { page: field } = await openPage(browser, phone);
// The next morning, as whoever has most to do then.
await go(page, `${app.url}/today`);
await page.getByRole("button", { name: "Demo clock" }).click();
await page.getByRole("menuitem", { name: /next morning/ }).click();
const [busiest] = app.sql<{ name: string }>(
  "SELECT lower(substr(t.name, 1, instr(t.name, ' ') - 1)) AS name FROM placements p JOIN technicians t ON t.id = p.technician_id JOIN visits v ON v.id = p.visit_id WHERE v.state = 'promised' AND p.date = date('now', '+1 day') GROUP BY t.id ORDER BY count(*) DESC",
);
await signIn(field, app.url, busiest?.name ?? "bram");
await field.waitForLoadState("networkidle");
await shoot("field", field);

await browser.close();
await app.stop();
