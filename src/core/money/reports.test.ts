import fc from "fast-check";
import { paidPart, sumsOf } from "./reports";

describe("what of an invoice's tax has been paid", () => {
  it("adds up to the whole tax, to the cent, however it is paid", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500_000 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 8 }),
        (totalMinor, taxShare, cuts) => {
          const taxMinor = Math.floor(totalMinor * taxShare);
          const paid = [0, ...cuts.map((cut) => Math.round(cut * totalMinor)).sort((a, b) => a - b), totalMinor];
          const parts = paid.slice(1).map((after, i) => paidPart(taxMinor, totalMinor, { before: paid[i]!, after }));
          expect(parts.reduce((a, b) => a + b, 0)).toBe(taxMinor);
        },
      ),
    );
  });

  it("is nothing of an invoice that asks nothing", () => {
    expect(paidPart(0, 0, { before: 0, after: 0 })).toBe(0);
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
