import fc from "fast-check";
import { sum } from "./amounts";
import { type CreditableLine, type CreditedLine, creditedPart, leftOf } from "./credit";

const line = (amountMinor: number, taxMinor: number): CreditableLine => ({
  position: 0,
  description: "Chimney sweep",
  taxBp: 2100,
  amountMinor,
  taxMinor,
  creditedMinor: 0,
  creditedTaxMinor: 0,
});

describe("a credit note", () => {
  it("takes a line back in any parts, which are the line again with its tax", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -100_000, max: 100_000 }).filter((n) => n !== 0),
        fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { maxLength: 5 }),
        (amount, parts) => {
          // Nothing is nothing, whatever its sign.
          const whole = line(amount, Math.round((amount * 2100) / 12_100) + 0);
          let stands = whole;
          const taken: CreditedLine[] = [];
          for (const part of [...parts, 1]) {
            const credited = creditedPart(stands, Math.trunc(leftOf(stands) * part));
            if (!credited) continue;
            taken.push(credited);
            stands = {
              ...stands,
              creditedMinor: stands.creditedMinor + credited.amountMinor,
              creditedTaxMinor: stands.creditedTaxMinor + credited.taxMinor,
            };
          }
          expect([sum(taken.map((t) => t.amountMinor)), sum(taken.map((t) => t.taxMinor))]).toEqual([
            whole.amountMinor,
            whole.taxMinor,
          ]);
        },
      ),
    );
  });

  it("never takes back more than is left, nor of the other sign", () => {
    const part = { ...line(10_000, 1736), creditedMinor: 6_000, creditedTaxMinor: 1_041 };
    expect([creditedPart(part, 4_001), creditedPart(part, -1), creditedPart(part, 0)]).toEqual([null, null, null]);
    expect(creditedPart(part, 4_000)).toMatchObject({ amountMinor: 4_000, taxMinor: 695 });
  });
});
