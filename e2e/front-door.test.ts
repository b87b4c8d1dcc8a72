import { createServer } from "node:http";
import { findAddress, keepWindow, sayWho } from "./support/door";
import { pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";
import { freePort } from "./support/serving";

/** The front door beyond the plain booking: baskets, addresses typed by hand, wishes, bookings that a person confirms, the owner's own look, other people's sites. */
jest.setTimeout(600_000);

const pair = pairForTests();

const jobOf = (mail: string) =>
  pair.app.sql<{ id: number; approval: string; total_minor: number; pays: string; fields: string }>(
    "SELECT j.* FROM jobs j WHERE j.mail = ? ORDER BY j.id DESC",
    mail,
  )[0]!;

it("two services at an address that the look-up does not know, again every year, paid at the door", async () => {
  const { postcode } = pair.app.sql<{ postcode: string }>("SELECT postcode FROM sites WHERE postcode LIKE 'MW 3%'")[0]!;
  await go(pair.door, `${pair.app.url}/book`);
  await pair.door.getByRole("button", { name: "My address is not in the list" }).click();
  const form = pair.door.getByRole("group", { name: "Your address in full" });
  await form.getByLabel("House number, street and town").fill("The Old Boathouse, Northfield");
  await form.getByLabel("Postcode").fill("ZZ 9");
  await form.getByRole("button", { name: "Use this address" }).click();
  await form.getByText(/We cannot find this postcode/).waitFor();
  await form.getByLabel("Postcode").fill(postcode);
  await form.getByRole("button", { name: "Use this address" }).click();
  await pair.door.getByRole("button", { name: "Continue" }).click();
  await pair.door.getByRole("checkbox", { name: /Gas fire check/ }).click();
  await pair.door.getByRole("checkbox", { name: /Landlord/ }).click();
  // What must be answered is said where it stands.
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  await pair.door.getByText("Please answer this.").waitFor();
  await pair.door.getByRole("button", { name: "More: How many gas fires?" }).click();
  await pair.door.getByRole("button", { name: "yearly", exact: true }).click();
  await pair.door.locator("footer").getByText("€205.00").waitFor();
  await keepWindow(pair.door);
  await pair.door.getByRole("group", { name: "Where can we park?" }).getByRole("textbox").fill("In the yard");
  await sayWho(pair.door, "Greta Dahl", "greta.basket@example.com");
  await pair.door.getByText(/then yearly/).waitFor();
  await pair.door.getByText("I pay at the door, in cash or by card").click();
  await pair.door.getByRole("button", { name: "Book", exact: true }).click();
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  await pair.door.getByText("We are looking forward to your fireside.").waitFor();
  await pair.door.getByText("Gas fire check, Landlord’s yearly certificate").waitFor();
  // A repeat is ended by the link, and taken up again.
  await pair.door.locator("html[data-ready]").waitFor({ state: "attached" });
  await pair.door.getByRole("button", { name: "End it" }).click();
  await pair.door.getByText("We do not come by ourselves any more.").waitFor();
  await pair.door.getByRole("button", { name: "Take it up again" }).click();
  await pair.door.getByText(/^We come every year on \d+ \w+\./).waitFor();
  const job = jobOf("greta.basket@example.com");
  expect([job.total_minor, job.pays, JSON.parse(job.fields)]).toMatchObject([
    20_500,
    "at the door",
    [{ words: "In the yard" }],
  ]);
  expect(
    pair.app.sql(
      "SELECT r.rule, s.line FROM repeats r JOIN sites s ON s.id = r.site_id JOIN jobs j ON j.customer_id = r.customer_id WHERE j.id = ?",
      job.id,
    ),
  ).toEqual([{ rule: "FREQ=YEARLY", line: "The Old Boathouse, Northfield" }]);
});

it("two of one mail are put side by side, merged, and taken apart again", async () => {
  const post = (at: string, body: object) =>
    pair.door.request
      .post(`${pair.app.url}/api/${at}`, { data: body })
      .then((answer) => answer.json() as Promise<{ value: never }>);
  const service = pair.app.sql<{ id: number }>("SELECT id FROM services WHERE code = 'SD'")[0]!.id;
  for (const [n, name] of ["Ruth Castell", "Emil Castell"].entries()) {
    const [address] = (await post("views/find-address", { text: `${12 + 2 * n} alder` })).value as { id: string }[];
    const asked = { addressId: address!.id, items: [{ serviceId: service }] };
    const offers = (
      (await post("views/offers", asked)).value as { windows: { date: string; from: number; to: number }[] }
    ).windows;
    const { date, from, to } = offers[n]!;
    await post("operations/book", {
      ...asked,
      date,
      from,
      to,
      note: "",
      customer: { name, mail: "castell@example.com", phone: `+1 202 555 016${n}`, reminders: false },
    });
  }
  await go(pair.office, `${pair.app.url}/customers`);
  await pair.office.getByRole("button", { name: /may be the same person/ }).click();
  const duplicates = pair.office.getByRole("region", { name: "Possible duplicates" });
  await duplicates.getByRole("button", { name: "One person: keep this one" }).first().click();
  await pair.office.getByText(/They are one customer now/).waitFor();
  expect(pair.app.sql("SELECT count(*) AS n FROM customers WHERE merged_into IS NOT NULL")).toEqual([{ n: 1 }]);
  await pair.office.getByRole("button", { name: "Undo" }).click();
  await duplicates.getByText(/was merged into/).waitFor({ state: "hidden" });
  expect(pair.app.sql("SELECT count(*) AS n FROM customers WHERE merged_into IS NOT NULL")).toEqual([{ n: 0 }]);
  expect(
    pair.app.sql<{ n: number }>("SELECT count(*) AS n FROM possible_duplicates WHERE state = 'open'")[0]!.n,
  ).toBeGreaterThan(0);
});

it("the owner's look is seen while it is typed, and what could not be read is mended", async () => {
  await go(pair.office, `${pair.app.url}/setup/front-door`);
  const preview = pair.office.frameLocator("iframe[title='The front door as it is being set up']");
  await pair.office.getByLabel("Welcome").fill("Warm rooms since the first frost.");
  await preview.getByText("Warm rooms since the first frost.").waitFor();
  const accent = pair.office.getByLabel("Buttons and what is chosen");
  await accent.fill("#ffe08a");
  await pair.office.getByText("Words could not be read like this.").waitFor();
  await pair.office.getByRole("button", { name: "Make it readable" }).click();
  await pair.office.getByRole("button", { name: "Save", exact: true }).click();
  await pair.office.getByText("The front door is saved").waitFor();
  await go(pair.door, `${pair.app.url}/book`);
  await pair.door.getByText("Warm rooms since the first frost.").waitFor();
  expect(pair.app.sql<{ accent: string }>("SELECT accent FROM front_door")[0]!.accent).toBe(await accent.inputValue());
  // Somebody who is not signed in sees no preview.
  await go(pair.door, `${pair.app.url}/book/preview`);
  expect(new URL(pair.door.url()).pathname).toBe("/signin");
});

it("a directory reads the feed and leads to the service that was chosen there", async () => {
  await go(pair.door, `${pair.app.url}/standins/directory`);
  const business = pair.door.getByRole("region", { name: "Marrowick Hearth & Flue" });
  await business.getByText(/79\.00 to \d+\.\d\d EUR/).waitFor();
  await business.getByRole("link", { name: "Book" }).first().click();
  await pair.door.waitForURL(/service=.*from=directory/);
  await pair.door.getByRole("heading", { name: "What’s the address?" }).waitFor();
});

it("customers' pages may stand in a frame on the owner's sites, the office nowhere", async () => {
  const policy = async (path: string) =>
    (await pair.door.request.get(pair.app.url + path, { maxRedirects: 0 })).headers()["content-security-policy"];
  expect(await policy("/book")).toContain("frame-ancestors 'self' https://marrowick.example;");
  for (const path of ["/today", "/signin", "/book/preview"])
    expect(await policy(path)).toContain("frame-ancestors 'self';");
  await go(pair.office, `${pair.app.url}/setup/sharing`);
  await pair.office.getByRole("img", { name: /QR code/ }).waitFor();
  expect(await pair.office.getByLabel("Frame that grows with its content", { exact: true }).innerText()).toContain(
    `<iframe src="${pair.app.url}/book"`,
  );
});

it("in a frame on the owner's site the code of Sharing shows the whole page, grows with it, and books", async () => {
  const code = await pair.office.getByLabel("Frame that grows with its content", { exact: true }).innerText();
  // A browser lets pages from outside frame nothing of this machine: so the owner's site is one of it, under another name.
  const port = await freePort();
  const site = `http://127.0.0.1:${port}`;
  const server = createServer(
    (_, response) => void response.setHeader("content-type", "text/html").end(`<h1>Our own site</h1>${code}`),
  ).listen(port, "127.0.0.1");
  await go(pair.office, `${pair.app.url}/setup/front-door`);
  const sites = pair.office.getByRole("combobox", { name: "Sites" });
  await sites.fill(site);
  await sites.press("Enter");
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText("The front door is saved").first().waitFor();
  await pair.door.goto(`${site}/`);
  const frame = pair.door.frameLocator("iframe");
  const height = () => pair.door.evaluate(() => document.querySelector("iframe")!.getBoundingClientRect().height);
  await findAddress(frame, "34 alder");
  const before = await height();
  await frame.getByRole("button", { name: "Continue" }).click();
  await frame.getByRole("checkbox", { name: /Smoke draught test/ }).click();
  // The list of services is longer than the frame was, and nothing of it is cut.
  await expectSoon(pair.door, async () => (await height()) > before + 300);
  await frame.getByRole("button", { name: "Choose a time" }).click();
  await frame
    .getByRole("group", { name: /day \d/ })
    .last()
    .getByRole("button")
    .first()
    .click();
  await frame.getByRole("button", { name: /^Choose \w+day/ }).click();
  for (const [label, text] of [
    ["Name", "Ada Frame"],
    ["Email", "ada.frame@example.com"],
  ] as const)
    await frame.getByRole("textbox", { name: label, exact: true }).fill(text);
  await frame.getByLabel("Phone").fill("+1 555 0145");
  await frame.getByRole("button", { name: "Continue" }).click();
  await frame.getByRole("button", { name: "Book", exact: true }).click();
  await frame.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(jobOf("ada.frame@example.com")).toMatchObject({ approval: "given" });
  server.close();
});

it("nothing personal has stood in an address or in the log", () => {
  const known = pair.app
    .sql<{ name: string; mail: string; phone: string }>(
      "SELECT name, mail, phone FROM customers WHERE erased_at IS NULL ORDER BY id DESC LIMIT 8",
    )
    .flatMap(({ name, mail, phone }) => [name, mail, phone]);
  expect([pair.addresses.length > 100, known.length]).toEqual([true, 24]);
  const seen = `${pair.addresses.map(decodeURIComponent).join("\n")}\n${pair.app.log()}`;
  expect(known.filter((word) => seen.includes(word))).toEqual([]);
});
