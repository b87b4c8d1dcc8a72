import { findings } from "./support/axe";
import { keepWindow } from "./support/door";
import { as, linkOf, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go, mailedLink } from "./support/server";

/** What brings customers back: a campaign from its words to the money, a review from the question to the answer, points from one booking to the next. */
jest.setTimeout(600_000);

const pair = pairForTests();
const frames = 2_400;
const dayAfter = (date: string, n: number) => new Date(Date.parse(date) + n * 86_400_000).toISOString().slice(0, 10);
const today = () => {
  const [{ offset }] = pair.app.sql<{ offset: number }>("SELECT demo_offset_ms AS offset FROM business") as [
    { offset: number },
  ];
  return new Date(Date.now() + offset).toISOString().slice(0, 10);
};

/** The words of the text: the email is shown in a frame in which no script runs, those of axe neither. */
async function seeText(): Promise<void> {
  await pair.office.getByRole("tab", { name: "text", exact: true }).click();
  await pair.office.locator("iframe").waitFor({ state: "detached" });
}

it("a campaign is written, invites whom there is room for, is booked upon by its link, and earns", async () => {
  const { app, office, door } = pair;
  await go(office, `${app.url}/messages?list=campaigns`);
  await office.getByRole("button", { name: "New campaign" }).click();
  await office.getByRole("textbox", { name: "Name" }).fill("Sweep again");
  await office.getByRole("combobox", { name: "Service", exact: true }).click();
  await office.getByRole("option", { name: "Chimney sweep" }).click();
  const had = office.getByRole("combobox", { name: "They have had" });
  await had.press("Backspace");
  await had.fill("Chimney sweep");
  await office.getByRole("option", { name: "Chimney sweep" }).click();
  await office.getByLabel("The last time, months ago at least").fill("");
  await office.getByLabel("And at most", { exact: true }).fill("");
  await office.getByLabel("Not invited for, days").fill("0");
  await office.getByLabel("Only who has no coming visit and no repeat").uncheck();
  const who = office.getByRole("region", { name: "Who and how many" });
  await who.getByText(/^[1-9]\d* customers$/).waitFor();
  await who.getByRole("button", { name: "How many is there room for?" }).click();
  await who.getByText(/^There is room for/).waitFor();
  // Words that a customer would read as a gap are said while they are typed.
  const words = office.getByRole("textbox", { name: "Email", exact: true });
  const good = await words.inputValue();
  await words.fill(`${good}{{nickname}}`);
  await office.getByText("There is no field {{nickname}}.").waitFor();
  await words.fill(good);
  await seeText();
  expect(await findings(office)).toEqual([]);
  await office.getByRole("button", { name: "Save" }).click();
  await office.getByRole("button", { name: "Begin" }).click();
  await office.getByText(/^Running\. The next invitations go out on/).waitFor();

  const campaignId = app.sql<{ id: number }>("SELECT max(id) AS id FROM campaigns")[0]!.id;
  await moveToMorningOf(pair, dayAfter(today(), 1), "10:02");
  await expectSoon(
    office,
    () =>
      app.sql(
        `SELECT 1 FROM campaign_invites i JOIN messages m ON m.invite_id = i.id WHERE i.campaign_id = ? AND m.state IN ('sent', 'delivered')`,
        campaignId,
      ).length > 0,
    frames,
  );
  const link = await mailedLink(office, app.url, /Chimney sweep again/, "offer");
  await go(door, link);
  expect(await findings(door)).toEqual([]);
  await door
    .getByRole("group", { name: /day \d/ })
    .getByRole("button")
    .first()
    .click();
  await door.getByRole("button", { name: /^Book \w+day/ }).click();
  await door.waitForURL(/\/my\/.*booked/);

  const job = app.sql<{ id: number; visitId: number; date: string; total: number; customerId: number }>(
    `SELECT j.id, v.id AS visitId, v.date, j.total_minor AS total, j.customer_id AS customerId FROM campaign_invites i JOIN jobs j ON j.id = i.job_id
      JOIN visits v ON v.job_id = j.id WHERE i.campaign_id = ?`,
    campaignId,
  );
  expect(job).toHaveLength(1);
  const [{ visitId, date, total, customerId }] = job as [(typeof job)[number]];
  await go(office, `${app.url}/messages?list=campaigns&open=${campaignId}`);
  await office.getByRole("region", { name: "Results" }).getByText(/^1 · /).first().waitFor();

  await moveToMorningOf(pair, date, "08:05");
  const odile = await as(app.url, "odile");
  const ticked = app
    .sql<{ checklist: string }>("SELECT checklist FROM visits WHERE id = ?", visitId)
    .flatMap(({ checklist }) => (JSON.parse(checklist) as { id: string }[]).map((item) => item.id));
  for (const to of ["on the way", "on site", "done"])
    expect(
      await post(`${app.url}/api/operations/advance-visit`, { visitId, to, ...(to === "done" && { ticked }) }, odile),
    ).toMatchObject({ ok: true });
  const [invoice] = app.sql<{ id: number }>(
    "SELECT i.id FROM invoices i JOIN visits v ON v.job_id = i.job_id WHERE v.id = ?",
    visitId,
  );
  const paid = await post(
    `${app.url}/api/operations/record-payment`,
    {
      customerId,
      method: "cash",
      amountMinor: total,
      invoices: [{ invoiceId: invoice!.id, amountMinor: total }],
      key: `campaign ${campaignId}`,
    },
    odile,
  );
  expect(paid).toMatchObject({ ok: true });
  await go(office, `${app.url}/messages?list=campaigns&open=${campaignId}`);
  await office
    .getByRole("region", { name: "Results" })
    .getByText(`€${(total / 100).toFixed(2)}`)
    .nth(1)
    .waitFor();
  await seeText();
  expect(await findings(office)).toEqual([]);
});

