import { chooseAt, keepWindow } from "./support/door";
import { pairForTests } from "./support/pair";
import { expectSoon, go, mailAbout, mailedLink } from "./support/server";

/** Work that is done at our own place or by phone, alone or together, as customers far away and the office meet it. */
jest.setTimeout(600_000);

const pair = pairForTests();
const beyond = () =>
  pair.app
    .sql<{ line: string }>("SELECT address AS line FROM requests WHERE name = 'Ottilie Fenn'")[0]!
    .line.split(",")[0]!;

async function book(service: RegExp, name: string) {
  await chooseAt(pair.door, pair.app.url, beyond(), service);
  await keepWindow(pair.door);
  await who(name);
}
async function who(name: string) {
  await pair.door.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await pair.door
    .getByRole("textbox", { name: "Email", exact: true })
    .fill(`${name.split(" ")[0]!.toLowerCase()}.place@example.com`);
  await pair.door.getByLabel("Phone").fill("+1 555 0147");
  await pair.door.getByRole("button", { name: "Continue" }).click();
  await pair.door.getByRole("button", { name: /^Book/ }).click();
  await pair.door.waitForURL(/\/my\//);
}
const comes = (name: string) =>
  pair.app.sql<{ id: number; date: string; total: number }>(
    `SELECT v.id, v.date, j.total_minor AS total FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.name = ?`,
    name,
  )[0];
const visitOf = (name: string) =>
  pair.app.sql<{ id: number; date: string; work_place: string; driving: number }>(
    `SELECT v.id, v.date, v.work_place, p.driving FROM jobs j JOIN visits v ON v.job_id = j.id
      JOIN placements p ON p.visit_id = v.id WHERE j.name = ?`,
    name,
  )[0];

it("somebody outside all zones books what is done at our place, and is expected there", async () => {
  await go(pair.door, `${pair.app.url}/book`);
  await book(/Stove glass cut.*At our place/s, "Berenice Place");
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

it("a call is booked from anywhere, and nobody drives for it", async () => {
  await book(/Advice call.*By phone/s, "Casimir Call");
  expect(visitOf("Casimir Call")).toMatchObject({ work_place: "afar", driving: 0 });
  expect(await mailAbout(pair.office, pair.app.url, /Advice call.*casimir/s)).toMatch(
    /we will call you on|we have your booking/i,
  );
});

it("a lesson with eight seats is booked by three customers until it is full, and the office reads who comes", async () => {
  const seatsOf = (name: string) => pair.door.getByRole("group", { name }).getByRole("button", { name: /^More/ });
  const lesson = async (name: string, seats: number) => {
    await chooseAt(pair.door, pair.app.url, beyond(), /Lighting lesson.*with up to 8 people/s);
    for (let more = 1; more < seats; more++) await seatsOf("How many of Lighting lesson").click();
    await pair.door.getByRole("button", { name: "Choose a time" }).click();
    await pair.door.getByRole("button", { name: new RegExp(`^${day}`) }).click();
    await pair.door.getByRole("button", { name: /^Choose \w+day/ }).click();
    await who(name);
  };
  // A day on which nobody has booked yet.
  await chooseAt(pair.door, pair.app.url, beyond(), /Lighting lesson/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  const free = pair.door.getByRole("button", { name: /8 seats left$/ }).first();
  const day = (await free.getAttribute("aria-label"))!.split(",")[0]!;
  for (const [name, seats] of [
    ["Ottoline Seat", 3],
    ["Percy Seat", 3],
    ["Quentin Seat", 2],
  ] as const)
    await lesson(name, seats);
  await chooseAt(pair.door, pair.app.url, beyond(), /Lighting lesson/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  await pair.door
    .getByRole("button", { name: /seats left$/ })
    .first()
    .waitFor();
  expect(await pair.door.getByRole("button", { name: new RegExp(`^${day}`) }).count()).toBe(0);
  const { id, date } = comes("Percy Seat")!;
  expect(["Ottoline Seat", "Percy Seat", "Quentin Seat"].map((name) => comes(name)!.total)).toEqual([5400, 5400, 3600]);
  await go(pair.office, `${pair.app.url}/board?date=${date}`);
  await pair.office.getByRole("button", { name: /^3 customers, 8 seats, Lighting lesson/ }).waitFor();
  await go(pair.office, `${pair.app.url}/board?date=${date}&visit=${id}`);
  const sheet = pair.office.getByRole("complementary", { name: "Details" });
  await sheet.getByText("Who comes: 8 of 8 seats").waitFor();
  await sheet.getByRole("button", { name: /Quentin Seat.*2 seats/s }).click();
  await sheet.getByText("€36.00").waitFor();
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
