import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { findings } from "./support/axe";
import { deskForTests } from "./support/desk";
import { as, post } from "./support/http";
import { expectSoon, go, typeDate } from "./support/server";

/** Customers as an office keeps them: brought in from a file, made, changed, merged, erased, and billed elsewhere. */
jest.setTimeout(600_000);

const at = deskForTests("odile");
const count = (where = "1") =>
  at.app.sql<{ n: number }>(
    `SELECT count(*) AS n FROM customers WHERE merged_into IS NULL AND erased_at IS NULL AND ${where}`,
  )[0]!.n;
const chooseAddress = async (beginning: string) => {
  await at.page.getByRole("combobox", { name: "Address" }).fill(beginning);
  await at.page.getByRole("option").first().click();
};

/** A new customer by the one key, from whatever screen. */
async function make(
  from: string,
  name: string,
  more: { phone?: string; mail?: string; address?: string; note?: string },
) {
  const { page, app } = at;
  await go(page, app.url + from);
  await page.keyboard.press("n");
  const form = page.getByRole("dialog", { name: "New customer" });
  await form.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  if (more.phone) await form.getByLabel("Phone").fill(more.phone);
  if (more.mail) await form.getByLabel("Email").fill(more.mail);
  if (more.address) await chooseAddress(more.address);
  if (more.note) await form.getByLabel("For inside only").fill(more.note);
  return form;
}

it("a file of 200 with errors and doubles is looked over, half joined, taken, undone and taken again", async () => {
  const { page, app } = at;
  const before = count();
  await go(page, `${app.url}/customers`);
  await page.getByRole("button", { name: "Import and export" }).click();
  await page.getByRole("menuitem", { name: /Import a file/ }).click();
  await page.getByLabel("File to import").setInputFiles(path.join(app.folder, "standins/examples/customers-200.csv"));
  await page.getByRole("region", { name: "The first rows as they will be" }).getByText("Greta Solberg").waitFor();
  expect(await findings(page)).toEqual([]);
  await page.getByRole("button", { name: "Look over all 200 rows" }).click();
  await page.waitForURL(/\/import\/\d+$/);
  await page.getByText("5 with something wrong, which stay out").waitFor();
  await page.getByText("Email: “no email” is no email address.").waitFor();
  expect(await findings(page)).toEqual([]);
  // One of the wrong ones is corrected where it stands.
  await page.getByRole("button", { name: "Correct" }).first().click();
  await page.getByLabel("E-Mail").fill("leila.petrov@example.org");
  await page.getByRole("button", { name: "Look it over again" }).click();
  await page.getByText("4 with something wrong, which stay out").waitFor();
  // Half of those who may be known are joined, the others are kept apart.
  await page.getByRole("button", { name: /May be known \(7\)/ }).click();
  await page.getByText("7 rows wait for your decision.").waitFor();
  expect(await page.getByRole("button", { name: /^Import \d+/ }).isDisabled()).toBe(true);
  for (const row of [121, 124, 195])
    await page
      .getByRole("group", { name: `What becomes of row ${row}` })
      .getByRole("button", { name: "Join" })
      .click();
  await page.getByText("4 rows wait for your decision.").waitFor();
  for (const row of [127, 196, 197, 198])
    await page
      .getByRole("group", { name: `What becomes of row ${row}` })
      .getByRole("button", { name: "Keep apart" })
      .click();
  const [{ id }] = app.sql<{ id: number }>("SELECT max(id) AS id FROM imports") as [{ id: number }];
  const decided = (decision: string) =>
    app.sql<{ n: number }>(
      "SELECT count(*) AS n FROM import_rows WHERE import_id = ? AND decision = ?",
      id,
      decision,
    )[0]!.n;
  await page.getByRole("button", { name: "Import 196 rows" }).click();
  await page.getByText("196 rows are imported.").waitFor();
  expect([count() - before, decided("join")]).toEqual([decided("take"), 21]);
  await page.getByRole("button", { name: "Undo all of it" }).click();
  await page.getByText("All of it is undone.").waitFor();
  expect(count()).toBe(before);
  await page.getByRole("button", { name: "Import again: 196 rows" }).click();
  await page.getByText("196 rows are imported.").waitFor();
  expect(count() - before).toBe(decided("take"));
});

