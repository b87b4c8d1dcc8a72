import fc from "fast-check";
import { lateFee, noAccessFee, orderTermsWords, type Terms, termsWords } from "./terms";

const terms = (late: Partial<Terms["late"]>, noAccessMinor = 0): Terms => ({
  late: { hours: 24, kind: "none", value: 0, ...late },
  noAccessMinor,
});
const money = (minor: number) => `€${(minor / 100).toFixed(2)}`;

describe("terms", () => {
  it("ask nothing in time, and the fee afterwards", () => {
    const share = terms({ kind: "percent", value: 5000 });
    expect([24 * 60, 24 * 60 - 1, 0, -30].map((before) => lateFee([{ ...share, totalMinor: 7999 }], before))).toEqual([
      0, 4000, 4000, 4000,
    ]);
    expect(lateFee([{ ...terms({ kind: "fixed", value: 9000 }), totalMinor: 7900 }], 10)).toBe(7900);
    expect(lateFee([{ ...terms({}), totalMinor: 7900 }], 0)).toBe(0);
  });

  it("are each service's own in an order of several, and asked once where nobody lets us in", () => {
    const items = [
      { ...terms({ kind: "percent", value: 5000 }, 3500), totalMinor: 8000 },
      { ...terms({ hours: 2, kind: "fixed", value: 1000 }, 2000), totalMinor: 4000 },
    ];
    expect([60 * 24, 600, 60].map((before) => lateFee(items, before))).toEqual([0, 4000, 5000]);
    expect(noAccessFee(items)).toBe(3500);
    expect(
      orderTermsWords(
        items.map((item, i) => ({ ...item, name: `Service ${i}` })),
        money,
      )[1],
    ).toBe("Service 1: Cancelling costs nothing until 2 h before; after that €10.00. If nobody lets us in, €20.00.");
    expect(
      orderTermsWords(
        [
          { ...terms({}), name: "A" },
          { ...terms({}), name: "B" },
        ],
        money,
      ),
    ).toEqual(["Cancelling costs nothing."]);
  });

  it("never ask more than the work costs, nor less than nothing", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("none" as const, "percent" as const, "fixed" as const),
        fc.nat(10_000),
        fc.nat(1_000_000),
        fc.integer({ min: -5000, max: 50_000 }),
        (kind, value, total, before) => {
          const fee = lateFee([{ ...terms({ kind, value }), totalMinor: total }], before);
          expect(fee >= 0 && fee <= total && Number.isInteger(fee)).toBe(true);
        },
      ),
    );
  });

  it("are told in plain words", () => {
    expect(termsWords(terms({ kind: "percent", value: 5000, hours: 48 }, 3500), money)).toEqual([
      "Cancelling costs nothing until 2 days before; after that 50% of the price.",
      "If nobody lets us in, €35.00.",
    ]);
    expect(termsWords(terms({}), money)).toEqual(["Cancelling costs nothing."]);
  });
});
