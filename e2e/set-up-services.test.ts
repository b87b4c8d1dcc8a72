import { deskForTests } from "./support/desk";
import { filesForTests, pixels } from "./support/files";
import { findAddress, sayWho } from "./support/door";
import { go, openPage, phone } from "./support/server";

/** Set-up by hand: what a service asks and ticks off, and where customers come from. */
jest.setTimeout(420_000);

const at = deskForTests("odile");
const file = filesForTests();

const save = async (said: string) => {
  await at.page.getByRole("button", { name: "Save", exact: true }).click();
  await at.page.getByText(said).first().waitFor();
};

it("a service gets a checklist and a photo question; a customer by its link sends a photo, and it must be ticked on site", async () => {
  const [oven] = at.app.sql<{ id: number }>("SELECT id FROM services WHERE code = 'PO'");
  await go(at.page, `${at.app.url}/setup/services?id=${oven!.id}`);
  await at.page.getByRole("button", { name: "Question", exact: true }).click();
  const question = at.page.getByRole("group", { name: "Question 1", exact: true });
  await question.getByLabel("Question 1", { exact: true }).fill("A photo of the oven");
  await question.getByRole("combobox", { name: "Answered with" }).click();
  await at.page.getByRole("option", { name: "photos" }).click();
  const checklist = at.page.getByRole("region", { name: "Checklist" });
  await checklist.getByRole("button", { name: "Item", exact: true }).click();
  await checklist.getByLabel("Item 1", { exact: true }).fill("Grease tray empty");
  await checklist.getByLabel("Must be").click();
  await save("Pizza-oven flue clean is saved");

  const customer = await openPage(at.browser, phone);
  const door = customer.page;
  await go(door, `${at.app.url}/book?service=pizza-oven-flue-clean`);
  await findAddress(door, "2 birch");
  await door.getByRole("button", { name: "Continue" }).click();
  await door.getByRole("checkbox", { name: /Pizza-oven/, checked: true }).waitFor();
  await door
    .getByRole("group", { name: "A photo of the oven" })
    .locator("input[type=file]")
    .setInputFiles(file("oven.png", await pixels("#9B4A3C")));
  await door.getByRole("img", { name: "Photo 1" }).waitFor();
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await door.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(door, "Mira Okonjo", "mira.oven@example.com");
  await door.getByText("Cancelling costs nothing.").waitFor();
  await door.getByRole("button", { name: "Book", exact: true }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  await customer.context.close();
  const [visit] = at.app.sql<{ id: number; date: string; checklist: string }>(
    "SELECT v.id, v.date, v.checklist FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE c.mail = 'mira.oven@example.com'",
  );
  expect(JSON.parse(visit!.checklist)).toEqual([{ id: "c1", words: "Grease tray empty", required: true, done: false }]);
  await go(at.page, `${at.app.url}/board?date=${visit!.date}&visit=${visit!.id}`);
  await at.page.getByRole("img", { name: "Photo 1" }).waitFor();
  await at.page.getByText("○ Grease tray empty").waitFor();
});

it("a source gets a link of its own, and a booking that comes by it is counted", async () => {
  await go(at.page, `${at.app.url}/setup/sharing`);
  await at.page.getByLabel("A new source").fill("Lantern walk");
  await at.page.getByRole("button", { name: "Add it" }).click();
  await at.page.getByText(`/book?from=lantern-walk`).waitFor();
  const customer = await openPage(at.browser, phone);
  const door = customer.page;
  await go(door, `${at.app.url}/book?from=lantern-walk`);
  await findAddress(door, "6 alder");
  await door.getByRole("button", { name: "Continue" }).click();
  await door.getByRole("checkbox", { name: /Smoke draught test/ }).click();
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await door.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(door, "Noor Sato", "noor@example.com");
  await door.getByRole("button", { name: "Book", exact: true }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  await customer.context.close();
  await go(at.page, `${at.app.url}/setup/sharing`);
  await at.page.getByRole("region", { name: "Where customers come from" }).getByText("1 booking, €65.00").waitFor();
});
