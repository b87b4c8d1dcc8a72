import { isDeepStrictEqual } from "node:util";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go, mailedLink, typeDate } from "./support/server";
import { addDays, weekdayOf } from "@/core/time/dates";

/** Work that comes back, as the office agrees it and changes it. */
jest.setTimeout(600_000);

const pair = pairForTests();
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
interface Ahead {
  date: string;
  at: number;
}
const ahead = (id: number) =>
  pair.app.sql<Ahead>(
    "SELECT date, window_from AS at FROM visits WHERE repeat_id = ? AND state = 'forecast' ORDER BY date",
    id,
  );
const one = () =>
  pair.app.sql<{ id: number }>(
    "SELECT id FROM repeats WHERE rule = 'FREQ=WEEKLY;INTERVAL=4' AND state = 'active' ORDER BY id LIMIT 1",
  )[0]!.id;

it("twelve months of a repeat lie ahead; one date is left out, moved, and set back as the rule says", async () => {
  const id = one();
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  await sheet()
    .getByText(/^Every 4 weeks on \w+day/)
    .waitFor();
  await expectSoon(pair.office, () => ahead(id).length >= 12);
  const [, second] = ahead(id) as [Ahead, Ahead];
  const skips = sheet().getByRole("button", { name: "Skip" });
  await skips.nth(1).click();
  await expectSoon(pair.office, () => !ahead(id).some(({ date }) => date === second.date));
  await sheet().getByRole("button", { name: "As the rule says" }).click();
  await sheet().getByRole("button", { name: "As the rule says" }).waitFor({ state: "detached" });
  expect(ahead(id)[1]!.date).toBe(second.date);
  await sheet().getByRole("button", { name: "Change", exact: true }).nth(1).click();
  await sheet().getByLabel("From", { exact: true }).fill("10:10");
  await sheet().getByLabel("Until", { exact: true }).fill("12:10");
  await sheet().getByRole("button", { name: "Do this for this one" }).click();
  await expectSoon(pair.office, () => ahead(id)[1]!.at !== second.at);
});

it("it changes from now on, says before what that does, and is taken back by one tap", async () => {
  const id = one();
  const before = ahead(id).map(({ date }) => date);
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  await sheet().getByRole("button", { name: "Change…" }).click();
  await sheet().getByRole("combobox", { name: "Unit" }).click();
  await pair.office.getByRole("option", { name: "months" }).click();
  await sheet().getByRole("combobox", { name: "Which day" }).click();
  await pair.office.getByRole("option", { name: "on the last working day" }).click();
  await sheet()
    .getByText(/forecasts are laid out anew/)
    .waitFor();
  await sheet().getByRole("button", { name: "Do this" }).click();
  await sheet()
    .getByText(/^Every 4 months on the last working day/)
    .waitFor();
  await pair.office.getByRole("alert").getByRole("button", { name: "Undo" }).click();
  await expectSoon(pair.office, () =>
    isDeepStrictEqual(
      ahead(id).map(({ date }) => date),
      before,
    ),
  );
  await sheet()
    .getByText(/^Every 4 weeks on \w+day/)
    .waitFor();
});

it("it pauses and goes on, ends and is taken up again", async () => {
  const id = one();
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  const [first] = ahead(id) as [Ahead];
  await sheet().getByRole("button", { name: "Pause…" }).click();
  await typeDate(sheet().getByRole("group", { name: "Until" }), first.date);
  await sheet().getByText("1 date does not take place.").waitFor();
  await sheet().getByRole("button", { name: "Pause", exact: true }).click();
  await sheet().getByRole("button", { name: "End the pause" }).waitFor();
  await expectSoon(pair.office, () => !ahead(id).some(({ date }) => date === first.date));
  await sheet().getByRole("button", { name: "End the pause" }).click();
  await expectSoon(pair.office, () => ahead(id).some(({ date }) => date === first.date));
  await sheet().getByRole("button", { name: "End…" }).click();
  await sheet().getByLabel("Why, for ourselves").fill("The oven was sold");
  await sheet().getByRole("button", { name: "End it" }).click();
  await sheet()
    .getByText(/Ended\. The oven was sold\./)
    .waitFor();
  await sheet().getByRole("button", { name: "Resume" }).click();
  await expectSoon(pair.office, () => ahead(id).some(({ date }) => date === first.date));
});

