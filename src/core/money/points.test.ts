import fc from "fast-check";
import { pointsEarned, pointsKept, pointsUsable, pointsWorth } from "./points";

const rules = { perMinor: 100, worthMinor: 5, least: 100 };
const minor = fc.integer({ min: 0, max: 1_000_000 });

it("gives whole points for what is paid", () => {
  expect([99, 100, 12_050].map((paid) => pointsEarned(paid, rules))).toEqual([0, 1, 120]);
});

it("takes as much for many refunds as for one, and all for all of it", () => {
  fc.assert(
    fc.property(minor, fc.array(fc.integer({ min: 1, max: 5_000 }), { maxLength: 8 }), (paid, refunds) => {
      const back = Math.min(
        paid,
        refunds.reduce((a, b) => a + b, 0),
      );
      const earned = pointsEarned(paid, rules);
      const kept = pointsKept(earned, paid, back);
      expect(kept).toBeGreaterThanOrEqual(0);
      expect(kept).toBeLessThanOrEqual(earned);
      expect(pointsKept(earned, paid, paid)).toBe(0);
      expect(pointsKept(earned, paid, 0)).toBe(paid > 0 ? earned : 0);
    }),
  );
});

it("never takes off more than the order costs, nor more than there is, nor less than the least", () => {
  fc.assert(
    fc.property(fc.integer({ min: -50, max: 5_000 }), minor, (balance, order) => {
      const points = pointsUsable(balance, order, rules);
      expect(pointsWorth(points, rules)).toBeLessThanOrEqual(order);
      expect(points === 0 || (points >= rules.least && points <= balance)).toBe(true);
    }),
  );
});
