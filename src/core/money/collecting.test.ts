import fc from "fast-check";
import { addDays } from "../time/dates";
import { epochMinute, localOf } from "../time/local";
import { planCollection } from "./collecting";

const zone = "Europe/Lisbon";
const rules = { zone, weekdays: 17, time: 540, daysPastDue: 0, smallest: 500 };
const at = (date: string, minute = 0) => epochMinute(date, minute, zone);
const asked = { now: at("2027-03-01", 600), until: at("2027-04-01") };
const open = { id: "i", openMinor: 9_900, due: "2027-03-03", known: at("2027-02-20", 720) };
const daysOf = (invoices: (typeof open & { date?: string; never?: boolean })[], change: object = {}) =>
  planCollection({ ...rules, ...change }, invoices, asked).runs.map(({ at: run, taken }) => [
    localOf(run, zone).date,
    ...taken.map(({ id }) => id),
  ]);

it("takes each invoice by the first run on or after its day, in order of due date, then id", () => {
  expect(
    daysOf([
      { ...open, id: "b" },
      { ...open, id: "c", due: "2027-03-02" },
      { ...open, id: "a" },
      { ...open, id: "d", due: "2027-03-06" },
    ]),
  ).toEqual([
    ["2027-03-05", "c", "a", "b"],
    ["2027-03-08", "d"],
  ]);
});

it.each([
  ["has a date of its own, whatever its due date", { date: "2027-03-20" }, {}, "2027-03-22"],
  ["is collected some days past due", {}, { daysPastDue: 3 }, "2027-03-08"],
  ["became what it is after the notice of the run went out", { known: at("2027-03-04", 541) }, {}, "2027-03-08"],
  ["became what it is as the notice went out", { known: at("2027-03-04", 540) }, {}, "2027-03-05"],
])("waits for its run where it %s", (_, change, more, day) => {
  expect(daysOf([{ ...open, ...change }], more)).toEqual([[day, "i"]]);
});

it("says why an invoice is left, in order of id", () => {
  const { left } = planCollection(
    rules,
    [
      { ...open, id: "z", never: true },
      { ...open, id: "c", openMinor: 499 },
      { ...open, id: "b", due: "2027-05-01" },
      { ...open, id: "a", never: true, openMinor: 1 },
    ],
    asked,
  );
  expect(left.map(({ invoice, why }) => [invoice.id, why])).toEqual([
    ["a", "never"],
    ["b", "later"],
    ["c", "too small"],
    ["z", "never"],
  ]);
});

it("takes every invoice once at most, on its day or later, never without its notice, and leaves out the rest with a reason", () => {
  const day = fc.nat(40).map((n) => addDays("2027-03-01", n));
  const anInvoice = fc.record({
    openMinor: fc.integer({ min: 0, max: 2_000 }),
    due: day,
    known: fc.nat(40 * 1440).map((n) => asked.now + n - 10_000),
    date: fc.option(day, { nil: undefined }),
    never: fc.boolean(),
  });
  fc.assert(
    fc.property(
      fc.array(anInvoice, { maxLength: 12 }),
      fc.integer({ min: 0, max: 127 }),
      fc.nat(5),
      fc.nat(1439),
      (some, weekdays, daysPastDue, time) => {
        const invoices = some.map((one, i) => ({ ...one, id: String(i) }));
        const { runs, left } = planCollection({ ...rules, weekdays, daysPastDue, time }, invoices, asked);
        const taken = runs.flatMap((run) => run.taken.map((invoice) => ({ invoice, run })));
        const ids = [...taken.map(({ invoice }) => invoice.id), ...left.map(({ invoice }) => invoice.id)];
        expect(ids.sort()).toEqual(invoices.map(({ id }) => id).sort());
        for (const { invoice, run } of taken) {
          const { date } = localOf(run.at, zone);
          expect(date >= (invoice.date ?? addDays(invoice.due, daysPastDue))).toBe(true);
          expect(invoice.known).toBeLessThanOrEqual(run.at - 23 * 60);
          expect(invoice.never || invoice.openMinor < 500).toBe(false);
          expect(run.at > asked.now && run.at < asked.until).toBe(true);
        }
      },
    ),
  );
});
