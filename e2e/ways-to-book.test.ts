import { chooseAt, keepWindow, pairForTests, payWith } from "./support/pair";
import { go, sayWho } from "./support/server";

/** Ways of booking that an owner chooses, as customers meet them on a phone. */
jest.setTimeout(600_000);

const pair = pairForTests();

/** A page of the owner's: here another one of ours, under another name. */
const afterwards = () => `${pair.app.url.replace("localhost", "127.0.0.1")}/standins/directory`;
const serviceId = (code: string) => pair.app.sql<{ id: number }>("SELECT id FROM services WHERE code = ?", code)[0]!.id;

it("the technician one would like comes, and who has booked is taken to the owner's own address", async () => {
  await go(pair.office, `${pair.app.url}/setup/front-door`);
  await pair.office.getByLabel("Or an address of yours to go to").fill("javascript:alert(1)");
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText("Write an address such as https://marrowick.example.").waitFor();
  await pair.office.getByLabel("Or an address of yours to go to").fill(afterwards());
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText(/is saved/).waitFor();

  await chooseAt(pair.door, pair.app.url, "20 alder", /Stove service/);
  await pair.door.getByRole("group", { name: "Who should come?" }).getByRole("button", { name: "Petra", exact: true }).click();
  await keepWindow(pair.door);
  await pair.door.getByLabel("Name", { exact: true }).fill("Ines Wanted");
  await pair.door.getByLabel("Mail", { exact: true }).fill("ines.wanted@example");
  await pair.door.getByLabel("Phone").fill("12-34");
  await pair.door.getByRole("button", { name: "Go on" }).click();
  // What cannot be right is said beside its field, before anybody types a card.
  await pair.door.getByText("Write a mail address, such as mira@example.com.").waitFor();
  await pair.door.getByLabel("Mail", { exact: true }).fill("ines.wanted@example.com");
  await pair.door.getByRole("button", { name: "Go on" }).click();
  await pair.door.getByText("Write a phone number, such as +1 555 0142.").waitFor();
  await pair.door.getByLabel("Phone").fill("+1 555 0142");
  await pair.door.getByRole("button", { name: "Go on" }).click();
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door.getByRole("button", { name: /^Pay .* and book/ }).and(pair.door.locator(":enabled")).click();
  await pair.door.waitForURL(afterwards());
  expect(pair.app.sql("SELECT t.name FROM jobs j JOIN visits v ON v.job_id = j.id JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id WHERE j.mail = 'ines.wanted@example.com'")).toEqual([{ name: "Petra Lindqvist" }]);
});

it("all of it is paid at once, where the service lets one", async () => {
  await chooseAt(pair.door, pair.app.url, "24 alder", /Chimney sweep/);
  await pair.door.getByRole("button", { name: "More: How many flues?" }).click();
  await pair.door.getByRole("group", { name: "Could there be a nest?" }).getByRole("button", { name: "No" }).click();
  await keepWindow(pair.door);
  await sayWho(pair.door, "Osman All", "osman.all@example.com");
  await pair.door.getByLabel(/Pay all of it now/).check();
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door.getByRole("button", { name: /^Pay .* and book/ }).and(pair.door.locator(":enabled")).click();
  await pair.door.waitForURL(afterwards());
  expect(pair.app.sql("SELECT total_minor - deposit_minor AS rest FROM jobs WHERE mail = 'osman.all@example.com'")).toEqual([{ rest: 0 }]);
});

it("where times are agreed in person nothing is promised: one says what suits, and the office books it", async () => {
  await go(pair.office, `${pair.app.url}/setup/services?id=${serviceId("SD")}`);
  await pair.office.getByRole("combobox", { name: /^Capacity/ }).click();
  await pair.office.getByRole("option", { name: /Ask first/ }).click();
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText(/is saved/).waitFor();
  await chooseAt(pair.door, pair.app.url, "22 alder", /Smoke draught test/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  await pair.door.getByText(/We agree the time for this in person/).waitFor();
  await pair.door.getByLabel("What do you need, and when?").fill("When the wind is from the west.");
  await pair.door.getByLabel("Name", { exact: true }).fill("Henrik West");
  await pair.door.getByLabel("Mail", { exact: true }).fill("henrik.west@example.com");
  await pair.door.getByLabel("Phone").fill("+1 555 0142");
  await pair.door.getByRole("button", { name: /^Ask Marrowick/ }).click();
  await pair.door.getByText("Thank you. We have your request").waitFor();
  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.getByRole("gridcell", { name: "Henrik West" }).click();
  const sheet = pair.office.getByRole("complementary", { name: "Details" });
  await sheet.getByText("When the wind is from the west.").waitFor();
  // The last of those that are shown is never today: there are fewer windows in a day.
  await sheet.getByRole("button", { name: /more driving/ }).last().click();
  await sheet.getByRole("button", { name: "Book it and tell them" }).click();
  await pair.office.getByText(/Booked for .*, Henrik West is told/).waitFor();
  expect(pair.app.sql("SELECT v.state FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.mail = 'henrik.west@example.com'")).toEqual([{ state: "promised" }]);
});

it("when it is too late to change something by the link, the phone number stands there instead", async () => {
  const { id } = pair.app.sql<{ id: number }>("SELECT j.id FROM jobs j WHERE j.mail = 'henrik.west@example.com'")[0]!;
  const { date, visit } = pair.app.sql<{ date: string; visit: number }>("SELECT date, id AS visit FROM visits WHERE job_id = ?", id)[0]!;
  await go(pair.office, `${pair.app.url}/board?date=${date}&visit=${visit}`);
  const link = await pair.office.getByRole("link", { name: "Open" }).and(pair.office.locator("[href^='/my/']")).getAttribute("href");
  await go(pair.door, pair.app.url + link!);
  await pair.door.getByRole("button", { name: "Cancel", exact: true }).waitFor();
  // On the day itself, an hour before.
  const clock = pair.office.getByRole("button", { name: "Demo clock" });
  const isOver = () => pair.app.sql<{ over: number }>("SELECT (SELECT demo_offset_ms FROM business) / 1000 + unixepoch() > window_from * 60 - 7200 AS over FROM visits WHERE id = ?", visit)[0]!.over === 1;
  for (let i = 0; i < 30 && !isOver(); i++) {
    const before = await clock.innerText();
    await clock.click();
    await pair.office.getByRole("menuitem", { name: /next morning/ }).click();
    await pair.office.waitForFunction((words) => document.querySelector("[aria-label='Demo clock']")?.textContent !== words, before);
  }
  await pair.door.reload();
  await pair.door.getByText(/It is too late to change it here: call \+1 555 0100/).waitFor();
  expect([await pair.door.getByRole("button", { name: "Cancel", exact: true }).count(), await pair.door.getByRole("button", { name: "Move", exact: true }).count()]).toEqual([0, 0]);
});
