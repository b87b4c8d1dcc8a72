import type { Page } from "playwright-core";
import { chooseAt, keepWindow, openPair, payWith, type Pair } from "./support/pair";
import { go, sayWho } from "./support/server";

/** Ways of booking that an owner chooses, as customers meet them on a phone. */
jest.setTimeout(600_000);

let pair: Pair;
let app: Pair["app"];
let door: Page;
let office: Page;
beforeAll(async () => {
  pair = await openPair();
  ({ app, door, office } = pair);
});
afterAll(() => pair?.close());
afterEach(() => expect(pair.troubles.splice(0)).toEqual([]));

/** A page of the owner's: here another one of ours, under another name. */
const afterwards = () => `${app.url.replace("localhost", "127.0.0.1")}/standins/directory`;
const serviceId = (code: string) => app.sql<{ id: number }>("SELECT id FROM services WHERE code = ?", code)[0]!.id;

it("the technician one would like comes, and who has booked is taken to the owner's own address", async () => {
  await go(office, `${app.url}/setup/front-door`);
  await office.getByLabel("Or an address of yours to go to").fill("javascript:alert(1)");
  await office.getByRole("button", { name: "Save" }).click();
  await office.getByText("Write an address such as https://marrowick.example.").waitFor();
  await office.getByLabel("Or an address of yours to go to").fill(afterwards());
  await office.getByRole("button", { name: "Save" }).click();
  await office.getByText(/is saved/).waitFor();

  await chooseAt(door, app.url, "20 alder", /Stove service/);
  await door.getByRole("group", { name: "Who should come?" }).getByRole("button", { name: "Petra", exact: true }).click();
  await keepWindow(door);
  await door.getByLabel("Name", { exact: true }).fill("Ines Wanted");
  await door.getByLabel("Mail", { exact: true }).fill("ines.wanted@example");
  await door.getByLabel("Phone").fill("12-34");
  await door.getByRole("button", { name: "Go on" }).click();
  await payWith(door, "9900 0000 0000 1006");
  const pay = () => door.getByRole("button", { name: /^Pay .* and book/ }).and(door.locator(":enabled")).click();
  await pay();
  // What cannot be right is said beside its field, and all else is as it was.
  await door.getByText("Write a phone number, such as +1 555 0142.").or(door.getByText(/mail address/i)).first().waitFor();
  await door.getByLabel("Mail", { exact: true }).fill("ines.wanted@example.com");
  await door.getByLabel("Phone").fill("+1 555 0142");
  await door.getByRole("button", { name: "Go on" }).click();
  await payWith(door, "9900 0000 0000 1006");
  await pay();
  await door.waitForURL(afterwards());
  expect(app.sql("SELECT t.name FROM jobs j JOIN visits v ON v.job_id = j.id JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id WHERE j.mail = 'ines.wanted@example.com'")).toEqual([{ name: "Petra Lindqvist" }]);
});

it("all of it is paid at once, where the service lets one", async () => {
  await chooseAt(door, app.url, "24 alder", /Chimney sweep/);
  await door.getByRole("button", { name: "More: How many flues?" }).click();
  await door.getByRole("group", { name: "Could there be a nest?" }).getByRole("button", { name: "No" }).click();
  await keepWindow(door);
  await sayWho(door, "Osman All", "osman.all@example.com");
  await door.getByLabel(/Pay all of it now/).check();
  await payWith(door, "9900 0000 0000 1006");
  await door.getByRole("button", { name: /^Pay .* and book/ }).and(door.locator(":enabled")).click();
  await door.waitForURL(afterwards());
  expect(app.sql("SELECT total_minor - deposit_minor AS rest FROM jobs WHERE mail = 'osman.all@example.com'")).toEqual([{ rest: 0 }]);
});

it("where times are agreed in person nothing is promised: one says what suits, and the office books it", async () => {
  await go(office, `${app.url}/setup/services?id=${serviceId("SD")}`);
  await office.getByRole("combobox", { name: /^Capacity/ }).click();
  await office.getByRole("option", { name: /Ask first/ }).click();
  await office.getByRole("button", { name: "Save" }).click();
  await office.getByText(/is saved/).waitFor();
  await chooseAt(door, app.url, "22 alder", /Smoke draught test/);
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door.getByText(/We agree the time for this in person/).waitFor();
  await door.getByLabel("What do you need, and when?").fill("When the wind is from the west.");
  await door.getByLabel("Name", { exact: true }).fill("Henrik West");
  await door.getByLabel("Mail", { exact: true }).fill("henrik.west@example.com");
  await door.getByLabel("Phone").fill("+1 555 0142");
  await door.getByRole("button", { name: /^Ask Marrowick/ }).click();
  await door.getByText("Thank you. We have your request").waitFor();
  await go(office, `${app.url}/incoming`);
  await office.getByRole("gridcell", { name: "Henrik West" }).click();
  const sheet = office.getByRole("complementary", { name: "Details" });
  await sheet.getByText("When the wind is from the west.").waitFor();
  await sheet.locator("section").filter({ hasText: "Book it" }).getByRole("button").first().click();
  await sheet.getByRole("button", { name: "Book it and tell them" }).click();
  await office.getByText(/Booked for .*, Henrik West is told/).waitFor();
  expect(app.sql("SELECT v.state FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.mail = 'henrik.west@example.com'")).toEqual([{ state: "promised" }]);
});

it("when it is too late to change something by the link, the phone number stands there instead", async () => {
  const { id } = app.sql<{ id: number }>("SELECT j.id FROM jobs j WHERE j.mail = 'henrik.west@example.com'")[0]!;
  const { date, visit } = app.sql<{ date: string; visit: number }>("SELECT date, id AS visit FROM visits WHERE job_id = ?", id)[0]!;
  await go(office, `${app.url}/board?date=${date}&visit=${visit}`);
  const link = await office.getByRole("link", { name: "Open" }).and(office.locator("[href^='/my/']")).getAttribute("href");
  await go(door, app.url + link!);
  await door.getByRole("button", { name: "Cancel", exact: true }).waitFor();
  // On the day itself, an hour before.
  const clock = office.getByRole("button", { name: "Demo clock" });
  const isOver = () => app.sql<{ over: number }>("SELECT (SELECT demo_offset_ms FROM business) / 1000 + unixepoch() > window_from * 60 - 7200 AS over FROM visits WHERE id = ?", visit)[0]!.over === 1;
  for (let i = 0; i < 30 && !isOver(); i++) {
    const before = await clock.innerText();
    await clock.click();
    await office.getByRole("menuitem", { name: /next morning/ }).click();
    await office.waitForFunction((words) => document.querySelector("[aria-label='Demo clock']")?.textContent !== words, before);
  }
  await door.reload();
  await door.getByText(/It is too late to change it here: call \+1 555 0100/).waitFor();
  expect([await door.getByRole("button", { name: "Cancel", exact: true }).count(), await door.getByRole("button", { name: "Move", exact: true }).count()]).toEqual([0, 0]);
});
