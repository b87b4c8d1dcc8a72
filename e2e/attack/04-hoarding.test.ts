import { as } from "../support/http";
import { underAttack, untilSoon, visitorAt } from "./attacker";

/** 4: one visitor cannot close the calendar, neither by holding nor by booking, and what they keep is given back at once. */
const app = underAttack();
const perAddress = 9;

it("of forty holds a handful are kept, whatever browser each claims to be", async () => {
  const { addressOf, windowsFor, change, itemOf } = visitorAt(app);
  const addressId = await addressOf("14 alder");
  const windows = await windowsFor(addressId, "SW");
  const answers = [];
  for (let n = 0; n < 40; n++) {
    const { date, from, to } = windows[n % windows.length]!;
    answers.push(
      await change(
        "hold-offer",
        { addressId, items: [itemOf("SW")], date, from, to },
        { cookie: `hogar-browser=made-up-browser-${n}` },
      ),
    );
  }
  expect(answers.filter((a) => a.ok).length).toBeLessThanOrEqual(perAddress);
  expect(answers.at(-1)!.problem!.code).toBe("too-many-holds");
  expect(app.sql<{ n: number }>("SELECT count(*) AS n FROM visits WHERE state = 'held'")[0]!.n).toBeLessThanOrEqual(
    perAddress,
  );
});

it("Today says so, and the office gives all of it back with one action", async () => {
  const { ask, change } = visitorAt(app);
  const tomas = await as(app.url, "tomas");
  const today = await ask<{ needs: { kind: string; givesBack?: object }[] }>("today", {}, tomas);
  const need = today.value.needs.find((n) => n.kind === "hoarding");
  expect(need).toBeDefined();
  expect((await change("give-back-room", need!.givesBack, tomas)).ok).toBe(true);
  expect(app.sql("SELECT 1 FROM visits WHERE state = 'held'")).toEqual([]);
});

it("of twelve bookings under other names a few stand", async () => {
  const { book } = visitorAt(app);
  const answers = [];
  for (let n = 0; n < 12; n++)
    answers.push(await book(`Many${n} Finch`, { nth: n % 6, customer: { phone: `+1 201 555 01${String(20 + n)}` } }));
  expect(answers.filter((a) => a.ok).length).toBeLessThanOrEqual(perAddress);
  expect(answers.at(-1)!.ok).toBe(false);
});

it("a card that was made up keeps nothing", async () => {
  const { change } = visitorAt(app);
  await change("give-back-room", { address: null, date: null }, await as(app.url, "tomas"));
  const all = app.sql<{ address: string }>(
    "SELECT DISTINCT from_address AS address FROM jobs WHERE from_address IS NOT NULL",
  );
  for (const { address } of all) await change("give-back-room", { address, date: null }, await as(app.url, "tomas"));
  const { book, jobOf } = visitorAt(app);
  const { link } = (await book("Forger Finch", { code: "ST", more: { cardToken: "tok_nobody_gave_this_out" } })).value;
  const state = () => app.sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?", jobOf(link))[0]!.state;
  await untilSoon(app, () => state() === "cancelled");
  expect(state()).toBe("cancelled");
});