it("whoever is asked by a link books a time that can be kept, or says not this time", async () => {
  const asked = () =>
    pair.app.sql<{ state: string }>("SELECT state FROM repeat_asks ORDER BY id DESC LIMIT 1")[0]!.state;
  expect(asked()).toBe("asked");
  await go(pair.door, await mailedLink(pair.office, pair.app.url, /Is it time again/, "again"));
  await pair.door
    .getByRole("group", { name: /day \d/ })
    .getByRole("button")
    .first()
    .click();
  await pair.door.getByRole("button", { name: /^Book \w+day/ }).click();
  await pair.door.waitForURL(/\/my\/.*booked/);
  const booked = pair.app.sql<{ n: number }>(
    `SELECT count(*) AS n FROM repeat_asks a JOIN visits v ON v.repeat_id = a.repeat_id AND v.repeat_date = a.date
      WHERE a.state = 'booked' AND v.state = 'promised' AND v.job_id = a.job_id`,
  );
  expect(booked).toEqual([{ n: 1 }]);
});

it("what waits to be phoned stands in Incoming and is booked on its own page", async () => {
  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.getByText("to be phoned").first().click();
  await pair.office.waitForURL(/\/repeats\?open=/);
  const id = Number(new URL(pair.office.url()).searchParams.get("open"));
  await sheet().getByRole("button", { name: "Book it…" }).click();
  await sheet()
    .getByRole("group", { name: /day \d/ })
    .getByRole("button")
    .first()
    .click();
  await sheet()
    .getByRole("button", { name: /^Book \w+ \d/ })
    .click();
  await expectSoon(
    pair.office,
    () => pair.app.sql("SELECT 1 FROM repeat_asks WHERE repeat_id = ? AND state = 'booked'", id).length === 1,
  );
});

it("many are changed at once: what it does is shown, half of it is taken, and all of that is taken back", async () => {
  const technicians = () =>
    pair.app
      .sql<{ technician_id: number | null }>("SELECT technician_id FROM repeats WHERE state = 'active' ORDER BY id")
      .map((repeat) => repeat.technician_id);
  const freed = () => technicians().filter((id) => id === null).length;
  const before = technicians();
  const free = freed();
  await go(pair.office, `${pair.app.url}/repeats`);
  await pair.office.getByRole("button", { name: "Change many…" }).click();
  const dialog = pair.office.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "Technician" }).click();
  await pair.office.getByRole("option", { name: "whoever is best" }).click();
  await dialog.getByRole("button", { name: "Show what it does" }).click();
  await dialog.getByText(/\d+ of \d+ are changed/).waitFor();
  const taken = dialog.getByRole("checkbox", { checked: true });
  const n = await taken.count();
  expect(n).toBeGreaterThan(1);
  await taken.first().click();
  await dialog.getByRole("button", { name: `Do this for ${n - 1}` }).click();
  await pair.office.getByText(new RegExp(`^${n - 1} repeats? (is|are) changed`)).waitFor();
  expect(freed()).toBeGreaterThan(free);
  // Also after the page was left: what was changed together is taken back together.
  await go(pair.office, `${pair.app.url}/repeats`);
  await pair.office.getByRole("button", { name: "Change many…" }).click();
  await pair.office.getByRole("dialog").getByRole("button", { name: "Take it back" }).click();
  await expectSoon(pair.office, () => technicians().join() === before.join());
});

it("a piece of work gets a name in set-up, is booked on the phone by it, and comes back every so many times", async () => {
  const { office, app } = pair;
  await go(office, `${app.url}/setup/job-patterns?id=new`);
  await office.getByLabel("Name", { exact: true }).fill("Sweep with two flues");
  await office.getByRole("combobox", { name: "Service" }).click();
  await office.getByRole("option", { name: "Chimney sweep" }).click();
  await office.getByRole("button", { name: "More: How many flues?" }).click();
  await office.getByLabel("Minutes at the place").fill("70");
  await office.getByLabel("What the technician is told").fill("Take the long rods.");
  await office.getByRole("button", { name: "Item", exact: true }).click();
  await office.getByRole("textbox", { name: "Item 1" }).fill("Second flue looked at");
  await office.getByRole("button", { name: "Save" }).click();
  await office.waitForURL(/job-patterns\?id=\d+/);
  const patternId = Number(new URL(office.url()).searchParams.get("id"));

  await go(office, `${app.url}/why-not?address=a700`);
  await office.getByRole("combobox", { name: "Service" }).click();
  await office.getByRole("option", { name: "Sweep with two flues" }).click();
  await office.getByText(/takes 1 h/).waitFor();
  await office
    .getByRole("button", { name: /offered/ })
    .filter({ hasNotText: "not offered" })
    .first()
    .click();
  await office.getByLabel("Name", { exact: true }).fill("Runa Elstad");
  await office.getByLabel("Email").fill("runa@example.com");
  await office.getByLabel("Phone").fill("+1 555 0177");
  await office.getByRole("button", { name: "Book it and tell them" }).click();
  await office.waitForURL(/\/board\?date=.*visit=/);
  await sheet().getByText("Take the long rods.").waitFor();
  const visitId = Number(new URL(office.url()).searchParams.get("visit"));
  expect(app.sql("SELECT minutes, checklist LIKE '%Second flue%' AS listed FROM visits WHERE id = ?", visitId)).toEqual(
    [{ minutes: 70, listed: 1 }],
  );

  const id = one();
  await go(office, `${app.url}/repeats?open=${id}`);
  await sheet().getByRole("button", { name: "Work…" }).click();
  await sheet().getByRole("combobox", { name: "Every so many times" }).click();
  await office.getByRole("option", { name: "Sweep with two flues" }).click();
  await sheet().getByLabel("Every so many", { exact: true }).fill("3");
  await sheet().getByRole("button", { name: "Do this" }).click();
  await sheet()
    .getByText(/every 3rd Sweep with two flues/)
    .first()
    .waitFor();
  const big = () =>
    app.sql<{ n: number }>(
      "SELECT count(*) AS n FROM visits WHERE repeat_id = ? AND state = 'forecast' AND minutes = 70",
      id,
    )[0]!.n;
  await expectSoon(office, () => big() >= 3);
  expect(app.sql("SELECT 1 FROM repeats WHERE id = ? AND nth_pattern_id = ?", id, patternId)).toHaveLength(1);
});

