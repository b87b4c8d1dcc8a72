import fc from "fast-check";
import { paidByRate, sumsOf } from "./reports";

const rate = fc.record({
  taxBp: fc.constantFrom(0, 600, 900, 2100),
  amountMinor: fc.integer({ min: 0, max: 300_000 }),
  taxShare: fc.double({ min: 0, max: 0.3, noNaN: true }),
});
const ofRates = fc.array(rate, { minLength: 1, maxLength: 4 }).map((rates) =>
  rates.map(({ taxBp, amountMinor, taxShare }) => ({
    taxBp,
    amountMinor,
    taxMinor: Math.floor(amountMinor * taxShare),
  })),
);

describe("what of each rate of an invoice has been paid", () => {
  it("adds up to what was paid, to the cent, and to the whole tax when all is", () => {
    fc.assert(
      fc.property(ofRates, fc.double({ min: 0, max: 1, noNaN: true }), (rates, share) => {
        const total = rates.reduce((all, { amountMinor }) => all + amountMinor, 0);
        const paid = Math.round(total * share);
        const parts = paidByRate(rates, paid);
        expect(parts.reduce((all, { netMinor, taxMinor }) => all + netMinor + taxMinor, 0)).toBe(paid);
        expect(paidByRate(rates, total).map(({ taxMinor }) => taxMinor)).toEqual(rates.map(({ taxMinor }) => taxMinor));
      }),
    );
  });

  it("is none of a rate that a credit note has taken back whole", () => {
    const left = [
      { taxBp: 600, amountMinor: 10_600, taxMinor: 600 },
      { taxBp: 2100, amountMinor: 0, taxMinor: 0 },
    ];
    expect(paidByRate(left, 10_600)).toEqual([
      { taxBp: 600, netMinor: 10_000, taxMinor: 600 },
      { taxBp: 2100, netMinor: 0, taxMinor: 0 },
    ]);
  });
});

it("sums the columns of money alone", () => {
  expect(
    sumsOf({
      columns: [
        { words: "Month", kind: "text" },
        { words: "Invoices", kind: "number" },
        { words: "Net", kind: "money" },
      ],
      rows: [
        ["March", 2, 500],
        ["April", 1, -200],
      ],
    }),
  ).toEqual([null, null, 300]);
});
