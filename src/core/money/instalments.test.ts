import { sum } from "./amounts";
import { openParts, splitEvenly, wrongParts } from "./instalments";
import fc from "fast-check";

it("splits a sum by the month, to the cent, at the end of short months too", () => {
  expect(splitEvenly(10_000, 3, "2027-01-31")).toEqual([
    { due: "2027-01-31", amountMinor: 3_334 },
    { due: "2027-02-28", amountMinor: 3_333 },
    { due: "2027-03-31", amountMinor: 3_333 },
  ]);
});

it("counts what was paid to the first parts", () => {
  const parts = splitEvenly(9_000, 3, "2027-01-10");
  expect(openParts(parts, 9_000)).toHaveLength(3);
  expect(openParts(parts, 5_000)).toMatchObject([
    { due: "2027-02-10", openMinor: 2_000 },
    { due: "2027-03-10", openMinor: 3_000 },
  ]);
  expect(openParts(parts, 0)).toEqual([]);
});

it("never has more or less open than the invoice", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 12 }),
      fc.integer({ min: 12, max: 90_000 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (n, total, share) => {
        const open = Math.round(total * share);
        const left = openParts(splitEvenly(total, n, "2027-05-31"), open);
        expect(sum(left.map(({ openMinor }) => openMinor))).toBe(open);
      },
    ),
  );
});

it.each([
  [[{ due: "2027-01-10", amountMinor: 5_000 }], "2 to 12"],
  [
    [
      { due: "2027-01-10", amountMinor: 5_000 },
      { due: "2027-02-10", amountMinor: 3_999 },
    ],
    "€90.00 is open",
  ],
  [
    [
      { due: "2027-02-10", amountMinor: 5_000 },
      { due: "2027-02-10", amountMinor: 4_000 },
    ],
    "after the one before",
  ],
  [
    [
      { due: "2026-12-31", amountMinor: 5_000 },
      { due: "2027-02-10", amountMinor: 4_000 },
    ],
    "today at the soonest",
  ],
  [
    [
      { due: "2027-01-10", amountMinor: 9_500 },
      { due: "2027-02-10", amountMinor: -500 },
    ],
    "asks for something",
  ],
])("says what is wrong with parts: %j", (parts, words) => {
  expect(wrongParts(parts, { openMinor: 9_000, today: "2027-01-01", currency: "EUR" })).toContain(words);
});
