import { execFileSync } from "node:child_process";
import { as, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go, openPage, phone, signIn } from "./support/server";

/** A bookkeeper's day: money that comes, and what is set right in the books. */
jest.setTimeout(600_000);

const pair = pairForTests();
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
const open = (invoiceId: number) =>
  pair.app.sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId)[0]!.n;
const show = (invoiceId: number) => go(pair.office, `${pair.app.url}/money?list=invoices&show=all&id=${invoiceId}`);
/** Somebody who owes us on one invoice that nobody has paid anything of, the nth of them. */
const owing = (nth: number) =>
  pair.app.sql<{ id: number; customer: number; open: number; number: number }>(
    `SELECT i.id, i.customer_id AS customer, b.open_minor AS open, i.number
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE b.open_minor = i.total_minor AND i.total_minor > 3000
        AND (SELECT count(*) FROM invoice_balances o WHERE o.customer_id = i.customer_id AND o.open_minor > 0) = 1
        AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.customer_id = i.customer_id)
      ORDER BY i.id LIMIT 1 OFFSET ?`,
    nth,
  )[0]!;
const reason = (words: string) => sheet().getByLabel("Why, for the books").fill(words);

it("an invoice is paid in parts; what is over stays as credit, and is refunded in part", async () => {
  const { office } = pair;
  const invoice = owing(0);
  const rest = (invoice.open - 1000) / 100;
  await show(invoice.id);
  await sheet().getByLabel("Amount").fill("10.00");
  await sheet().getByRole("button", { name: "Record payment" }).click();
  await office.getByText("€10.00 is recorded").waitFor();
  await expectSoon(office, async () => (await sheet().getByLabel("Amount").inputValue()) === rest.toFixed(2));
  expect(open(invoice.id)).toBe(invoice.open - 1000);
  await sheet()
    .getByLabel("Amount")
    .fill((rest + 25).toFixed(2));
  await sheet()
    .getByText(/€25\.00 stays with .* as credit/)
    .waitFor();
  await sheet().getByRole("button", { name: "Record payment" }).click();
  await expectSoon(office, () => open(invoice.id) === 0);
  await go(office, `${pair.app.url}/customers/${invoice.customer}`);
  await office.getByRole("heading", { name: "Account: has €25.00 with us" }).waitFor();

  await show(invoice.id);
  await sheet().getByRole("button", { name: "Refund…" }).click();
  await sheet().getByRole("group", { name: "Refund" }).getByLabel("Amount").fill("20.00");
  await reason("They asked for it");
  await sheet().getByRole("button", { name: "Refund", exact: true }).click();
  await office.getByText("€20.00 goes back").waitFor();
  await go(office, `${pair.app.url}/customers/${invoice.customer}`);
  await office.getByRole("heading", { name: "Account: has €5.00 with us" }).waitFor();
});

it("an invoice that was wrong is credited whole and invoiced anew; what had paid it pays the new one", async () => {
  const { office } = pair;
  const invoice = owing(0);
  await show(invoice.id);
  await sheet().getByLabel("Amount").fill("12.00");
  await sheet().getByRole("button", { name: "Record payment" }).click();
  await expectSoon(office, () => open(invoice.id) === invoice.open - 1200);
  await sheet().getByRole("button", { name: "Credit note…" }).click();
  await sheet()
    .getByText(/€12\.00 that had paid it are .*’s again/)
    .waitFor();
  await reason("Wrong service");
  await sheet().getByRole("button", { name: "Issue the credit note" }).click();
  await sheet().getByText("credited", { exact: true }).waitFor();
  await sheet().getByRole("button", { name: "Invoice the work anew" }).click();
  await expectSoon(office, () => Number(new URL(office.url()).searchParams.get("id")) !== invoice.id);
  const anew = Number(new URL(office.url()).searchParams.get("id"));
  expect([open(invoice.id), open(anew)]).toEqual([0, invoice.open - 1200]);
});

it("a payment that was somebody else's is taken back, and an invoice nobody will pay is written off", async () => {
  const { office } = pair;
  const invoice = owing(0);
  await show(invoice.id);
  await sheet().getByRole("combobox", { name: "How" }).click();
  await office.getByRole("option", { name: "cheque" }).click();
  await sheet().getByLabel("Number of the cheque").fill("000451");
  await sheet().getByRole("button", { name: "Record payment" }).click();
  await expectSoon(office, () => open(invoice.id) === 0);
  await sheet()
    .getByText(/by cheque \(000451\)/)
    .waitFor();
  await sheet().getByRole("button", { name: "It was a mistake…" }).click();
  await reason("The cheque was another customer’s");
  await sheet().getByRole("button", { name: "Take it back" }).click();
  await expectSoon(office, () => open(invoice.id) === invoice.open);
  await sheet().getByRole("button", { name: "Write off…" }).click();
  await reason("Moved away, no address");
  await sheet().getByRole("button", { name: "Write it off" }).click();
  await sheet().getByText("written off", { exact: true }).waitFor();
  await go(office, `${pair.app.url}/money`);
  await office.getByText("✓ the books balance, to the cent").waitFor();
});

