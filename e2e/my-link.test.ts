import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { findAddress, sayWho } from "./support/door";
import { desk, expectSoon, go, openPage, phone, type Running, signIn, startBrowser, startDemo } from "./support/server";

/** What customers do by their own link, on a phone: confirm, move, add, cancel; and what they ask for where nothing suits. */
jest.setTimeout(420_000);

let app: Running;
let browser: Browser;
let page: Page;
let troubles: string[];
beforeAll(async () => {
  [app, browser] = await Promise.all([startDemo(), startBrowser()]);
  ({ page, troubles } = await openPage(browser, phone));
});
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});
afterEach(() => expect(troubles).toEqual([]));

const visit = () =>
  app.sql<{ id: number; state: string; window_from: number; confirmed_at: number | null }>(
    "SELECT v.* FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE c.mail = 'mira.link@example.com'",
  )[0]!;

async function chooseStove() {
  await go(page, `${app.url}/book`);
  await findAddress(page, "4 alder");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("checkbox", { name: /Chimney sweep/ }).click();
  await page.getByRole("button", { name: "More: How many flues?" }).click();
  await page.getByRole("group", { name: "Could there be a nest?" }).getByRole("button", { name: "No" }).click();
  await page.getByRole("button", { name: "Choose a time" }).click();
}

