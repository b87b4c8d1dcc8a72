import { pairForTests } from "./support/pair";
import { go, openPage, phone, signIn } from "./support/server";

/** Invoices made by hand and from what is done, and cash at the door. */
jest.setTimeout(600_000);

const pair = pairForTests();
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
const open = (invoiceId: number) =>
  pair.app.sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId)[0]!.n;

it("an invoice made by hand is a page and a PDF by its link, and is paid there by card", async () => {
  const { office, door, app } = pair;
  const [customer] = app.sql<{ name: string }>(
    "SELECT name FROM customers WHERE merged_into IS NULL ORDER BY id LIMIT 1",
  );
  await go(office, `${app.url}/money`);
  await office.getByRole("button", { name: "New invoice" }).click();
  const form = office.getByRole("dialog", { name: "New invoice" });
  await form.getByRole("combobox", { name: "Customer" }).fill(customer!.name);
  await office.getByRole("option", { name: customer!.name }).first().click();
  await form.getByLabel("Description").fill("Stove rope");
  await form.getByLabel("How many").fill("3");
  await form.getByLabel(/^Price of one/).fill("10.00");
  await form.getByLabel("Off, %").fill("10");
  await form.getByText("€27.00").waitFor();
  await form.getByRole("button", { name: "Send the invoice" }).click();
  await sheet().getByText("Stove rope × 3").waitFor();
  const id = Number(new URL(office.url()).searchParams.get("id"));
  expect(open(id)).toBe(2_700);
  await office.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await sheet().getByRole("button", { name: "Copy its link" }).click();
  await office.getByText("The link of the invoice is copied").waitFor();
  const link = await office.evaluate(() => navigator.clipboard.readText());
  const path = new URL(link).pathname;
  await go(door, `${app.url}${path}`);
  await door.getByText("€27.00 to pay").waitFor();
  const pdf = await door.request.get(`${app.url}${path}/invoice.pdf`);
  expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, "%PDF-"]);
  expect(await (await door.request.get(`${app.url}${path}/invoice.xml`)).text()).toContain("urn:cen.eu:en16931:2017");
  await door.frameLocator("iframe").getByLabel("Card number").fill("9900 0000 0000 1006");
  await door.getByRole("button", { name: "Pay €27.00" }).click();
  await door.getByText("Nothing is open: thank you.").waitFor();
  expect(open(id)).toBe(0);
});

it("what is done and not billed is looked over and billed in bulk", async () => {
  const { office, app } = pair;
  const waiting = () =>
    app.sql<{ n: number }>("SELECT count(DISTINCT customer_id) AS n FROM jobs WHERE to_bill IS NOT NULL")[0]!.n;
  const n = waiting();
  expect(n).toBeGreaterThan(1);
  await go(office, `${app.url}/money?list=to-bill`);
  const row = office.getByRole("button", { name: /1 line, since/ }).first();
  await row.click();
  await office.getByRole("button", { name: "Make this invoice" }).first().waitFor();
  await office.getByRole("button", { name: new RegExp(`^Make ${n} invoices`) }).click();
  await office.getByText(`${n} invoices made`).waitFor();
  await office.getByText(/^Nothing waits to be billed/).waitFor();
  expect(waiting()).toBe(0);
});

it("cash that a technician takes at the door stands under them until it is counted", async () => {
  const { office, app } = pair;
  const browser = office.context().browser()!;
  const { page: field } = await openPage(browser, phone);
  await signIn(field, app.url, "bram");
  await go(field, `${app.url}/field`);
  for (const step of ["On the way", "On site"])
    await field
      .getByRole("button", { name: new RegExp(step) })
      .first()
      .click();
  const take = field.getByRole("button", { name: /^Take payment/ });
  const due = Number(/€([\d.]+)/.exec(await take.innerText())![1]);
  await take.click();
  await field.getByLabel("Given to you").fill((due + 5.5).toFixed(2));
  await field.getByText("Change: €5.50").waitFor();
  await field.getByRole("button", { name: /^Record payment/ }).click();
  await field.getByText(/ is recorded$/).waitFor();
  await go(office, `${app.url}/money`);
  const bram = office.getByRole("group", { name: /^Bram/ });
  await bram.getByRole("button", { name: "Count…" }).click();
  const out = app.sql<{ minor: number }>(
    "SELECT sum(amount_minor) AS minor FROM ledger_entries WHERE account = 'cash out' AND technician_id = 1",
  )[0]!.minor;
  const dialog = office.getByRole("dialog", { name: /hands over/ });
  await dialog.getByLabel(/^Counted/).fill((out / 100 - 1).toFixed(2));
  await dialog.getByRole("button", { name: "Sign for it" }).click();
  await dialog.getByText(/Count again/).waitFor();
  await dialog.getByLabel(/^Counted/).fill((out / 100).toFixed(2));
  await dialog.getByRole("button", { name: "Sign for it" }).click();
  await office.getByText(/ is counted$/).waitFor();
  await bram.waitFor({ state: "detached" });
});