it("a repeat is agreed from a customer's page where it fits best; its first date becomes real and is told; it moves from now on", async () => {
  const [customer] = pair.app.sql<{ id: number }>(
    `SELECT c.id FROM customers c JOIN sites s ON s.customer_id = c.id JOIN zones z ON z.id = s.zone_id
      WHERE c.mail <> '' AND c.archived_at IS NULL AND NOT EXISTS (SELECT 1 FROM repeats WHERE customer_id = c.id)
        AND z.weekdays & 31 = 31
      ORDER BY c.id LIMIT 1`,
  );
  await go(pair.office, `${pair.app.url}/customers/${customer!.id}`);
  await pair.office.getByRole("button", { name: "Agree a repeat…" }).click();
  const dialog = pair.office.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "What" }).click();
  await pair.office.getByRole("option", { name: "Chimney sweep" }).click();
  await dialog.getByRole("button", { name: "Where does it fit best?" }).click();
  await dialog
    .getByRole("group", { name: "Where it fits best" })
    .getByRole("button", { name: /room on \d+ of 10 dates/ })
    .first()
    .click();
  await dialog.getByRole("button", { name: "Agree it" }).click();
  await pair.office.waitForURL(/\/repeats\?open=/);
  const id = Number(new URL(pair.office.url()).searchParams.get("open"));
  await expectSoon(pair.office, () => ahead(id).length >= 12);
  // What lies within two weeks is promised when the worker comes by, and told.
  const [{ today }] = pair.app.sql<{ today: string }>(
    "SELECT date(unixepoch() + demo_offset_ms / 1000, 'unixepoch') AS today FROM business",
  ) as [{ today: string }];
  await moveToMorningOf(pair, addDays(today, 1));
  await expectSoon(
    pair.office,
    () =>
      pair.app.sql(
        "SELECT 1 FROM messages m JOIN visits v ON v.job_id = m.job_id WHERE v.repeat_id = ? AND m.occasion LIKE 'coming again%'",
        id,
      ).length > 0,
    1800,
  );
  const [next] = pair.app.sql<{ id: number; date: string }>(
    "SELECT id, date FROM visits WHERE repeat_id = ? AND state = 'forecast' ORDER BY date LIMIT 1",
    id,
  );
  await go(pair.office, `${pair.app.url}/board?date=${next!.date}&visit=${next!.id}`);
  // Nobody works at the weekend.
  const day = addDays(next!.date, weekdayOf(next!.date) < 4 ? 1 : -1);
  await typeDate(sheet().getByRole("group", { name: "Day", exact: true }), day);
  await sheet()
    .getByRole("group", { name: "Technician" })
    .getByRole("button", { name: /\+\d+ min/ })
    .first()
    .click();
  await sheet().getByRole("button", { name: "Move the visit" }).click();
  await pair.office.getByRole("radio", { name: /^From now on/ }).check();
  await pair.office.getByRole("dialog").getByRole("button", { name: "Move", exact: true }).click();
  // Where the day is full it stands on another, for the same date of the rule.
  await expectSoon(
    pair.office,
    () =>
      pair.app.sql(
        "SELECT 1 FROM visits WHERE repeat_id = ? AND state = 'forecast' AND repeat_date IN (?, ?)",
        id,
        day,
        addDays(day, 28),
      ).length === 2,
  );
  await moveToMorningOf(pair, addDays(day, -13));
  await expectSoon(
    pair.office,
    () => pair.app.sql("SELECT 1 FROM visits WHERE id = ? AND state = 'promised'", next!.id).length === 1,
    1800,
  );
});
