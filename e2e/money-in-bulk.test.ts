import { execFileSync } from "node:child_process";
import { as, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** Many invoices at once, months on one invoice, and the laws of all that. */
jest.setTimeout(600_000);

const pair = pairForTests();

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
