import { AxeBuilder } from "@axe-core/playwright";
import type { Page } from "playwright-core";
import { openPair, payWith, type Pair } from "./support/pair";
import { go, mailedLink, phone } from "./support/server";

/** From a request to a quote, and from a quote to a visit: the office at a desk, the customer on a phone. */
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

const quoteOf = (mail: string) => app.sql<{ id: number; state: string; total_minor: number; job_id: number | null; answer: string }>("SELECT * FROM quotes WHERE mail = ?", mail)[0]!;
const sheet = () => office.getByRole("complementary", { name: "Details" });
async function openEntry(name: string) {
  await go(office, `${app.url}/incoming`);
  await office.getByRole("gridcell", { name }).click();
  await sheet().getByRole("heading", { name }).waitFor();
}
const findings = async (page: Page) => (await new AxeBuilder({ page }).options({ resultTypes: ["violations"] }).analyze()).violations.map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 160)}`);
/** Windows as the customer sees them. */
const arches = () => door.getByRole("group", { name: /day \d/ }).getByRole("button");

it("a request from outside the zones becomes a quote, which the customer accepts in a window, and pays the deposit of", async () => {
  await openEntry("Ottilie Fenn");
  await sheet().getByRole("button", { name: "Make it a quote…" }).click();
  await sheet().getByRole("combobox", { name: "Work" }).click();
  await office.getByRole("option", { name: "Chimney sweep" }).click();
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
  expect(await findings(office)).toEqual([]);
  await office.reload();
  await sheet().getByRole("button", { name: "Make it a quote…" }).click();
  await sheet().getByText("What you typed and had not saved is back.").waitFor();
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await office.getByText("Ottilie Fenn gets it by mail and text").waitFor();
  expect(quoteOf("ottilie.fenn@example.com")).toMatchObject({ state: "sent", total_minor: 15_000 });

  await go(door, await mailedLink(office, app.url, /Your quote.*ottilie/s, "quote"));
  await door.getByText("Both on one day").waitFor();
  await arches().first().waitFor();
  expect(await findings(door)).toEqual([]);
  await door.setViewportSize({ width: 320, height: 640 });
  expect(await door.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await door.setViewportSize(phone);
  await arches().first().click();
  await door.getByRole("button", { name: /^Accept for/ }).click();
  await door.getByRole("heading", { name: "One step is left: the deposit" }).waitFor();
  await payWith(door, "9900 0000 0000 1006");
  await door.getByRole("button", { name: "Pay €50.00" }).and(door.locator(":enabled")).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  await door.getByText("€150.00").first().waitFor();
  expect(app.sql("SELECT j.total_minor, j.state, v.state AS visit FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.id = ?", quoteOf("ottilie.fenn@example.com").job_id)).toEqual([{ total_minor: 15_000, state: "agreed", visit: "promised" }]);
});

it("a quote that changes while it is read is read again before it is accepted; none of the times suits, and the office finds one", async () => {
  const link = await mailedLink(office, app.url, /Your quote.*ruth/s, "quote");
  await go(door, link);
  await arches().first().click();
  await openEntry("Ruth Amsel");
  await sheet().getByRole("button", { name: "Change the quote…" }).click();
  await sheet().getByRole("button", { name: "Take line 2 away" }).click();
  await sheet().getByRole("button", { name: "Send the quote" }).click();
  await office.getByText("Ruth Amsel gets it by mail and text").waitFor();
  await door.getByRole("button", { name: /^Accept for/ }).click();
  await door.getByText("This quote has changed: it is €1,305.00 now.").waitFor();
  await door.getByText("€1,305.00").last().waitFor();
  await door.getByRole("button", { name: "None of these suits" }).click();
  await door.getByLabel("When would it suit you?").fill("After the school holidays");
  await door.getByRole("button", { name: "Accept, and find a time with me" }).click();
  await door.getByRole("heading", { name: "We have your yes" }).waitFor();

  await openEntry("Ruth Amsel");
  await sheet().getByText("After the school holidays").waitFor();
  await sheet().locator("section").filter({ hasText: "Book it" }).getByRole("button").first().click();
  await sheet().getByRole("button", { name: "Book it and tell them" }).click();
  await office.getByText(/Booked for .*, Ruth Amsel is told/).waitFor();
  await door.reload();
  await door.getByRole("link", { name: "See the visit" }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(quoteOf("ruth.amsel@example.com")).toMatchObject({ state: "booked", total_minor: 130_500, answer: "After the school holidays" });
});

it("a no is said with a reason, and put away by the office; then its link opens nothing", async () => {
  const link = await mailedLink(office, app.url, /Your quote.*viktor/s, "quote");
  await go(door, link);
  await door.getByRole("heading", { name: "We have your yes" }).waitFor();
  await door.getByRole("button", { name: "No, thank you" }).click();
  await door.getByLabel("Why, if you like to say").fill("My brother has a ladder.");
  await door.getByRole("button", { name: "Say no" }).click();
  await door.getByRole("heading", { name: "You said no" }).waitFor();
  await openEntry("Viktor Ness");
  await sheet().getByText("My brother has a ladder.").waitFor();
  await sheet().getByRole("button", { name: "Put it away" }).click();
  await office.getByText("The quote to Viktor Ness is put away").waitFor();
  await go(door, link);
  await door.getByText(/This quote does not stand any more/).waitFor();
});
