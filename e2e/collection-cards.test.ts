import { findings } from "./support/axe";
import { payWith } from "./support/door";
import { dayAfter, frames, owedIn } from "./support/collection";
import { as, linkOf, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** Collection where a card says no, a bank asks, or a promise is not kept. */
jest.setTimeout(600_000);

const pair = pairForTests();

const { openOn, dueAhead, somebody, invoiceOf, openInvoice } = owedIn(pair);

/** The customer leaves another card by their own page, and puts it first. */
async function leaveFirst({ jobId }: { jobId: number }, number: string): Promise<void> {
  const { app, door } = pair;
  await go(door, await linkOf(app.url, jobId));
  const cards = door.getByRole("region", { name: "Your cards" });
  await cards.getByRole("button", { name: "Add another card" }).click();
  await payWith(door, number);
  await cards.getByRole("button", { name: "Keep this card" }).click();
  const added = cards.getByRole("group", { name: `card ending ${number.slice(-4)}` });
  await expectSoon(door, async () => (await added.count()) > 0 || (await door.reload(), false), 20);
  await added.getByRole("button", { name: "Use this first" }).click();
  await added.getByText("first").waitFor();
  await added.getByRole("button", { name: "Remove", disabled: false }).waitFor();
}

/** The evening before and the morning of a run. */
async function throughTheRun(due: string, invoiceId: number): Promise<void> {
  await moveToMorningOf(pair, dayAfter(due, -1), "09:05");
  const told = () =>
    pair.app.sql(
      "SELECT 1 FROM messages WHERE state = 'sent' AND invoice_id = ? AND occasion LIKE 'charge tomorrow %'",
      invoiceId,
    ).length > 0;
  await expectSoon(pair.office, told, frames);
  await moveToMorningOf(pair, due, "09:05");
}

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

  await moveToMorningOf(pair, dayAfter(due, 1), "09:05");
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
    `${dayAfter(due, 1)};${(minor / 100).toFixed(2)};CARD SERVICE;${reference}`,
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
  expect(payout()!.arrived).toBe(dayAfter(due, 1));
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
  const until = dayAfter(due, 1);
  const promise = { invoiceId, day: until };
  expect(
    (await post(`${app.url}/api/operations/record-promise`, promise, await as(app.url, "odile"))).problem,
  ).toBeUndefined();
  // They have taken their cards away meanwhile: nothing is left to be charged by itself.
  await go(door, await linkOf(app.url, customer.jobId));
  await door.getByRole("button", { name: "Remove" }).click();
  await door.getByText("We keep none.").waitFor();
  await moveToMorningOf(pair, dayAfter(until, 1), "09:05");
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
