import { findings } from "./support/axe";
import { payWith } from "./support/door";
import { as, linkOf, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** What is due comes in by itself: the customers on a phone, the owner at a desk, and the demo's clock. */
jest.setTimeout(600_000);

const pair = pairForTests();

const day = (date: string, n: number) => new Date(Date.parse(date) + n * 86_400_000).toISOString().slice(0, 10);
const isWorkday = (date: string) => ![0, 6].includes(new Date(date).getUTCDay());
const openOn = (invoiceId: number) =>
  pair.app.sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId)[0]!.n;
/** So long it may take until the worker has told, charged and followed. */
const frames = 2_400;

/** The demo's own today, and a workday some days ahead of it. */
function dueAhead(): string {
  const [{ now }] = pair.app.sql<{ now: number }>("SELECT demo_offset_ms AS now FROM business") as [{ now: number }];
  const today = new Date(Date.now() + now).toISOString().slice(0, 10);
  return [3, 4, 5].map((n) => day(today, n)).find(isWorkday)!;
}

/** Somebody with a card that pays, who has agreed that it is charged by itself. */
const somebody = (nth: number) =>
  pair.app.sql<{ id: number; jobId: number; name: string }>(
    `SELECT c.id, k.job_id AS jobId, c.name FROM cards k JOIN customers c ON c.id = k.customer_id
      WHERE k.collects = 1 AND k.removed_at IS NULL AND k.label LIKE '%1006' AND c.mail <> '' ORDER BY c.id`,
  )[nth]!;

/** An invoice made by the office. */
async function invoiceOf(customerId: number, unitMinor: number, dueDate: string): Promise<number> {
  const line = { description: "Stove rope", quantity: 1, unitMinor, taxBp: 2_100, discountBp: 0 };
  const form = {
    customerId,
    lines: [line],
    discountBp: 0,
    before: "",
    after: "",
    dueDate,
    key: `due ${customerId} ${unitMinor}`,
  };
  const made = await post<{ invoiceId: number }>(
    `${pair.app.url}/api/operations/make-invoice`,
    form,
    await as(pair.app.url, "odile"),
  );
  expect(made.problem).toBeUndefined();
  return made.value.invoiceId;
}

/** The page that the link of an invoice opens. */
async function openInvoice(invoiceId: number): Promise<void> {
  const { url } = pair.app;
  const link = await post<{ address: string }>(
    `${url}/api/operations/copy-invoice-link`,
    { invoiceId },
    await as(url, "odile"),
  );
  await go(pair.door, url + new URL(link.value.address).pathname);
}

/** The customer leaves another card by their own page, and puts it first. */
async function leaveFirst({ jobId }: { jobId: number }, number: string): Promise<void> {
  const { app, door } = pair;
  await go(door, await linkOf(app.url, jobId));
  const cards = door.getByRole("region", { name: "Your cards" });
  await cards.getByRole("button", { name: "Leave another card" }).click();
  await payWith(door, number);
  await cards.getByRole("button", { name: "Keep this card" }).click();
  const added = cards.getByRole("group", { name: `card ending ${number.slice(-4)}` });
  await expectSoon(door, async () => (await added.count()) > 0 || (await door.reload(), false), 20);
  await added.getByRole("button", { name: "Use first" }).click();
  await added.getByText("first").waitFor();
  await added.getByRole("button", { name: "Take it away", disabled: false }).waitFor();
}

/** The evening before and the morning of a run. */
async function throughTheRun(due: string, invoiceId: number): Promise<void> {
  await moveToMorningOf(pair, day(due, -1), "09:05");
  const told = () =>
    pair.app.sql(
      "SELECT 1 FROM messages WHERE state = 'sent' AND invoice_id = ? AND occasion LIKE 'charge tomorrow %'",
      invoiceId,
    ).length > 0;
  await expectSoon(pair.office, told, frames);
  await moveToMorningOf(pair, due, "09:05");
}

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

  await moveToMorningOf(pair, day(due, -1), "09:05");
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

it("the first card is declined, the second pays; it is paid out, and the line of the bank is matched by a key", async () => {
  const { app, door, office } = pair;
  const customer = somebody(3);
  await leaveFirst(customer, "9900 0000 0000 2004");
  expect(await findings(door)).toEqual([]);
  const due = dueAhead();
  const invoiceId = await invoiceOf(customer.id, 6_300, due);
  await throughTheRun(due, invoiceId);
  await expectSoon(office, () => openOn(invoiceId) === 0, frames);
  await go(office, `${app.url}/money?list=collection`);
  await office.getByRole("region", { name: "Runs that were" }).getByRole("button").first().click();
  await office
    .getByText(/the card ending 2004 was declined/)
    .first()
    .waitFor();
  await openInvoice(invoiceId);
  await door.getByText("Nothing is open: thank you.").waitFor();

  await moveToMorningOf(pair, day(due, 1), "09:05");
  const payout = () =>
    app.sql<{ id: number; reference: string; minor: number; arrived: string | null }>(
      `SELECT o.id, o.reference, o.amount_minor AS minor, o.arrived_on AS arrived
        FROM payouts o JOIN payout_items i ON i.payout_id = o.id JOIN payments p ON p.id = i.payment_id WHERE p.invoice_id = ?`,
      invoiceId,
    )[0];
  await expectSoon(office, () => payout() !== undefined, frames);
  const { reference, minor } = payout()!;
  const lines = [
    "Date;Amount;Name;Text",
    `${day(due, 1)};${(minor / 100).toFixed(2)};CARD SERVICE;${reference}`,
    `${due};-4.50;The Bank;Fees`,
  ];
  await go(office, `${app.url}/money?list=bank`);
  const read = await office.getByRole("link", { name: "Read a bank file" }).getAttribute("href");
  await go(office, app.url + read!);
  await office
    .getByLabel("File to import")
    .setInputFiles({ name: "bank.csv", mimeType: "text/csv", buffer: Buffer.from(lines.join("\n")) });
  await office.getByRole("button", { name: "Look over all 2 rows" }).click();
  await office.getByRole("button", { name: "Import 2 rows" }).click();
  await office.getByText("2 rows are imported.").waitFor();
  await go(office, `${app.url}/money?list=bank`);
  await office.getByLabel("Search lines").fill(reference);
  await office.getByRole("button", { name: `1. Payout ${reference}` }).waitFor();
  expect(await findings(office)).toEqual([]);
  await office.getByRole("group", { name: "Lines of the bank" }).press("Enter");
  await office.getByText(`Payout ${reference} is in the bank`).waitFor();
  expect(payout()!.arrived).toBe(day(due, 1));
});

