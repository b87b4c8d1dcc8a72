import { pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** Repeats by the dozen, and work that has a name. */
jest.setTimeout(600_000);

const pair = pairForTests();
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
const one = () =>
  pair.app.sql<{ id: number }>(
    "SELECT id FROM repeats WHERE rule = 'FREQ=WEEKLY;INTERVAL=4' AND state = 'active' ORDER BY id LIMIT 1",
  )[0]!.id;

it("many are changed at once: what it does is shown, half of it is taken, and all of that is taken back", async () => {
  const technicians = () =>
    pair.app
      .sql<{ technician_id: number | null }>("SELECT technician_id FROM repeats WHERE state = 'active' ORDER BY id")
      .map((repeat) => repeat.technician_id);
  const freed = () => technicians().filter((id) => id === null).length;
  const before = technicians();
  const free = freed();
  await go(pair.office, `${pair.app.url}/repeats`);
  await pair.office.getByRole("button", { name: "Change many…" }).click();
  const dialog = pair.office.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "Technician" }).click();
  await pair.office.getByRole("option", { name: "whoever is best" }).click();
  await dialog.getByRole("button", { name: "Show what it does" }).click();
  await dialog.getByText(/\d+ of \d+ are changed/).waitFor();
  const taken = dialog.getByRole("checkbox", { checked: true });
  const n = await taken.count();
  expect(n).toBeGreaterThan(1);
  await taken.first().click();
  await dialog.getByRole("button", { name: `Do this for ${n - 1}` }).click();
  await pair.office.getByText(new RegExp(`^${n - 1} repeats? (is|are) changed`)).waitFor();
  expect(freed()).toBeGreaterThan(free);
  // Also after the page was left: what was changed together is taken back together.
  await go(pair.office, `${pair.app.url}/repeats`);
  await pair.office.getByRole("button", { name: "Change many…" }).click();
  await pair.office.getByRole("dialog").getByRole("button", { name: "Take it back" }).click();
  await expectSoon(pair.office, () => technicians().join() === before.join());
});

it("a piece of work gets a name in set-up, is booked on the phone by it, and comes back every so many times", async () => {
  const { office, app } = pair;
  await go(office, `${app.url}/setup/job-patterns?id=new`);
  await office.getByRole("textbox", { name: "Name", exact: true }).fill("Sweep with two flues");
  await office.getByRole("combobox", { name: "Service" }).click();
  await office.getByRole("option", { name: "Chimney sweep" }).click();
  await office.getByRole("button", { name: "More: How many flues?" }).click();
  await office.getByLabel("Minutes at the place").fill("70");
  await office.getByLabel("What the technician is told").fill("Take the long rods.");
  await office.getByRole("button", { name: "Item", exact: true }).click();
  await office.getByRole("textbox", { name: "Item 1" }).fill("Second flue looked at");
  await office.getByRole("button", { name: "Save" }).click();
  await office.waitForURL(/job-patterns\?id=\d+/);
  const patternId = Number(new URL(office.url()).searchParams.get("id"));

  await go(office, `${app.url}/why-not?address=a700`);
  await office.getByRole("combobox", { name: "Service" }).click();
  await office.getByRole("option", { name: "Sweep with two flues" }).click();
  await office.getByText(/takes 1 h/).waitFor();
  await office
    .getByRole("button", { name: /offered/ })
    .filter({ hasNotText: "not offered" })
    .first()
    .click();
  await office.getByRole("textbox", { name: "Name", exact: true }).fill("Runa Elstad");
  await office.getByLabel("Email").fill("runa@example.com");
  await office.getByLabel("Phone").fill("+1 555 0177");
  await office.getByRole("button", { name: "Book it and tell them" }).click();
  await office.waitForURL(/\/board\?date=.*visit=/);
  await sheet().getByText("Take the long rods.").waitFor();
  const visitId = Number(new URL(office.url()).searchParams.get("visit"));
  expect(app.sql("SELECT minutes, checklist LIKE '%Second flue%' AS listed FROM visits WHERE id = ?", visitId)).toEqual(
    [{ minutes: 70, listed: 1 }],
  );

  const id = one();
  await go(office, `${app.url}/repeats?open=${id}`);
  await sheet().getByRole("button", { name: "Work…" }).click();
  await sheet().getByRole("combobox", { name: "Every so many times" }).click();
  await office.getByRole("option", { name: "Sweep with two flues" }).click();
  await sheet().getByLabel("Every so many", { exact: true }).fill("3");
  await sheet().getByRole("button", { name: "Do this" }).click();
  await sheet()
    .getByText(/every 3rd Sweep with two flues/)
    .first()
    .waitFor();
  const big = () =>
    app.sql<{ n: number }>(
      "SELECT count(*) AS n FROM visits WHERE repeat_id = ? AND state = 'forecast' AND minutes = 70",
      id,
    )[0]!.n;
  await expectSoon(office, () => big() >= 3);
  expect(app.sql("SELECT 1 FROM repeats WHERE id = ? AND nth_pattern_id = ?", id, patternId)).toHaveLength(1);
});
