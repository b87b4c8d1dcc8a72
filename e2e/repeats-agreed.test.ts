import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go, mailedLink, typeDate } from "./support/server";
import { addDays, weekdayOf } from "@/core/time/dates";

/** Work that comes back: asked for by link and phone, and agreed from a customer's page. */
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

it("whoever is asked by a link books a time that can be kept, or says not this time", async () => {
  const asked = () =>
    pair.app.sql<{ state: string }>("SELECT state FROM repeat_asks ORDER BY id DESC LIMIT 1")[0]!.state;
  expect(asked()).toBe("asked");
  await go(pair.door, await mailedLink(pair.office, pair.app.url, /Time for your next visit/, "again"));
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