it("what is on the screen is exported, and a view of it saved", async () => {
  const { page, app } = at;
  await go(page, `${app.url}/customers`);
  await page.getByRole("button", { name: "Filter" }).click();
  await page.getByRole("combobox", { name: "Tag" }).click();
  await page.getByRole("option", { name: /^landlord/ }).click();
  await page.getByLabel("No coming visit").check();
  await page.getByLabel("Save as a view").fill("Landlords with nothing coming");
  await page.getByRole("dialog", { name: "Filter" }).getByRole("button", { name: "Save" }).click();
  await page.getByRole("button", { name: /Remove the view/ }).waitFor();
  await page.getByRole("dialog", { name: "Filter" }).press("Escape");
  await page.getByRole("dialog", { name: "Filter" }).waitFor({ state: "detached" });
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page
      .getByRole("button", { name: "Import and export" })
      .click()
      .then(() => page.getByRole("menuitem", { name: "Export CSV" }).click()),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  const landlords = app.sql<{ name: string }>(
    `SELECT c.name FROM customers c JOIN customer_tags t ON t.customer_id = c.id WHERE t.tag = 'landlord'
      AND NOT EXISTS (SELECT 1 FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = c.id AND v.state IN ('promised', 'on the way', 'on site'))
      AND NOT EXISTS (SELECT 1 FROM repeats r WHERE r.customer_id = c.id AND r.state = 'active')`,
  );
  const exported = text
    .split("\r\n")
    .slice(1)
    .map((line) => line.split(",")[0]);
  expect(new Set(exported)).toEqual(new Set(landlords.map(({ name }) => name)));
});

it("a customer with two sites is made by one key, warned of, changed, merged and erased, and nothing is left of them", async () => {
  const { page, app } = at;
  const form = await make("/board", "Quintessa Zwingli", {
    phone: "+1 909 555 0188",
    mail: "zwingli@example.com",
    address: "14 Birch",
    note: "Zwingli pays by herself",
  });
  await form.getByRole("button", { name: "Save" }).click();
  await page.waitForURL(/\/customers\/\d+$/);
  const id = Number(new URL(page.url()).pathname.split("/").at(-1));
  await page.getByRole("button", { name: "Add a site" }).click();
  await chooseAddress("2 Oak");
  await page.getByLabel("How to get in").fill("Zwingli’s key, hook 9");
  await page.getByRole("dialog", { name: "Site" }).getByRole("button", { name: "Save" }).click();
  await page.getByText("Getting in: Zwingli’s key, hook 9").waitFor();
  await page.getByRole("region", { name: "Sites on the map" }).waitFor();
  expect(await findings(page)).toEqual([]);
  await page.getByRole("button", { name: "Change", exact: true }).first().click();
  const change = page.getByRole("dialog", { name: /Change Quintessa/ });
  await change.getByLabel("Tags").fill("Zwingli club");
  await change.getByLabel("Tags").press("Enter");
  await change.getByRole("button", { name: "Save" }).click();
  await page.getByRole("button", { name: "Zwingli club" }).waitFor();
  // The same person once more: whoever types is told, and the two are merged.
  const again = await make("/today", "Q. Zwingli", { phone: "909 555 0188" });
  await again.getByText("We know them already").waitFor();
  await again.getByRole("button", { name: "Save" }).click();
  await page.waitForURL(/\/customers\/\d+$/);
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: /Merge with/ }).click();
  await page.getByLabel("The other customer").fill("9095550188 quintessa");
  await page.getByRole("option", { name: /Quintessa/ }).click();
  await page.getByRole("button", { name: "Keep this one" }).nth(1).click();
  await page.waitForURL(new RegExp(`/customers/${id}$`));
  await page.getByText(/They are one customer now/).waitFor();
  // Words of theirs are in many places now, and none of them is left.
  const words = ["wingli", "Quintessa", "909 555 0188", "9095550188"];
  expect(tablesWith(words).length).toBeGreaterThan(5);
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: /Erase on request/ }).click();
  await page.getByRole("button", { name: "Erase for good" }).click();
  await page.waitForURL(/\/customers$/);
  await expectSoon(page, () => filesWith(words).length === 0);
  expect(tablesWith(words)).toEqual([]);
  expect(words.filter((word) => app.log().includes(word))).toEqual([]);
  expect(app.sql("SELECT name FROM customers WHERE id = ?", id)).toEqual([{ name: "Erased customer" }]);
});

