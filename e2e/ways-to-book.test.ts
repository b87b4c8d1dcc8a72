import { bookStove, changeRules } from "./support/stove";
import { chooseAt, keepWindow, payWith, sayWho } from "./support/door";
import { pairForTests } from "./support/pair";
import { go } from "./support/server";

/** Ways of booking that an owner chooses, as customers meet them on a phone. */
jest.setTimeout(600_000);

const pair = pairForTests();

/** A page of the owner's: here another one of ours, under another name. */
const afterwards = () => `${pair.app.url.replace("localhost", "127.0.0.1")}/standins/directory`;

it("the technician one would like comes, and who has booked is taken to the owner's own address", async () => {
  await go(pair.office, `${pair.app.url}/setup/front-door`);
  await pair.office.getByLabel("Or an address of yours to go to").fill("javascript:alert(1)");
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText("Write an address such as https://marrowick.example.").waitFor();
  await pair.office.getByLabel("Or an address of yours to go to").fill(afterwards());
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText(/ is saved$/).waitFor();

  await chooseAt(pair.door, pair.app.url, "20 alder", /Stove service/);
  await pair.door
    .getByRole("group", { name: "Who should come?" })
    .getByRole("button", { name: "Petra", exact: true })
    .click();
  await keepWindow(pair.door);
  await pair.door.getByRole("textbox", { name: "Name", exact: true }).fill("Ines Wanted");
  await pair.door.getByRole("textbox", { name: "Email", exact: true }).fill("ines.wanted@example");
  await pair.door.getByLabel("Phone").fill("12-34");
  await pair.door.getByRole("button", { name: "Continue" }).click();
  // What cannot be right is said beside its field, before anybody types a card.
  await pair.door.getByText("Write a mail address, such as mira@example.com.").waitFor();
  await pair.door.getByRole("textbox", { name: "Email", exact: true }).fill("ines.wanted@example.com");
  await pair.door.getByRole("button", { name: "Continue" }).click();
  await pair.door.getByText("Write a phone number, such as +1 555 0142.").waitFor();
  await pair.door.getByLabel("Phone").fill("+1 555 0142");
  await pair.door.getByRole("button", { name: "Continue" }).click();
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door
    .getByRole("button", { name: /^Pay .* and book/ })
    .and(pair.door.locator(":enabled"))
    .click();
  await pair.door.waitForURL(afterwards());
  expect(
    pair.app.sql(
      "SELECT t.name FROM jobs j JOIN visits v ON v.job_id = j.id JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id WHERE j.mail = 'ines.wanted@example.com'",
    ),
  ).toEqual([{ name: "Petra Lindqvist" }]);
});

it("all of it is paid at once, where the service lets one", async () => {
  await chooseAt(pair.door, pair.app.url, "24 alder", /Chimney sweep/);
  await pair.door.getByRole("button", { name: "More: How many flues?" }).click();
  await pair.door.getByRole("group", { name: "Could there be a nest?" }).getByRole("button", { name: "No" }).click();
  await keepWindow(pair.door);
  await sayWho(pair.door, "Osman All", "osman.all@example.com");
  await pair.door.getByLabel(/Pay all of it now/).check();
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door
    .getByRole("button", { name: /^Pay .* and book/ })
    .and(pair.door.locator(":enabled"))
    .click();
  await pair.door.waitForURL(afterwards());
  expect(
    pair.app.sql("SELECT total_minor - deposit_minor AS rest FROM jobs WHERE mail = 'osman.all@example.com'"),
  ).toEqual([{ rest: 0 }]);
});

it("a window on our way costs less by what the owner says, and that is what is booked", async () => {
  await changeRules(pair, () => pair.office.getByLabel("Windows on your way, % off").fill("10"));
  await bookStove(pair, {
    words: /on our way\s*10% off/,
    address: "26 alder",
    name: "Ada Onway",
    mail: "ada.onway@example.com",
    then: afterwards(),
  });
  const job = pair.app.sql<{ id: number; total_minor: number }>(
    "SELECT id, total_minor FROM jobs WHERE mail = 'ada.onway@example.com'",
  )[0]!;
  expect([
    job.total_minor,
    pair.app.sql("SELECT description, amount_minor FROM job_lines WHERE job_id = ? ORDER BY position", job.id),
  ]).toEqual([
    10_710,
    [
      { description: "Stove service", amount_minor: 11_900 },
      { description: "On our way, 10% off", amount_minor: -1190 },
    ],
  ]);
  await changeRules(pair, () => pair.office.getByLabel("Windows on your way, % off").fill("0"));
});
