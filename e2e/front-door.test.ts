import type { Page } from "playwright-core";
import { chooseAt, keepWindow, openPair, payWith, type Pair } from "./support/pair";
import { go, mailedLink, sayWho } from "./support/server";

/** The front door beyond the plain booking: baskets, addresses typed by hand, wishes, bookings that a person confirms, the owner's own look, other people's sites. */
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

const jobOf = (mail: string) => app.sql<{ id: number; approval: string; total_minor: number; pays: string; fields: string }>("SELECT j.* FROM jobs j WHERE j.mail = ? ORDER BY j.id DESC", mail)[0]!;

it("two services at an address that the look-up does not know, again every year, paid at the door", async () => {
  const { postcode } = app.sql<{ postcode: string }>("SELECT postcode FROM sites WHERE postcode LIKE 'MW 3%'")[0]!;
  await go(door, `${app.url}/book`);
  await door.getByRole("button", { name: "My address is not in the list" }).click();
  const form = door.getByRole("form", { name: "Your address in full" });
  await form.getByLabel("House number, street and town").fill("The Old Boathouse, Northfield");
  await form.getByLabel("Postcode").fill("ZZ 9");
  await form.getByRole("button", { name: "Use this address" }).click();
  await form.getByText(/We cannot find this postcode/).waitFor();
  await form.getByLabel("Postcode").fill(postcode);
  await form.getByRole("button", { name: "Use this address" }).click();
  await door.getByRole("button", { name: "Go on" }).click();
  await door.getByRole("checkbox", { name: /Gas fire check/ }).click();
  await door.getByRole("checkbox", { name: /Landlord/ }).click();
  // What must be answered is said where it stands.
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door.getByText("Please answer this.").waitFor();
  await door.getByRole("button", { name: "More: How many gas fires?" }).click();
  await door.getByRole("button", { name: "yearly", exact: true }).click();
  await door.locator("footer").getByText("€205.00").waitFor();
  await keepWindow(door);
  await door.getByRole("group", { name: "Where can we park?" }).getByRole("textbox").fill("In the yard");
  await sayWho(door, "Greta Dahl", "greta.basket@example.com");
  await door.getByText(/then yearly/).waitFor();
  await door.getByText("I pay at the door, in cash or by card").click();
  await door.getByRole("button", { name: "Book", exact: true }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  await door.getByText("We are looking forward to your fireside.").waitFor();
  await door.getByText("Gas fire check, Landlord’s yearly certificate").waitFor();
  // A repeat is ended by the link, and taken up again.
  await door.getByRole("button", { name: "End it" }).click();
  await door.getByText("We do not come back by ourselves any more.").waitFor();
  await door.getByRole("button", { name: "Take it up again" }).click();
  await door.getByText("We come back yearly.").waitFor();
  const job = jobOf("greta.basket@example.com");
  expect([job.total_minor, job.pays, JSON.parse(job.fields)]).toMatchObject([20_500, "at the door", [{ words: "In the yard" }]]);
  expect(app.sql("SELECT r.every, r.unit, s.line FROM repeats r JOIN sites s ON s.id = r.site_id JOIN jobs j ON j.customer_id = r.customer_id WHERE j.id = ?", job.id)).toEqual([{ every: 1, unit: "year", line: "The Old Boathouse, Northfield" }]);
});

it("a wish is told when a window opens, and taken with one tap", async () => {
  await chooseAt(door, app.url, "8 alder", /Smoke draught test/);
  await door.getByRole("button", { name: "Choose a time" }).click();
  await door.getByRole("button", { name: "None of these suits me" }).click();
  await door.getByRole("button", { name: "Before noon" }).click();
  for (const [label, text] of [["Name", "Noor Quinlan"], ["Mail", "noor.wish@example.com"]] as const) await door.getByLabel(label, { exact: true }).fill(text);
  await door.getByLabel("Phone").fill("+1 555 0144");
  await door.getByRole("button", { name: "Tell me when one opens" }).click();
  await door.getByText("Thank you. When a time that suits you opens").waitFor();
  // The next look is within minutes of the business's clock.
  await go(office, `${app.url}/today`);
  const clock = office.getByRole("button", { name: "Demo clock" });
  const before = await clock.innerText();
  await clock.click();
  await office.getByRole("menuitem", { name: /next morning/ }).click();
  await office.waitForFunction((words) => document.querySelector("[aria-label='Demo clock']")?.textContent !== words, before);
  await go(door, await mailedLink(office, app.url, /Free now.*noor\.wish/s, "wish"));
  await door.getByRole("heading", { name: "Free now" }).waitFor();
  await door.getByRole("button", { name: "Take it" }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(app.sql("SELECT outcome FROM requests WHERE mail = 'noor.wish@example.com'")).toEqual([{ outcome: "booked" }]);
});

it("a booking that a person confirms: pencilled in, another time proposed, accepted by the customer", async () => {
  await chooseAt(door, app.url, "10 alder", /Cowl replacement/);
  await keepWindow(door);
  await sayWho(door, "Pavel Weiss", "pavel.cowl@example.com");
  await payWith(door, "9900 0000 0000 1006");
  await door.getByRole("button", { name: /^Pay .* and book/ }).and(door.locator(":enabled")).click();
  await door.getByRole("heading", { name: "We have your booking" }).waitFor();
  await door.getByText(/one of us confirms it soon/).waitFor();

  await go(office, `${app.url}/incoming`);
  await office.getByText("Pavel Weiss").first().click();
  const sheet = office.getByRole("complementary", { name: "Details" });
  await sheet.getByText(/pencilled in for/).waitFor();
  await sheet.getByRole("region").or(sheet.locator("section")).filter({ hasText: "Propose another time" }).getByRole("button").first().click();
  await sheet.getByRole("button", { name: "Propose it to them" }).click();
  await office.getByText(/is asked whether/).waitFor();
  expect(jobOf("pavel.cowl@example.com").approval).toBe("proposed");

  await door.reload();
  await door.getByRole("heading", { name: "Does this time suit you?" }).waitFor();
  await door.getByRole("button", { name: "This suits me" }).click();
  await door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(jobOf("pavel.cowl@example.com").approval).toBe("given");
});

it("several that wait are declined together, with a reason that the customers read", async () => {
  const counted = () => app.sql("SELECT (SELECT count(*) FROM jobs WHERE approval = 'waiting' AND state <> 'cancelled') AS bookings, (SELECT count(*) FROM requests WHERE outcome = 'open') AS requests, (SELECT count(*) FROM quotes WHERE state IN ('sent', 'accepted', 'declined')) AS quotes")[0] as Record<string, number>;
  const waiting = Object.values(counted()).reduce((a, b) => a + b, 0);
  expect(waiting).toBeGreaterThan(1);
  await go(office, `${app.url}/incoming`);
  await office.getByRole("checkbox", { name: /Select all rows/ }).check();
  await office.getByText(`${waiting} chosen`).waitFor();
  await office.getByRole("button", { name: "Decline…" }).click();
  await office.getByLabel("Reason, as they read it").fill("We are all at the harbour fair that week.");
  await office.getByRole("button", { name: `Decline and tell all ${waiting}` }).click();
  await office.getByText(`${waiting} declined, the customers are told`).waitFor();
  expect(counted()).toEqual({ bookings: 0, requests: 0, quotes: 0 });
});

it("two of one mail are put side by side, merged, and taken apart again", async () => {
  const post = (at: string, body: object) => door.request.post(`${app.url}/api/${at}`, { data: body }).then((answer) => answer.json() as Promise<{ value: never }>);
  const service = app.sql<{ id: number }>("SELECT id FROM services WHERE code = 'SD'")[0]!.id;
  for (const [n, name] of ["Ruth Castell", "Emil Castell"].entries()) {
    const [address] = (await post("views/find-address", { text: `${12 + 2 * n} alder` })).value as { id: string }[];
    const asked = { addressId: address!.id, items: [{ serviceId: service }] };
    const offers = (await post("views/offers", asked)).value as { date: string; from: number; to: number }[];
    const { date, from, to } = offers[n]!;
    await post("operations/book", { ...asked, date, from, to, note: "", customer: { name, mail: "castell@example.com", phone: `+1 202 555 016${n}`, reminders: false } });
  }
  await go(office, `${app.url}/customers`);
  await office.getByRole("button", { name: /may be the same person/ }).click();
  const pair = office.getByRole("region", { name: "Maybe the same person" });
  await pair.getByRole("button", { name: "One person: keep this one" }).first().click();
  await office.getByText(/They are one customer now/).waitFor();
  expect(app.sql("SELECT count(*) AS n FROM customers WHERE merged_into IS NOT NULL")).toEqual([{ n: 1 }]);
  await office.getByRole("button", { name: "Undo" }).click();
  await pair.getByText(/was merged into/).waitFor({ state: "hidden" });
  expect(app.sql("SELECT count(*) AS n FROM customers WHERE merged_into IS NOT NULL")).toEqual([{ n: 0 }]);
  expect(app.sql<{ n: number }>("SELECT count(*) AS n FROM alike WHERE state = 'open'")[0]!.n).toBeGreaterThan(0);
});

it("the owner's look is seen while it is typed, and what could not be read is mended", async () => {
  await go(office, `${app.url}/setup/front-door`);
  const preview = office.frameLocator("iframe[title='The front door as it is being set up']");
  await office.getByLabel("Welcome").fill("Warm rooms since the first frost.");
  await preview.getByText("Warm rooms since the first frost.").waitFor();
  const accent = office.getByLabel("Buttons and what is chosen");
  await accent.fill("#ffe08a");
  await office.getByText("Words could not be read like this.").waitFor();
  await office.getByRole("button", { name: "Make it readable" }).click();
  await office.getByRole("button", { name: "Save", exact: true }).click();
  await office.getByText("The front door is saved").waitFor();
  await go(door, `${app.url}/book`);
  await door.getByText("Warm rooms since the first frost.").waitFor();
  expect(app.sql<{ accent: string }>("SELECT accent FROM front_door")[0]!.accent).toBe(await accent.inputValue());
  // Somebody who is not signed in sees no preview.
  await go(door, `${app.url}/book/preview`);
  expect(new URL(door.url()).pathname).toBe("/signin");
});

it("a directory reads the feed and leads to the service that was chosen there", async () => {
  await go(door, `${app.url}/standins/directory`);
  const business = door.getByRole("region", { name: "Marrowick Hearth & Flue" });
  await business.getByText(/79\.00 to \d+\.\d\d EUR/).waitFor();
  await business.getByRole("link", { name: "Book" }).first().click();
  await door.waitForURL(/service=.*from=directory/);
  await door.getByRole("heading", { name: "Where shall we come?" }).waitFor();
});

it("customers' pages may stand in a frame on the owner's sites, the office nowhere", async () => {
  const policy = async (path: string) => (await door.request.get(app.url + path, { maxRedirects: 0 })).headers()["content-security-policy"];
  expect(await policy("/book")).toContain("frame-ancestors 'self' https://marrowick.example;");
  for (const path of ["/today", "/signin", "/book/preview"]) expect(await policy(path)).toContain("frame-ancestors 'self';");
  await go(office, `${app.url}/setup/sharing`);
  await office.getByRole("img", { name: /QR code/ }).waitFor();
  expect(await office.getByLabel("Frame that grows with its content", { exact: true }).innerText()).toContain(`<iframe src="${app.url}/book"`);
});