it("a bill goes to the agent, as it stood when it was written", async () => {
  const { page, app } = at;
  const form = await make("/money", "Rosalind Tee", {
    phone: "+1 202 555 0189",
    mail: "rosalind@example.com",
    address: "14 Birch",
  });
  await form.getByLabel(/Bills go to somebody else/).check();
  await form.getByLabel("Bill to").fill("Quayside Lettings");
  await form.getByLabel("Their email").fill("bills@quayside-lettings.example");
  await form.getByRole("button", { name: "Save" }).click();
  await page.waitForURL(/\/customers\/\d+$/);
  await page.getByText("bills@quayside-lettings.example").waitFor();
  await page.getByRole("link", { name: "Book a visit" }).click();
  // A day that is not full yet.
  const [later] = app.sql<{ date: string }>(
    "SELECT date(unixepoch() + demo_offset_ms / 1000, 'unixepoch', '+9 days') AS date FROM business",
  );
  await typeDate(page.getByRole("group", { name: "Day" }), later!.date);
  await page
    .getByRole("button", { name: /: offered$/ })
    .last()
    .click();
  await page.getByRole("heading", { name: "For Rosalind Tee" }).waitFor();
  await page.getByRole("button", { name: "Book it and tell them" }).click();
  await page.waitForURL(/\/board/);
  const [visit] = app.sql<{ id: number; job: number; date: string }>(
    "SELECT v.id, v.job_id AS job, v.date FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE c.name = 'Rosalind Tee'",
  );
  const odile = await as(app.url, "odile");
  const [{ offset }] = app.sql<{ offset: number }>("SELECT demo_offset_ms AS offset FROM business") as [
    { offset: number },
  ];
  const minutes = Math.ceil((Date.parse(`${visit!.date}T08:30:00Z`) - Date.now() - offset) / 60_000);
  if (minutes > 0) await post(`${app.url}/api/operations/move-clock`, { minutes }, odile);
  const [{ checklist }] = app.sql<{ checklist: string }>("SELECT checklist FROM visits WHERE id = ?", visit!.id) as [
    { checklist: string },
  ];
  const ticked = (JSON.parse(checklist) as { id: string }[]).map((item) => item.id);
  for (const to of ["on site", "done"])
    expect(
      await post(
        `${app.url}/api/operations/advance-visit`,
        { visitId: visit!.id, to, ...(to === "done" && { ticked }) },
        odile,
      ),
    ).toMatchObject({ ok: true });
  const [invoice] = app.sql<{ id: number; bill: string }>(
    "SELECT id, bill_name AS bill FROM invoices WHERE job_id = ?",
    visit!.job,
  );
  expect(invoice!.bill).toBe("Quayside Lettings");
  await go(page, `${app.url}/money?show=all&id=${invoice!.id}`);
  await page.getByText("Quayside Lettings, bills@quayside-lettings.example").waitFor();
  expect(
    app.sql("SELECT DISTINCT recipient FROM messages WHERE job_id = ? AND occasion LIKE 'invoice%'", visit!.job),
  ).toEqual([{ recipient: "bills@quayside-lettings.example" }]);
});

/** Every text of every table in which one of the words stands, the record of changes among them. */
function tablesWith(words: readonly string[]): string[] {
  const tables = at.app.sql<{ name: string }>(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%'",
  );
  return tables.flatMap(({ name }) =>
    at.app.sql(`SELECT * FROM ${name}`).flatMap((row) =>
      Object.entries(row)
        .filter(([, value]) => words.some((word) => textOf(value).includes(word)))
        .map(([column]) => `${name}.${column}`),
    ),
  );
}
const textOf = (value: unknown): string =>
  Buffer.isBuffer(value) ? value.toString("latin1") : value === null ? "" : String(value as string | number);

/** Files of the data folder that hold one of the words, but for those of the stand-ins, which are the outside world. */
const filesWith = (words: readonly string[]): string[] =>
  readdirSync(at.app.folder, { recursive: true })
    .map((name) => path.join(at.app.folder, String(name)))
    .filter((file) => statSync(file).isFile() && !file.includes("standins"))
    .filter((file) => words.some((word) => readFileSync(file).includes(Buffer.from(word))));
