import { chooseAt, keepWindow } from "./support/door";
import { pairForTests } from "./support/pair";
import { expectSoon, go, mailedLink } from "./support/server";

/** Work that is done at our own place, as a customer far away and the office meet it. */
jest.setTimeout(600_000);

const pair = pairForTests();
const beyond = () =>
  pair.app
    .sql<{ line: string }>("SELECT address AS line FROM requests WHERE name = 'Ottilie Fenn'")[0]!
    .line.split(",")[0]!;

async function book(service: RegExp, name: string) {
  await chooseAt(pair.door, pair.app.url, beyond(), service);
  await keepWindow(pair.door);
  await pair.door.getByLabel("Name", { exact: true }).fill(name);
  await pair.door.getByLabel("Email", { exact: true }).fill(`${name.split(" ")[0]!.toLowerCase()}.place@example.com`);
  await pair.door.getByLabel("Phone").fill("+1 555 0147");
  await pair.door.getByRole("button", { name: "Go on" }).click();
  await pair.door.getByRole("button", { name: /^Book/ }).click();
}
const visitOf = (name: string) =>
  pair.app.sql<{ id: number; date: string; work_place: string; driving: number }>(
    `SELECT v.id, v.date, v.work_place, p.driving FROM jobs j JOIN visits v ON v.job_id = j.id
      JOIN placements p ON p.visit_id = v.id WHERE j.name = ?`,
    name,
  )[0];

it("somebody outside all zones books what is done at our place, and is expected there", async () => {
  await go(pair.door, `${pair.app.url}/book`);
  await book(/Stove glass cut.*At our place/s, "Berenice Place");
  await pair.door.waitForURL(/\/my\//);
  const link = await mailedLink(pair.office, pair.app.url, /Stove glass cut.*berenice/s, "my");
  await go(pair.door, link);
  await pair.door.getByText(/^At our place, .*MW \d+/).waitFor();
  const visit = visitOf("Berenice Place")!;
  expect(visit.work_place).toBe("ours");
  await go(pair.office, `${pair.app.url}/board?date=${visit.date}&visit=${visit.id}`);
  await pair.office
    .getByRole("complementary", { name: "Details" })
    .getByText("At our place", { exact: true })
    .waitFor();
});

it("the owner says where a service is done", async () => {
  const [{ id }] = pair.app.sql<{ id: number }>("SELECT id FROM services WHERE code = 'SD'") as [{ id: number }];
  await go(pair.office, `${pair.app.url}/setup/services?id=${id}`);
  await pair.office.getByRole("combobox", { name: "Where it is done" }).click();
  await pair.office.getByRole("option", { name: "At our place" }).click();
  await pair.office.getByText("whoever is out has to be back by then").waitFor();
  await pair.office.getByRole("button", { name: "Save" }).first().click();
  await expectSoon(
    pair.office,
    () =>
      pair.app.sql<{ place: string }>("SELECT work_place AS place FROM services WHERE id = ?", id)[0]!.place === "ours",
  );
});
