import { deskForTests } from "./support/desk";
import { go } from "./support/server";

/** Long lists, and what a screen does when it cannot be read again. */
jest.setTimeout(300_000);

const at = deskForTests("odile");

const names = (order: string, skip: number, count: number) =>
  at.app
    .sql<{ name: string }>(
      `SELECT name FROM customers c WHERE merged_into IS NULL AND archived_at IS NULL ORDER BY ${order} LIMIT ${count} OFFSET ${skip}`,
    )
    .map((c) => c.name);
const cell = (row: number) => at.page.locator(`[role=row][data-rowindex="${row}"] [data-field=name]`);

it("a long list is turned page by page", async () => {
  await go(at.page, `${at.app.url}/customers`);
  const [first, next] = [names("name COLLATE NOCASE, id", 0, 1)[0]!, names("name COLLATE NOCASE, id", 50, 1)[0]!];
  await cell(0).getByText(first, { exact: true }).waitFor();
  await at.page.getByRole("button", { name: "Go to next page" }).click();
  await at.page.locator("[role=row] [data-field=name]").getByText(next, { exact: true }).first().waitFor();
  await at.page.getByText(/^51–100 of \d+$/).waitFor();
});

it("a long list is put in order by its heads, from end to end and not only what is seen", async () => {
  await go(at.page, `${at.app.url}/customers`);
  await at.page.getByRole("columnheader", { name: "Name" }).click();
  await cell(0)
    .getByText(names("name COLLATE NOCASE DESC, id", 0, 1)[0]!, { exact: true })
    .waitFor();
});

it("a long list is searched while one types, and says when nothing is found", async () => {
  await go(at.page, `${at.app.url}/customers`);
  const search = at.page.getByRole("textbox", { name: "Search customers" });
  const last = names("name COLLATE NOCASE DESC, id", 0, 1)[0]!;
  await search.fill(last);
  await cell(0).getByText(last, { exact: true }).waitFor();
  await search.fill("nobody of this name");
  await at.page.getByText("Nothing is found. Try fewer letters.").waitFor();
});

it("what was on the screen stays there when it cannot be read again, and says so", async () => {
  await go(at.page, `${at.app.url}/today`);
  const shown = await at.page.getByRole("heading", { name: /Needs a person/ }).innerText();
  await at.page.route("**/api/views/**", (route) =>
    route.fulfill({
      status: 400,
      contentType: "application/json",
      body: JSON.stringify({ ok: false, problem: { code: "unexpected", sentence: "Something went wrong." } }),
    }),
  );
  const warning = at.page.getByText("This may be out of date. Something went wrong.");
  // Coming back to the tab reads again what is older than some seconds.
  while (!(await warning.isVisible())) {
    await at.page.evaluate(() => window.dispatchEvent(new Event("visibilitychange")));
    await at.page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
  }
  expect(await at.page.getByRole("heading", { name: /Needs a person/ }).innerText()).toBe(shown);
  await at.page.unroute("**/api/views/**");
  while (await warning.isVisible()) {
    await at.page.evaluate(() => window.dispatchEvent(new Event("visibilitychange")));
    await at.page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
  }
});
