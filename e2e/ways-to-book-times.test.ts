import { bookStove, changeRules } from "./support/stove";
import { chooseAt } from "./support/door";
import { linkOf } from "./support/http";
import { moveClock, pairForTests } from "./support/pair";
import { go } from "./support/server";

/** Ways in which times are promised: exact ones, in person, and too late. */
jest.setTimeout(600_000);

const pair = pairForTests();
const serviceId = (code: string) => pair.app.sql<{ id: number }>("SELECT id FROM services WHERE code = ?", code)[0]!.id;

it("where the owner promises exact times, one of them is chosen and promised", async () => {
  await changeRules(pair, async () => {
    const windows = pair.office.getByRole("group", { name: "Windows" });
    const remove = windows.getByRole("button", { name: "Remove this window" });
    await remove.first().waitFor();
    while ((await remove.count()) > 1) await remove.last().click();
    await windows.getByRole("combobox", { name: "Kind" }).click();
    await pair.office.getByRole("option", { name: "Exact times" }).click();
    await windows.getByLabel("First").fill("10:00");
    await windows.getByLabel("Last").fill("15:00");
    await windows.getByLabel("Every, minutes").fill("30");
  });
  await bookStove(pair, {
    words: /^1[0-5]:[03]0/,
    address: "28 alder",
    name: "Jonas Exact",
    mail: "jonas.exact@example.com",
    then: /\/my\//,
  });
  expect(
    pair.app.sql(
      "SELECT window_to - window_from AS long, window_from % 30 AS off FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.mail = 'jonas.exact@example.com'",
    ),
  ).toEqual([{ long: 0, off: 0 }]);
});

it("where times are agreed in person nothing is promised: one says what suits, and the office books it", async () => {
  await go(pair.office, `${pair.app.url}/setup/services?id=${serviceId("SD")}`);
  await pair.office.getByRole("combobox", { name: /^Capacity/ }).click();
  await pair.office.getByRole("option", { name: /Ask first/ }).click();
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText(/ is saved$/).waitFor();
  await chooseAt(pair.door, pair.app.url, "22 alder", /Smoke draught test/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  await pair.door.getByText(/We agree the time for this in person/).waitFor();
  await pair.door.getByLabel("What do you need, and when?").fill("When the wind is from the west.");
  await pair.door.getByRole("textbox", { name: "Name", exact: true }).fill("Henrik West");
  await pair.door.getByRole("textbox", { name: "Email", exact: true }).fill("henrik.west@example.com");
  await pair.door.getByLabel("Phone").fill("+1 555 0142");
  await pair.door.getByRole("button", { name: "Send request" }).click();
  await pair.door.getByText("Thank you. We have your request").waitFor();
  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.getByRole("gridcell", { name: "Henrik West" }).click();
  const sheet = pair.office.getByRole("complementary", { name: "Details" });
  await sheet.getByText("When the wind is from the west.").waitFor();
  // The last of those that are shown is never today: there are fewer windows in a day.
  await sheet
    .getByRole("button", { name: /more driving/ })
    .last()
    .click();
  await sheet.getByRole("button", { name: "Book it and tell them" }).click();
  await pair.office.getByText(/Booked for .*, Henrik West is told/).waitFor();
  expect(
    pair.app.sql(
      "SELECT v.state FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.mail = 'henrik.west@example.com'",
    ),
  ).toEqual([{ state: "promised" }]);
});

it("when it is too late to change something by the link, the phone number stands there instead", async () => {
  const { id } = pair.app.sql<{ id: number }>("SELECT j.id FROM jobs j WHERE j.mail = 'henrik.west@example.com'")[0]!;
  const { date, visit, from } = pair.app.sql<{ date: string; visit: number; from: number }>(
    'SELECT date, id AS visit, window_from AS "from" FROM visits WHERE job_id = ?',
    id,
  )[0]!;
  await go(pair.office, `${pair.app.url}/board?date=${date}&visit=${visit}`);
  await go(pair.door, await linkOf(pair.app.url, id));
  await pair.door.getByRole("button", { name: "Cancel", exact: true }).waitFor();
  // On the day itself, an hour before.
  await moveClock(pair, (from - 60) * 60_000);
  await pair.door.reload();
  await pair.door.getByText(/It is too late to change it here: call \+1 555 0100/).waitFor();
  expect([
    await pair.door.getByRole("button", { name: "Cancel", exact: true }).count(),
    await pair.door.getByRole("button", { name: "Move", exact: true }).count(),
  ]).toEqual([0, 0]);
});
