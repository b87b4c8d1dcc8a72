import { findings } from "./support/axe";
import { as, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** What is due comes in by itself: the customers on a phone, the owner at a desk, and the demo's clock. */
jest.setTimeout(600_000);

const pair = pairForTests();

const day = (date: string, n: number) => new Date(Date.parse(date) + n * 86_400_000).toISOString().slice(0, 10);
const isWorkday = (date: string) => ![0, 6].includes(new Date(date).getUTCDay());
const openOn = (invoiceId: number) =>
  pair.app.sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId)[0]!.n;

it("is told the day before, and charged on the day; somebody objects, somebody promises, and the report says so", async () => {
  const { app, door, office } = pair;
  const odile = await as(app.url, "odile");
  const customers = app.sql<{ id: number }>(
    `SELECT customer_id AS id FROM cards k JOIN customers c ON c.id = k.customer_id
      WHERE k.collects = 1 AND k.removed_at IS NULL AND k.label LIKE '%1006' AND c.mail <> '' ORDER BY c.id LIMIT 3`,
  );
  expect(customers).toHaveLength(3);
  const [{ now }] = app.sql<{ now: number }>("SELECT demo_offset_ms AS now FROM business") as [{ now: number }];
  const today = new Date(Date.now() + now).toISOString().slice(0, 10);
  const due = [3, 4, 5].map((n) => day(today, n)).find((date) => isWorkday(date))!;
  const invoices: number[] = [];
  for (const [i, { id }] of customers.entries()) {
    const line = { description: "Stove rope", quantity: 1, unitMinor: 5_000 + i * 100, taxBp: 2_100, discountBp: 0 };
    const form = {
      customerId: id,
      lines: [line],
      discountBp: 0,
      before: "",
      after: "",
      dueDate: due,
      key: `collected ${i}`,
    };
    const made = await post<{ invoiceId: number }>(`${app.url}/api/operations/make-invoice`, form, odile);
    expect(made.problem).toBeUndefined();
    invoices.push(made.value.invoiceId);
  }
  const [objected, promised, paid] = invoices as [number, number, number];

  await go(office, `${app.url}/money?list=collection`);
  await office
    .getByRole("region", { name: "Coming runs" })
    .getByText(/invoices?, €/)
    .first()
    .waitFor();
  expect(await findings(office)).toEqual([]);

  await moveToMorningOf(pair, day(due, -1), "09:05");
  const told = () =>
    app.sql(
      "SELECT 1 FROM messages WHERE channel = 'mail' AND state = 'sent' AND occasion LIKE 'charge tomorrow invoice %' AND invoice_id IN (SELECT value FROM json_each(?))",
      JSON.stringify(invoices),
    ).length;
  await expectSoon(office, () => told() === 3, 900);
  const pageOf = async (invoiceId: number) => {
    const link = await post<{ address: string }>(`${app.url}/api/operations/copy-invoice-link`, { invoiceId }, odile);
    await go(door, app.url + new URL(link.value.address).pathname);
  };
  await pageOf(objected);
  await door.getByText(/€50\.00 is charged to your card ending 1006/).waitFor();
  expect(await findings(door)).toEqual([]);
  await door.getByRole("button", { name: "Not this time" }).click();
  await door.getByText(/is charged to your card/).waitFor({ state: "detached" });
  await pageOf(promised);
  await door.getByRole("button", { name: "I pay on another day" }).click();
  await door.getByRole("button", { name: "Promise it" }).click();
  await door.getByText(/^You pay on /).waitFor();

  await moveToMorningOf(pair, due, "09:05");
  await expectSoon(office, () => openOn(paid) === 0, 900);
  expect([openOn(objected), openOn(promised)]).toEqual([5_000, 5_100]);
  await go(office, `${app.url}/money?list=collection`);
  await office.getByRole("region", { name: "Runs that were" }).getByRole("button").first().click();
  await office.getByText(/left out: they objected/).waitFor();
  await office.getByText(/left out: they promised to pay on/).waitFor();
  await office
    .getByText(/paid by the card ending 1006/)
    .first()
    .waitFor();
});

it("what the card service has paid out is on the way until it is in the bank", async () => {
  const { app, office } = pair;
  await go(office, `${app.url}/money?list=payouts`);
  await office.getByRole("gridcell", { name: "on the way" }).first().click();
  const inTheBank = () => app.sql("SELECT 1 FROM payouts WHERE arrived_on IS NOT NULL").length;
  const before = inTheBank();
  const sheet = office.getByRole("complementary", { name: "Details" });
  await sheet.getByText(/of fees/).waitFor();
  expect(await findings(office)).toEqual([]);
  await sheet.getByRole("button", { name: "It is in the bank" }).click();
  await office
    .getByText(/ is in the bank$/)
    .first()
    .waitFor();
  expect(inTheBank()).toBe(before + 1);
});
