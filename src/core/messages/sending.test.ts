import fc from "fast-check";
import { epochMinute, localOf } from "../time/local";
import { type AtSending, verdictOf } from "./sending";

const zone = "Europe/Lisbon";
const at = (minute: number) => epochMinute("2027-03-10", minute, zone);
const message: AtSending = {
  purpose: "reminders",
  channel: "text",
  now: at(600),
  zone,
  hours: { from: 480, to: 1200 },
  outside: "later",
  uselessFrom: null,
  stale: null,
  agreed: true,
  stopped: false,
  knownBy: null,
  sentToday: 0,
  mostADay: 4,
};

it.each([
  ["goes within the hours", {}, { goes: true }],
  ["waits for the morning", { now: at(1260) }, { waits: epochMinute("2027-03-11", 480, zone) }],
  [
    "is left out at night where the owner wants that",
    { now: at(1260), outside: "drop" },
    { dropped: "outside the allowed hours" },
  ],
  ["goes by the next channel at night", { now: at(1260), outside: "other" }, { next: "outside the allowed hours" }],
  [
    "is dropped where the morning is too late",
    { now: at(1260), uselessFrom: epochMinute("2027-03-11", 480, zone) },
    { dropped: "outside the allowed hours" },
  ],
  ["is dropped once the window is open", { uselessFrom: at(600) }, { dropped: "too late to be of use" }],
  ["is dropped where it does not hold any more", { stale: "the visit was moved" }, { dropped: "the visit was moved" }],
  ["goes another way without consent on this one", { agreed: false }, { next: "not agreed to" }],
  ["goes another way after STOP", { stopped: true }, { next: "they have ended it on this channel" }],
  [
    "goes another way after STOP, though it is an answer",
    { stopped: true, purpose: "answer" },
    { next: "they have ended it on this channel" },
  ],
  ["waits for the next day after enough of them", { sentToday: 4 }, { waits: epochMinute("2027-03-11", 480, zone) }],
  [
    "about a visit that was moved goes as a mail at any hour, whatever else went today",
    { purpose: "service", channel: "mail", now: at(1260), knownBy: at(3000), sentToday: 9 },
    { goes: true },
  ],
  [
    "about it as a text waits for the morning where that is in time",
    { purpose: "service", now: at(1260), knownBy: epochMinute("2027-03-11", 480, zone), sentToday: 9 },
    { waits: epochMinute("2027-03-11", 480, zone) },
  ],
  [
    "about it as a text rings at night where the morning would be too late",
    { purpose: "service", now: at(1260), knownBy: epochMinute("2027-03-11", 479, zone) },
    { goes: true },
  ],
  ["answers at any hour, and is not counted", { purpose: "answer", now: at(1380), sentToday: 9 }, { goes: true }],
  [
    "wakes none of us, and lies in our mailbox at any hour",
    { purpose: "ours", channel: "mail", now: at(60) },
    { goes: true },
  ],
] as const)("a message %s", (_, change, verdict) => {
  expect(verdictOf({ ...message, ...change } as AtSending)).toEqual(verdict);
});

const messages = fc.record({
  purpose: fc.constantFrom("service", "reminders", "offers" as const),
  channel: fc.constantFrom("mail", "text", "voice" as const),
  now: fc.integer({ min: 29_000_000, max: 31_000_000 }),
  zone: fc.constantFrom("Europe/Lisbon", "America/New_York", "Australia/Lord_Howe", "Asia/Kathmandu"),
  hours: fc
    .tuple(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: 30, max: 400 }))
    .map(([from, n]) => ({ from, to: from + n })),
  outside: fc.constantFrom("earlier", "later", "drop", "other" as const),
  uselessFrom: fc.option(fc.integer({ min: 29_000_000, max: 31_000_000 })),
  stale: fc.constantFrom(null, "it was paid"),
  agreed: fc.boolean(),
  stopped: fc.boolean(),
  knownBy: fc.constant(null),
  sentToday: fc.integer({ min: 0, max: 6 }),
  mostADay: fc.integer({ min: 1, max: 6 }),
});

it("whatever it is: of our own accord nothing goes without consent, outside the hours, too late, or too often; and what waits may go then", () => {
  fc.assert(
    fc.property(messages, (m) => {
      const verdict = verdictOf(m);
      const isWithin = (epoch: number) => {
        const { minute } = localOf(epoch, m.zone);
        return minute >= m.hours.from && minute < m.hours.to;
      };
      if ("goes" in verdict) {
        expect([m.stale, m.agreed, m.stopped]).toEqual([null, true, false]);
        expect(m.sentToday).toBeLessThan(m.mostADay);
        expect(isWithin(m.now)).toBe(true);
        expect(m.uselessFrom === null || m.now < m.uselessFrom).toBe(true);
      }
      if ("waits" in verdict) {
        expect(verdict.waits).toBeGreaterThan(m.now);
        expect(m.uselessFrom === null || verdict.waits < m.uselessFrom).toBe(true);
        // On the next day nothing has been sent yet.
        expect(verdictOf({ ...m, now: verdict.waits, sentToday: 0 })).toEqual({ goes: true });
      }
    }),
  );
});
