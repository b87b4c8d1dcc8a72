import fc from "fast-check";
import { epochMinute, localOf } from "../time/local";
import { type FallRule, intoHours, lastOfEachKind, messagesOf } from "./falling";

const zone = "Europe/Lisbon";
const hours = { from: 480, to: 1200 };
const at = (date: string, minute = 0) => epochMinute(date, minute, zone);
const early: FallRule = { id: "early", daysBefore: 3, at: 1020 };
const day: FallRule = { id: "day", minutesBefore: 1440, outside: "earlier" };
const soon: FallRule = { id: "soon", minutesBefore: 120, outside: "drop" };
const visit = { id: "v1", customer: "c1", from: at("2027-03-28", 540), told: at("2027-03-20", 600) };
const asked = { zone, hours, rules: [early, day, soon], now: at("2027-03-20", 600), until: at("2027-04-10") };
const fall = (visits: Parameters<typeof messagesOf>[0], change: object = {}) =>
  messagesOf(visits, { ...asked, ...change });
const words = ({ messages }: ReturnType<typeof messagesOf>) =>
  messages.map(({ rule, at: moment }) => {
    const { date, minute } = localOf(moment, zone);
    return `${rule} ${date} ${minute / 60}`;
  });

it("falls by elapsed hours, also where the clocks change, and by days at a time of day", () => {
  // On 28 March at one the clocks go forward: 24 hours before nine is eight o'clock.
  expect(words(fall([visit], { rules: [early, day] }))).toEqual(["early 2027-03-25 17", "day 2027-03-27 8"]);
});

it("loses its old messages when it is moved, and gets new ones", () => {
  const moved = { ...visit, moved: [{ at: at("2027-03-26", 720), from: at("2027-03-29", 780) }] };
  expect(words(fall([moved]))).toEqual([
    "early 2027-03-25 17",
    "early 2027-03-26 17",
    "day 2027-03-28 13",
    "soon 2027-03-29 11",
  ]);
});

it("has none once it is cancelled", () => {
  expect(words(fall([{ ...visit, cancelled: at("2027-03-26") }]))).toEqual(["early 2027-03-25 17"]);
});

it.each([
  ["outside", { rules: [soon] }, {}],
  ["pointless", { rules: [{ id: "soon", minutesBefore: 60 }] }, { from: at("2027-03-28", 480) }],
  ["told", { rules: [early] }, { told: at("2027-03-25", 1020) }],
])("is dropped as %s", (why, change, more) => {
  expect(fall([{ ...visit, ...more }], change).dropped).toMatchObject([{ visit: "v1", why }]);
});

it("says of two visits of one customer on one day one thing, at the earlier moment, under the first of them", () => {
  const second = { ...visit, id: "v0", from: visit.from + 180 };
  expect(fall([second, visit], { rules: [day] }).messages).toMatchObject([
    { visit: "v1", with: ["v0"], at: at("2027-03-27", 480), from: visit.from },
  ]);
  expect(fall([{ ...second, customer: "c2" }, visit], { rules: [day] }).messages).toHaveLength(2);
});

it("stands within the allowed hours as a minute-by-minute search says, also on days of 23 and 25 hours", () => {
  const moment = fc
    .record({
      day: fc.constantFrom("2027-03-27", "2027-03-28", "2027-03-29", "2027-10-30", "2027-10-31"),
      n: fc.nat(2_000),
    })
    .map(({ day: date, n }) => at(date) + n);
  const span = fc
    .tuple(fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 1, max: 600 }))
    .map(([from, length]) => ({ from, to: Math.min(1440, from + length) }))
    // An hour that is not there on one day a year opens nothing on it.
    .filter(({ from, to }) => to <= 60 || from >= 120 || to - from > 60);
  fc.assert(
    fc.property(moment, span, fc.constantFrom("earlier" as const, "later" as const), (wished, open, outside) => {
      const allowed = (epoch: number) => {
        const { minute } = localOf(epoch, zone);
        return minute >= open.from && minute < open.to;
      };
      let plain = wished;
      while (!allowed(plain)) plain += outside === "earlier" ? -1 : 1;
      expect(intoHours(wished, outside, open, zone)).toBe(plain);
    }),
  );
});

it("is sent once for each promise and rule at most, in order, within the hours, before the window and after it was promised", () => {
  const moment = fc.nat(20 * 1440).map((n) => at("2027-03-20") + n);
  const aVisit = fc.record({
    from: moment,
    told: moment,
    customer: fc.constantFrom("c1", "c2"),
    moved: fc.array(fc.record({ at: moment, from: moment }), { maxLength: 3 }),
    cancelled: fc.option(moment),
  });
  fc.assert(
    fc.property(fc.array(aVisit, { maxLength: 5 }), (some) => {
      const visits = some.map((one, i) => ({
        ...one,
        id: `v${i}`,
        moved: one.moved.filter((move) => move.at > one.told),
      }));
      const { messages } = fall(visits);
      expect(messages.map((m) => m.at)).toEqual(messages.map((m) => m.at).sort((a, b) => a - b));
      for (const message of messages) {
        const { minute } = localOf(message.at, zone);
        expect(minute >= hours.from && minute < hours.to).toBe(true);
        expect(message.at).toBeLessThan(message.from);
        const of = visits.find(({ id }) => id === message.visit)!;
        expect(message.at > of.told || message.with.length > 0).toBe(true);
        expect(of.cancelled === null || message.at < of.cancelled || message.with.length > 0).toBe(true);
        expect([of.from, ...of.moved.map(({ from }) => from)]).toContain(message.from);
      }
      const keys = messages.map(({ visit: id, rule, from, at: when }) => `${id} ${rule} ${from} ${when}`);
      expect(new Set(keys).size).toBe(keys.length);
    }),
  );
});

describe("what has fallen due at once", () => {
  const kindOf = (rule: string) => (rule === "asks" ? "asks" : "reminds");
  const message = fc.record({
    visit: fc.constantFrom("v1", "v2", "v3"),
    with: fc.uniqueArray(fc.constantFrom("v4", "v5"), { maxLength: 2 }),
    rule: fc.constantFrom("early", "day", "asks"),
    at: fc.nat(5000),
    from: fc.constant(6000),
  });

  it("is said of each visit once for each kind, by the last that speaks of it, and of every visit", () => {
    fc.assert(
      fc.property(fc.array(message, { maxLength: 12 }), (due) => {
        const said = lastOfEachKind(due, kindOf).flatMap((m) =>
          [m.visit, ...m.with].map((visit) => ({ key: `${kindOf(m.rule)} ${visit}`, at: m.at })),
        );
        expect(new Set(said.map(({ key }) => key)).size).toBe(said.length);
        const wanted = due.flatMap((m) =>
          [m.visit, ...m.with].map((visit) => ({ key: `${kindOf(m.rule)} ${visit}`, at: m.at })),
        );
        expect(new Set(said.map(({ key }) => key))).toEqual(new Set(wanted.map(({ key }) => key)));
        for (const { key, at: moment } of said)
          expect(moment).toBe(Math.max(...wanted.filter((one) => one.key === key).map((one) => one.at)));
      }),
    );
  });
});
