import { findings } from "./support/axe";
import { dayAfter, frames, owedIn } from "./support/collection";
import { as, linkOf, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** What is due comes in by itself: the customers on a phone, the owner at a desk, and the demo's clock. */
jest.setTimeout(600_000);

const pair = pairForTests();

const { openOn, dueAhead, somebody, invoiceOf, openInvoice } = owedIn(pair);

it("is told the day before, and charged on the day; somebody objects, somebody promises, and the report says so", async () => {
  const { app, door, office } = pair;
  const due = dueAhead();
  const invoices: number[] = [];
  for (const i of [0, 1, 2]) invoices.push(await invoiceOf(somebody(i).id, 5_000 + i * 100, due));
  const [objected, promised, paid] = invoices as [number, number, number];

  await go(office, `${app.url}/money?list=collection`);
  await office
    .getByRole("region", { name: "Coming runs" })
    .getByText(/invoices?, €/)
    .first()
    .waitFor();
  expect(await findings(office)).toEqual([]);

  await moveToMorningOf(pair, dayAfter(due, -1), "09:05");
  const told = () =>
    app.sql(
      "SELECT 1 FROM messages WHERE channel = 'mail' AND state = 'sent' AND occasion LIKE 'charge tomorrow invoice %' AND invoice_id IN (SELECT value FROM json_each(?))",
      JSON.stringify(invoices),
    ).length;
  await expectSoon(office, () => told() === 3, frames);
  await openInvoice(objected);
  await door.getByText(/€50\.00 is charged to your card ending 1006/).waitFor();
  expect(await findings(door)).toEqual([]);
  await door.getByRole("button", { name: "Not this time" }).click();
  await door.getByText(/is charged to your card/).waitFor({ state: "detached" });
  await openInvoice(promised);
  await door.getByRole("button", { name: "I pay on another day" }).click();
  await door.getByRole("button", { name: "Promise it" }).click();
  await door.getByText(/^You pay on /).waitFor();

  await moveToMorningOf(pair, due, "09:05");
  await expectSoon(office, () => openOn(paid) === 0, frames);
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

it("a visit that its customer moves takes along what it will bring", async () => {
  const { app, door, office } = pair;
  const expectedNow = async () => {
    const view = await post<{ expected: { visits: { jobId: number; visitOn: string }[] }[] }>(
      `${app.url}/api/views/collection`,
      {},
      await as(app.url, "odile"),
    );
    return view.value.expected.flatMap(({ visits }) => visits);
  };
  const [visit] = await expectedNow();
  const promisedOn = () =>
    app.sql<{ date: string }>("SELECT date FROM visits WHERE job_id = ? AND state = 'promised'", visit!.jobId)[0]!.date;
  await go(office, `${app.url}/money?list=collection`);
  await office
    .getByRole("group", { name: "Calendar of coming runs" })
    .getByRole("link", { name: /to come, €/ })
    .first()
    .waitFor();
  await go(door, await linkOf(app.url, visit!.jobId));
  await door.getByRole("button", { name: "Move", exact: true }).click();
  await door.getByRole("button", { name: "Later days" }).click();
  await door
    .getByRole("group", { name: /day \d/ })
    .last()
    .getByRole("button")
    .last()
    .click();
  await door.getByRole("button", { name: /^Move to/ }).click();
  await expectSoon(door, () => promisedOn() !== visit!.visitOn, frames);
  const shown = (await expectedNow()).find(({ jobId }) => jobId === visit!.jobId);
  expect(shown?.visitOn).toBe(promisedOn());
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
    .getByText(/^€.* is in the bank$/)
    .first()
    .waitFor();
  expect(inTheBank()).toBe(before + 1);
});