it("is paid in parts, and a bank that asks the customer is answered by link", async () => {
  const { app, door, office } = pair;
  const customer = somebody(4);
  await leaveFirst(customer, "9900 0000 0000 3002");
  const due = dueAhead();
  const invoiceId = await invoiceOf(customer.id, 8_000, due);
  await go(office, `${app.url}/money?list=invoices&show=all&id=${invoiceId}`);
  const sheet = office.getByRole("complementary", { name: "Details" });
  await sheet.getByRole("button", { name: "Split it into parts…" }).click();
  await sheet.getByLabel("How many parts").fill("2");
  await sheet.getByRole("button", { name: "Split it", exact: true }).click();
  await sheet.getByText("€40.00, part 2 of 2").waitFor();
  await throughTheRun(due, invoiceId);
  await expectSoon(
    office,
    () => app.sql("SELECT 1 FROM payments WHERE invoice_id = ? AND state = 'second step'", invoiceId).length > 0,
    frames,
  );
  await openInvoice(invoiceId);
  await door.getByRole("link", { name: "Confirm with your bank" }).click();
  await door.getByText(/Do you agree to pay €40\.00/).waitFor();
  // A press before the page answers is lost.
  await door.locator("html[data-ready]").waitFor({ state: "attached" });
  await door.getByRole("button", { name: "Yes, I agree" }).click();
  await door.waitForURL(/\/invoice\//);
  await expectSoon(door, () => openOn(invoiceId) === 4_000, frames);
  await openInvoice(invoiceId);
  await door.getByRole("region", { name: "In parts" }).getByText("€40.00").waitFor();
  expect(await findings(door)).toEqual([]);
});

it("a promise that is not kept comes to Today and is phoned about; a dispute is lost, and the invoice is open again", async () => {
  const { app, door, office } = pair;
  const customer = somebody(5);
  const due = dueAhead();
  const invoiceId = await invoiceOf(customer.id, 7_100, due);
  const until = day(due, 1);
  const promise = { invoiceId, day: until };
  expect(
    (await post(`${app.url}/api/operations/record-promise`, promise, await as(app.url, "odile"))).problem,
  ).toBeUndefined();
  // They have taken their cards away meanwhile: nothing is left to be charged by itself.
  await go(door, await linkOf(app.url, customer.jobId));
  await door.getByRole("button", { name: "Take it away" }).click();
  await door.getByText("We keep none.").waitFor();
  await moveToMorningOf(pair, day(until, 1), "09:05");
  await expectSoon(
    office,
    () => app.sql("SELECT 1 FROM pay_promises WHERE invoice_id = ? AND ended = 'broken'", invoiceId).length > 0,
    frames,
  );
  await go(office, `${app.url}/today`);
  await office.getByText(new RegExp(`${customer.name} wanted to pay €71\\.00`)).click();
  const toPhone = office.getByRole("region", { name: "Whom to phone" }).getByRole("group", { name: customer.name });
  await toPhone.getByRole("button", { name: "What they said…" }).click();
  await toPhone.getByLabel("What they said").fill("The cat was ill");
  await toPhone.getByRole("button", { name: "Save" }).click();
  await toPhone.getByText(/“The cat was ill”/).waitFor();

  const [paid] = app.sql<{ reference: string; invoiceId: number }>(
    `SELECT p.gateway_reference AS reference, p.invoice_id AS invoiceId FROM payments p JOIN invoice_balances b ON b.invoice_id = p.invoice_id
      WHERE p.state = 'received' AND p.invoice_id IS NOT NULL AND p.method = 'card' AND b.open_minor = 0 ORDER BY p.id DESC LIMIT 1`,
  );
  await go(door, `${app.url}/standins/charges`);
  const charge = door.getByRole("group", { name: paid!.reference });
  await charge.getByRole("button", { name: "Their bank asks it back" }).click();
  await door.getByText("Their bank asks it back: told").waitFor();
  await go(office, `${app.url}/today`);
  await office.getByText(/^The bank of .* asks €.* back$/).click();
  await office
    .getByRole("region", { name: "Disputes" })
    .getByText(/answer the card service until/)
    .waitFor();
  await charge.getByRole("button", { name: "Decided for the customer" }).click();
  await expectSoon(office, () => openOn(paid!.invoiceId) > 0, frames);
  await office.reload();
  await office
    .getByRole("region", { name: "Disputes" })
    .getByText(/decided for the customer/)
    .waitFor();
});
