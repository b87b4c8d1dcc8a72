import { pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

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
