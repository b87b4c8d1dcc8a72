import fc from "fast-check";
import { changePrice, flatPrice, marginOf, markUpOf, priceFromMarkUp } from "./prices";

describe("prices of many services at once", () => {
  it("go up or down by a share and are rounded as people like them", () => {
    expect(
      [{ to: 10 }, { to: 50 }, { to: 100 }, { to: 500 }].map((rounding) => changePrice(7933, 500, rounding)),
    ).toEqual([8330, 8350, 8300, 8500]);
    expect([7900, 8400, 11_600, 300, 0].map((price) => changePrice(price, 0, { endingIn9: true, digits: 2 }))).toEqual([
      7900, 8900, 11_900, 900, 0,
    ]);
    expect(changePrice(7900, -20_000, { to: 10 })).toBe(0);
  });

  it("always end up on the rounding, near the share that was asked for", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1_000_000 }),
        fc.integer({ min: -9000, max: 9000 }),
        fc.constantFrom(10, 50, 100, 500),
        (price, share, to) => {
          const changed = changePrice(price, share, { to });
          expect(changed % to).toBe(0);
          expect(Math.abs(changed - (price * (10_000 + share)) / 10_000)).toBeLessThanOrEqual(to / 2);
        },
      ),
    );
  });
});

describe("a flat price and its margin", () => {
  it("are labour and materials with their mark-up, and what is left of them", () => {
    expect(
      flatPrice({ labourMinorPerHour: 4800, minutes: 90, crew: 2, materialsMinor: 2000, markUpBp: 2500, taxBp: 0 }),
    ).toEqual({ labourMinor: 14_400, materialsMinor: 2500, taxMinor: 0, totalMinor: 16_900 });
    expect(
      flatPrice({ labourMinorPerHour: 6000, minutes: 60, crew: 1, materialsMinor: 0, markUpBp: 0, taxBp: 2100 }),
    ).toMatchObject({ taxMinor: 1260, totalMinor: 7260 });
    expect(priceFromMarkUp(2000, 5000, 2100)).toBe(3630);
    expect([
      markUpOf({ priceMinor: 3630, costMinor: 2000 }, 2100),
      markUpOf({ priceMinor: 500, costMinor: 0 }, 0),
    ]).toEqual([5000, null]);
    expect(marginOf({ totalMinor: 12_100, taxMinor: 2100, minutes: 60, crew: 1, materialsMinor: 1000 }, 3000)).toEqual({
      revenueMinor: 10_000,
      labourMinor: 3000,
      materialsMinor: 1000,
      marginMinor: 6000,
      basisPoints: 6000,
    });
    expect(
      marginOf({ totalMinor: 0, taxMinor: 0, minutes: 60, crew: 1, materialsMinor: 0 }, 3000).basisPoints,
    ).toBeNull();
  });
});