it("a review tells of trouble, stands before the office, and is answered", async () => {
  const { app, office, door } = pair;
  const link = await mailedLink(office, app.url, /How was it\?/, "review");
  await go(door, link);
  await door.getByRole("radio", { name: "4 of 5 stars" }).press("Space");
  await door.getByLabel("What was good").fill("On time, and friendly");
  await door.getByLabel("What was not right").fill("The flap rattles in the wind");
  // What is typed survives a reload.
  await go(door, link);
  expect(await door.getByLabel("What was not right").inputValue()).toBe("The flap rattles in the wind");
  expect(await findings(door)).toEqual([]);
  await door.getByRole("button", { name: "Send" }).click();
  await door.getByText("We are sorry about that. One of us gets in touch with you.").waitFor();
  await door
    .getByRole("link", { name: /^Write on/ })
    .first()
    .waitFor();

  await go(office, `${app.url}/today`);
  await office.getByText(/tells of trouble: “The flap rattles in the wind”/).click();
  await office.waitForURL(/list=reviews/);
  await office.getByLabel(/^Answer /).fill("We come on Thursday and see to the flap.");
  expect(await findings(office)).toEqual([]);
  await office.getByRole("button", { name: "Send the answer" }).click();
  await office.getByLabel(/^Answer /).waitFor({ state: "detached" });
  await go(door, link);
  await door.getByText("We come on Thursday and see to the flap.").waitFor();
  await go(office, `${app.url}/today`);
  await office.getByRole("heading", { name: /Needs a person/ }).waitFor();
  expect(await office.getByText(/The flap rattles/).count()).toBe(0);
});

it("points that were given for a payment take something off the next booking, as a line of its own", async () => {
  const { app, door } = pair;
  const [has] = app.sql<{ jobId: number; customerId: number; n: number }>(
    `SELECT max(j.id) AS jobId, p.customer_id AS customerId, (SELECT sum(points) FROM points WHERE customer_id = p.customer_id) AS n
      FROM points p JOIN jobs j ON j.customer_id = p.customer_id WHERE j.proof = 'known' AND j.state = 'done'
      GROUP BY p.customer_id HAVING n >= 100 ORDER BY n DESC LIMIT 1`,
  ) as [{ jobId: number; customerId: number; n: number }];
  await go(door, await linkOf(app.url, has.jobId));
  const points = door.getByRole("region", { name: "Your points" });
  await points.getByText(`${has.n} points`).waitFor();
  expect(await findings(door)).toEqual([]);
  await door.getByRole("link", { name: /^Book (again|something else)/ }).click();
  await door.getByRole("checkbox", { name: /^Smoke draught test/ }).click();
  await keepWindow(door);
  await door.getByRole("button", { name: "Continue" }).click();
  await door.getByLabel(/^Use \d+ of my points/).check();
  await door.getByText(/loyalty points/).waitFor();
  await door.getByRole("button", { name: /^Book/ }).click();
  await door.waitForURL(/\/my\/.*booked/);
  await door
    .getByText(/loyalty points/)
    .first()
    .waitFor();
  const [after] = app.sql<{ n: number; used: number }>(
    "SELECT sum(points) AS n, -sum(points) FILTER (WHERE kind = 'used') AS used FROM points WHERE customer_id = ?",
    has.customerId,
  ) as [{ n: number; used: number }];
  expect(after.used).toBeGreaterThanOrEqual(100);
  expect(after.n).toBe(has.n - after.used);
});
