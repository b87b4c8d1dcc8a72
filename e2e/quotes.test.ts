import { findings } from "./support/axe";
import { payWith } from "./support/door";
import { pairForTests } from "./support/pair";
import { go, mailedLink, phone } from "./support/server";

/** From a request to a quote, and from a quote to a visit: the office at a desk, the customer on a phone. */
jest.setTimeout(600_000);

const pair = pairForTests();

const quoteOf = (mail: string) =>
  pair.app.sql<{ id: number; state: string; total_minor: number; job_id: number | null; answer: string }>(
    "SELECT * FROM quotes WHERE mail = ?",
    mail,
  )[0]!;
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
async function openEntry(name: string) {
  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.getByRole("gridcell", { name }).click();
  await sheet().getByRole("heading", { name }).waitFor();
}
/** Windows as the customer sees them. */
const arches = () => pair.door.getByRole("group", { name: /day \d/ }).getByRole("button");

it("a request from outside the zones becomes a quote, which the customer accepts in a window, and pays the deposit of", async () => {
  await openEntry("Ottilie Fenn");
  await sheet().getByRole("button", { name: "Make it a quote…" }).click();
  await sheet().getByRole("combobox", { name: "Work" }).click();
  await pair.office.getByRole("option", { name: "Chimney sweep" }).click();
  const line = (n: number) => sheet().getByRole("group", { name: `Line ${n}` });
  expect(await line(1).getByLabel("Description").inputValue()).toBe("Chimney sweep");
  await line(1).getByLabel("How many").fill("2");
  await sheet().getByRole("button", { name: "Another line" }).click();
  await line(2).getByLabel("Price of one, EUR").fill("-8");
  await sheet().getByLabel("Deposit, EUR").fill("50");
  // What is missing is said where it stands; what was typed stays.
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await line(2).getByText("Please fill this in.").waitFor();
  await line(2).getByLabel("Description").fill("Both on one day");
  await sheet().getByText("€150.00").waitFor();
  expect(await findings(pair.office)).toEqual([]);
  await pair.office.reload();
  await sheet().getByRole("button", { name: "Make it a quote…" }).click();
  await sheet().getByText("What you typed and had not saved is back.").waitFor();
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await pair.office.getByText("Ottilie Fenn gets it by email and text").waitFor();
  expect(quoteOf("ottilie.fenn@example.com")).toMatchObject({ state: "sent", total_minor: 15_000 });

  await go(pair.door, await mailedLink(pair.office, pair.app.url, /Your quote.*ottilie/s, "quote"));
  await pair.door.getByText("Both on one day").waitFor();
  await arches().first().waitFor();
  expect(await findings(pair.door)).toEqual([]);
  await pair.door.setViewportSize({ width: 320, height: 640 });
  expect(await pair.door.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await pair.door.setViewportSize(phone);
  await arches().first().click();
  await pair.door.getByRole("button", { name: /^Accept for/ }).click();
  await pair.door.getByRole("heading", { name: "One step is left: the deposit" }).waitFor();
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door.getByRole("button", { name: "Pay €50.00" }).and(pair.door.locator(":enabled")).click();
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  await pair.door.getByText("€150.00").first().waitFor();
  expect(
    pair.app.sql(
      "SELECT j.total_minor, j.state, v.state AS visit FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.id = ?",
      quoteOf("ottilie.fenn@example.com").job_id,
    ),
  ).toEqual([{ total_minor: 15_000, state: "agreed", visit: "promised" }]);
});

it("a quote that changes while it is read is read again before it is accepted; none of the times suits, and the office finds one", async () => {
  const link = await mailedLink(pair.office, pair.app.url, /Your quote.*ruth/s, "quote");
  await go(pair.door, link);
  await arches().first().click();
  await openEntry("Ruth Amsel");
  await sheet().getByRole("button", { name: "Change the quote…" }).click();
  await sheet().getByRole("button", { name: "Take line 2 away" }).click();
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await pair.office.getByText("Ruth Amsel gets it by email and text").waitFor();
  await pair.door.getByRole("button", { name: /^Accept for/ }).click();
  await pair.door.getByText("This quote has changed: it is €1,305.00 now.").waitFor();
  await pair.door.getByText("Scaffold for two days").waitFor({ state: "detached" });
  await pair.door.getByRole("button", { name: "None of these suits" }).click();
  await pair.door.getByLabel("When would it suit you?").fill("After the school holidays");
  await pair.door.getByRole("button", { name: "Accept, and find a time with me" }).click();
  await pair.door.getByRole("heading", { name: "Quote accepted" }).waitFor();

  await openEntry("Ruth Amsel");
  await sheet().getByText("After the school holidays").waitFor();
  await sheet().locator("section").filter({ hasText: "Book it" }).getByRole("button").first().click();
  await sheet().getByRole("button", { name: "Book it and tell them" }).click();
  await pair.office.getByText(/Booked for .*, Ruth Amsel is told/).waitFor();
  await pair.door.reload();
  await pair.door.getByRole("link", { name: "See the visit" }).click();
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(quoteOf("ruth.amsel@example.com")).toMatchObject({
    state: "booked",
    total_minor: 130_500,
    answer: "After the school holidays",
  });
});

it("a no is said with a reason, and put away by the office; then its link opens nothing", async () => {
  const link = await mailedLink(pair.office, pair.app.url, /Your quote.*viktor/s, "quote");
  await go(pair.door, link);
  await pair.door.getByRole("heading", { name: "Quote accepted" }).waitFor();
  await pair.door.getByRole("button", { name: "No, thank you" }).click();
  await pair.door.getByLabel("Why, if you like to say").fill("My brother has a ladder.");
  await pair.door.getByRole("button", { name: "Decline" }).click();
  await pair.door.getByRole("heading", { name: "Quote declined" }).waitFor();
  await openEntry("Viktor Ness");
  await sheet().getByText("My brother has a ladder.").waitFor();
  await sheet().getByRole("button", { name: "Put it away" }).click();
  await pair.office.getByText("The quote to Viktor Ness is put away").waitFor();
  await go(pair.door, link);
  await pair.door.getByText(/This quote does not stand any more/).waitFor();
});

it("a quote with two options is read on a phone; one of them is chosen, signed by name and finger, and booked", async () => {
  const { office, door, app } = pair;
  await openEntry("Selma Vance");
  await sheet().getByRole("button", { name: "Make it a quote…" }).click();
  const line = () => sheet().getByRole("group", { name: "Line 1" });
  await line().getByLabel("Price of one, EUR").fill("120");
  await sheet().getByLabel("Deposit, EUR").fill("0");
  await sheet().getByRole("button", { name: "Let them choose between options" }).click();
  expect(await sheet().getByLabel("This option is called").inputValue()).toBe("Better");
  await line().getByLabel("Price of one, EUR").fill("185");
  await sheet().getByRole("button", { name: "Good", exact: true }).click();
  expect(await line().getByLabel("Price of one, EUR").inputValue()).toBe("120.00");
  await sheet()
    .getByLabel(/^They sign it/)
    .check();
  expect(await findings(office)).toEqual([]);
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await office.getByText("Selma Vance gets it by email and text").waitFor();

  await go(door, await mailedLink(office, app.url, /Your quote.*selma/s, "quote"));
  await door.getByRole("button", { name: /^Better/ }).click();
  await door.getByText("€185.00").nth(1).waitFor();
  expect(await findings(door)).toEqual([]);
  const sign = door.getByRole("group", { name: "Signature" });
  await sign.getByLabel("Your name").fill("Selma Vance");
  await sign.getByRole("img", { name: "Sign here" }).scrollIntoViewIfNeeded();
  const field = (await sign.getByRole("img", { name: "Sign here" }).boundingBox())!;
  await door.mouse.move(field.x + 30, field.y + 90);
  await door.mouse.down();
  for (let i = 1; i <= 12; i++) await door.mouse.move(field.x + 30 + i * 20, field.y + 90 + (i % 2 ? -40 : 20));
  await door.mouse.up();
  await sign.getByRole("button", { name: "Again" }).waitFor();
  await arches().first().click();
  await door.getByRole("button", { name: /^Accept for/ }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(quoteOf("selma.vance@example.com")).toMatchObject({
    state: "booked",
    chosen: "Better",
    total_minor: 18_500,
    signed_by: "Selma Vance",
    signature: expect.stringMatching(/^data:image\/png/),
  });
});