it("all that a customer owes is paid by one transfer, from their page", async () => {
  const { office, app } = pair;
  const [customer] = app.sql<{ id: number; n: number; minor: number }>(
    `SELECT customer_id AS id, count(*) AS n, sum(open_minor) AS minor
      FROM invoice_balances WHERE open_minor > 0 GROUP BY customer_id ORDER BY n DESC, customer_id LIMIT 1`,
  );
  await go(office, `${app.url}/customers/${customer!.id}`);
  await office.getByRole("button", { name: "Record payment…" }).click();
  await office.getByRole("button", { name: "Record payment", exact: true }).click();
  await office.getByText(/ is recorded$/).waitFor();
  expect(app.sql("SELECT 1 FROM invoice_balances WHERE customer_id = ? AND open_minor > 0", customer!.id)).toHaveLength(
    0,
  );
});

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

const idsIn = (checklist: string) => (JSON.parse(checklist) as { id: string }[]).map(({ id }) => id);

/** Everybody who is expected on a day has been there and is done. */
async function workThrough(date: string, only: readonly number[] | null = null): Promise<void> {
  const { app } = pair;
  await moveToMorningOf(pair, date);
  const odile = await as(app.url, "odile");
  const visits = app.sql<{ id: number; customer: number; checklist: string }>(
    `SELECT v.id, v.checklist, j.customer_id AS customer FROM visits v JOIN jobs j ON j.id = v.job_id
      WHERE v.date = ? AND v.state = 'promised' AND j.state = 'agreed' AND j.approval = 'given' AND v.first_visit_id IS NULL`,
    date,
  );
  for (const { id, customer, checklist } of visits)
    if (only === null || only.includes(customer))
      for (const to of ["on site", "done"]) {
        const step = await post(
          `${app.url}/api/operations/advance-visit`,
          { visitId: id, to, ticked: idsIn(checklist) },
          odile,
        );
        expect(step.problem).toBeUndefined();
      }
}
/** The days on which most is expected. */
const busyDays = () =>
  pair.app
    .sql<{ date: string }>(
      "SELECT date FROM visits WHERE state = 'promised' AND date > (SELECT max(date) FROM visits WHERE state = 'done') GROUP BY date HAVING count(*) > 9 ORDER BY date",
    )
    .map(({ date }) => date);

it("forty invoices are looked over, each as it would be, and made at once", async () => {
  const { office, app } = pair;
  const odile = await as(app.url, "odile");
  const { value } = await post<{ business: { billing: object } }>(`${app.url}/api/views/setup`, {}, odile);
  const byHand = { ...value.business, billing: { ...value.business.billing, by: "hand" } };
  expect(await post(`${app.url}/api/operations/save-business`, byHand, odile)).toMatchObject({ ok: true });
  for (const date of busyDays().slice(0, 3)) await workThrough(date);
  await go(office, `${app.url}/money?list=to-bill`);
  const makeAll = office.getByRole("button", { name: /^Make \d+ invoices/ });
  const n = Number(/\d+/.exec(await makeAll.innerText())![0]);
  expect(n).toBeGreaterThanOrEqual(40);
  await office
    .getByRole("button", { name: /1 line, since/ })
    .first()
    .click();
  await office.getByRole("button", { name: "Make this invoice" }).first().waitFor();
  const before = app.sql("SELECT 1 FROM invoices").length;
  await makeAll.click();
  await office.getByText(`${n} invoices made`).waitFor();
  expect(app.sql("SELECT 1 FROM invoices").length - before).toBe(n);
  expect(app.sql("SELECT 1 FROM jobs WHERE to_bill IS NOT NULL")).toEqual([]);
});

it("a landlord’s month is one invoice, made by itself when the month is over, due at its end and ten days", async () => {
  const { office, app } = pair;
  const [day] = busyDays();
  const [landlord] = app.sql<{ id: number; name: string }>(
    `SELECT c.id, c.name FROM customers c JOIN jobs j ON j.customer_id = c.id JOIN visits v ON v.job_id = j.id
      WHERE v.date = ? AND v.state = 'promised' AND j.state = 'agreed' AND j.approval = 'given' ORDER BY c.id LIMIT 1`,
    day,
  );
  await go(office, `${app.url}/customers/${landlord!.id}`);
  await office.getByRole("button", { name: "Change", exact: true }).first().click();
  await office.getByRole("combobox", { name: "Billed" }).click();
  await office.getByRole("option", { name: /month/ }).click();
  await office.getByRole("button", { name: "Save", exact: true }).first().click();
  await expectSoon(
    office,
    () => app.sql<{ by: string }>("SELECT billing AS by FROM customers WHERE id = ?", landlord!.id)[0]!.by === "month",
  );
  await workThrough(day!, [landlord!.id]);
  const invoices = () =>
    app.sql<{ id: number; due: string }>(
      "SELECT id, due_date AS due FROM invoices WHERE customer_id = ? ORDER BY id DESC",
      landlord!.id,
    );
  const before = invoices().length;
  const next = new Date(Date.UTC(Number(day!.slice(0, 4)), Number(day!.slice(5, 7)), 1)).toISOString().slice(0, 10);
  await moveToMorningOf(pair, next);
  await expectSoon(office, () => invoices().length > before, 1200);
  expect(invoices().length).toBe(before + 1);
});

it("every law of the data holds after all that, on the screen and on the command line", async () => {
  await go(pair.office, `${pair.app.url}/money`);
  await pair.office.getByRole("button", { name: "Check every row" }).click();
  await pair.office.getByText(/^All \d+ laws of the data hold$/).waitFor();
  const said = execFileSync("node", ["bin/hogar.mjs", "check"], {
    env: { ...process.env, HOGAR_DATA: pair.app.folder },
    encoding: "utf8",
  });
  expect(said).toMatch(/^\d+ laws hold/);
});