it("a customer books, confirms, moves, and tells what we should know with a photo", async () => {
  await chooseStove();
  await page.getByRole("button", { name: "Later days" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(page, "Mira Okonjo", "mira.link@example.com");
  await page.getByLabel("A code, if you have one").fill("winter");
  await page.getByRole("button", { name: "Use it" }).click();
  await page.getByText("We do not know this code.").waitFor();
  await page.getByLabel("A code, if you have one").fill("spring10");
  await page.getByRole("button", { name: "Use it" }).click();
  await page.getByText("✓ SPRING10 applied.").waitFor();
  await page.locator("footer").getByText("€71.10").waitFor();
  await page
    .getByText(
      "You can move it yourself until 24 h before, and cancel until 2 h before. Cancelling costs nothing until 24 h before; after that €25.00. If nobody lets us in, €35.00.",
    )
    .waitFor();
  await page.getByRole("button", { name: "Book", exact: true }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  // Whoever has just booked is not asked again whether they will be there; whoever comes by the mail's link may say so.
  expect(await page.getByRole("button", { name: "I will be there" }).count()).toBe(0);
  await go(page, page.url().split("?")[0]!);
  await page.getByRole("button", { name: "I will be there" }).click();
  await page.getByText("✓ You have confirmed").waitFor();
  expect(
    app.sql(
      "SELECT j.total_minor, c.code FROM jobs j JOIN coupons c ON c.id = j.coupon_id WHERE j.mail = 'mira.link@example.com'",
    ),
  ).toEqual([{ total_minor: 7110, code: "SPRING10" }]);
  const before = visit();
  expect(before.confirmed_at).not.toBeNull();

  await page.getByRole("button", { name: "Move", exact: true }).click();
  await page.getByRole("button", { name: "Later days" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .last()
    .getByRole("button")
    .last()
    .click();
  await page.getByRole("button", { name: /^Move to/ }).click();
  await page.getByRole("button", { name: "I will be there" }).waitFor();
  expect(visit()).toMatchObject({ id: before.id, state: "promised", confirmed_at: null });
  expect(visit().window_from).not.toBe(before.window_from);
  expect(app.sql("SELECT count(*) AS n FROM messages WHERE occasion LIKE 'moved%' AND channel = 'mail'")).toEqual([
    { n: 1 },
  ]);

  await page.getByRole("button", { name: "Tell us something" }).click();
  const add = page.getByRole("group", { name: "Tell us something" });
  await add.getByLabel("What should we know?").fill("Side gate, code 4471");
  await add.locator("input[type=file]").setInputFiles({
    name: "gate.png",
    mimeType: "image/png",
    buffer: await sharp({ create: { width: 40, height: 30, channels: 3, background: "#2E6C80" } })
      .png()
      .toBuffer(),
  });
  await add.getByRole("img", { name: "Photo 1" }).waitFor();
  await add.getByRole("button", { name: "Send" }).click();
  await add.waitFor({ state: "hidden" });
  expect(app.sql("SELECT words, json_array_length(photos) AS photos FROM additions")).toEqual([
    { words: "Side gate, code 4471", photos: 1 },
  ]);
});

it("the visit goes into a calendar file, and the office reads what was added", async () => {
  const address = await page.getByRole("link", { name: "Into my calendar" }).getAttribute("href");
  const file = await (await page.request.get(app.url + address!)).text();
  expect(file).toMatch(/BEGIN:VCALENDAR[\s\S]*SUMMARY:Chimney sweep\\, Marrowick Hearth & Flue[\s\S]*SEQUENCE:1/);
  const office = await openPage(browser, desk);
  await signIn(office.page, app.url, "tomas");
  const [{ date }] = app.sql<{ date: string }>("SELECT date FROM visits WHERE id = ?", visit().id) as [
    { date: string },
  ];
  await go(office.page, `${app.url}/board?date=${date}&visit=${visit().id}`);
  await office.page.getByText("Side gate, code 4471").waitFor();
  await office.page.getByRole("img", { name: "Photo 1" }).waitFor();
  await office.context.close();
});

it("what somebody has agreed to is taken back by the same tick", async () => {
  const agreed = () => app.sql("SELECT reminders, offers FROM customers WHERE mail = 'mira.link@example.com'");
  expect(agreed()).toEqual([{ reminders: 1, offers: 0 }]);
  const may = page.getByRole("group", { name: "What we may write to you" });
  await may.getByLabel(/about offers/).click();
  await expectSoon(
    page,
    () => app.sql("SELECT 1 FROM customers WHERE mail = 'mira.link@example.com' AND offers = 1").length === 1,
  );
  await may.getByLabel(/^Remind me/).click();
  await expectSoon(
    page,
    () => app.sql("SELECT 1 FROM customers WHERE mail = 'mira.link@example.com' AND reminders = 0").length === 1,
  );
  expect(agreed()).toEqual([{ reminders: 0, offers: 1 }]);
});

it("cancelling in time costs nothing, says so before, and gives the window back", async () => {
  await page.getByRole("button", { name: "Cancel", exact: true }).click();
  await page.getByText("Cancelling now costs nothing.", { exact: true }).waitFor();
  await page.getByRole("button", { name: "Cancel the visit" }).click();
  await page.getByRole("heading", { name: "Cancelled" }).waitFor();
  expect([
    visit().state,
    app.sql("SELECT count(*) AS n FROM placements WHERE visit_id = ?", visit().id),
    app.sql(
      "SELECT count(*) AS n FROM invoices i JOIN jobs j ON j.id = i.job_id JOIN customers c ON c.id = j.customer_id WHERE c.mail = 'mira.link@example.com'",
    ),
  ]).toEqual(["cancelled", [{ n: 0 }], [{ n: 0 }]]);
});

it("whoever books again by the link need not say again who and where, and is the same customer once a code has shown it", async () => {
  await page.getByRole("button", { name: "Confirm your email with a code" }).click();
  const box = path.join(app.folder, "standins", "mail");
  const code = () =>
    readdirSync(box)
      .map((name) => /^Subject: (\d{6}) is your code/m.exec(readFileSync(path.join(box, name), "utf8"))?.[1])
      .find(Boolean);
  await expectSoon(page, () => code() !== undefined);
  await page.getByLabel("Code").fill("000000");
  await page.getByRole("button", { name: "Confirm", exact: true }).click();
  await page.getByText("This code is not right").waitFor();
  await page.getByLabel("Code").fill(code()!);
  await page.getByRole("button", { name: "Confirm", exact: true }).click();
  await page.getByRole("region", { name: "Confirm your email" }).waitFor({ state: "detached" });
  await page.getByRole("link", { name: "Book again" }).click();
  await page.getByRole("heading", { name: "What can we do for you?" }).waitFor();
  await page.getByRole("checkbox", { name: /Smoke draught test/ }).click();
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
  expect(await page.getByRole("textbox", { name: "Email", exact: true }).inputValue()).toBe("mira.link@example.com");
  await page.getByRole("button", { name: "Continue" }).click();
  await page.getByRole("button", { name: "Book", exact: true }).click();
  await page.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(
    app.sql(
      "SELECT count(*) AS jobs, count(DISTINCT j.customer_id) AS customers, count(DISTINCT j.site_id) AS sites FROM jobs j WHERE j.mail = 'mira.link@example.com'",
    ),
  ).toEqual([{ jobs: 2, customers: 1, sites: 1 }]);
});

it("whoever finds no window that suits says what would, and the office has it", async () => {
  await chooseStove();
  await page.getByRole("button", { name: "None of these suits me" }).click();
  await page.getByRole("group", { name: "Which days would suit?" }).getByRole("button", { name: "Sat" }).click();
  await page.getByRole("group", { name: "Which times?" }).getByRole("button", { name: "From 15:00" }).click();
  await page.getByRole("group", { name: "How soon?" }).getByRole("button", { name: "Within a month" }).click();
  await page.getByLabel("Anything else").fill("Only on Saturdays after three");
  // What was typed is still there after a reload.
  await page.reload();
  await page.getByRole("button", { name: "None of these suits me" }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Jonas Lund");
  await page.getByRole("textbox", { name: "Email", exact: true }).fill("jonas@example.com");
  await page.getByLabel("Phone").fill("+1 555 0143");
  await page.getByRole("button", { name: "Tell me when a time comes free" }).click();
  await page.getByText("Thank you. When a time that suits you opens").waitFor();
  const office = await openPage(browser, desk);
  await signIn(office.page, app.url, "tomas");
  await office.page.getByRole("link", { name: /Jonas Lund asks for Chimney sweep/ }).click();
  const sheet = office.page.getByRole("complementary", { name: "Details" });
  await sheet.getByText(/Saturdays, 15–24, until /).waitFor();
  await sheet.getByRole("button", { name: "Answered by phone" }).click();
  await office.page.getByText("The request of Jonas Lund is answered").waitFor();
  await sheet.waitFor({ state: "hidden" });
  await office.context.close();
});

it("search engines are told who we are and what can be booked, hidden services not", async () => {
  await go(page, `${app.url}/book`);
  const told = JSON.parse((await page.locator("script[type='application/ld+json']").first().textContent())!) as {
    "@type": string;
    name: string;
    makesOffer: {
      itemOffered: { name: string };
      priceSpecification?: { price?: string; minPrice?: string; maxPrice?: string };
    }[];
  };
  const offer = (name: string) => told.makesOffer.find((o) => o.itemOffered.name === name);
  expect([
    told["@type"],
    told.name,
    offer("Chimney sweep")?.priceSpecification?.minPrice,
    offer("Flue relining")?.priceSpecification?.minPrice,
    offer("Pizza-oven flue clean"),
  ]).toEqual([["HVACBusiness", "RoofingContractor"], "Marrowick Hearth & Flue", "79.00", "1850.00", undefined]);
});
