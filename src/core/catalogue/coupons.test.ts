import fc from "fast-check";
import { type Coupon, couponProblem, type CouponRules, reductions } from "./coupons";
import { type Order, priceOrder } from "./order";

const coupon = (more: Partial<CouponRules> = {}): CouponRules => ({
  code: "SPRING",
  kind: "percent",
  value: 1000,
  services: [],
  first: null,
  last: null,
  most: null,
  used: 0,
  ...more,
});
const booking = { serviceIds: [1], today: "2027-03-10" };
const orderItem: Order["items"][number] = {
  quantity: 1,
  answers: {},
  extras: [{ id: "x", quantity: 1 }],
  service: {
    id: 1,
    name: "Chimney sweep",
    priceMinor: 7900,
    taxBp: 1300,
    deposit: { kind: "percent", basisPoints: 5000 },
    minutes: 45,
    crew: 1,
    skills: [],
    questions: [],
    extras: [{ id: "x", name: "Alarm", unit: "piece", priceMinor: 3401, costMinor: 0, taxBp: 2100, most: 9 }],
  },
};
const order = (by: Coupon | null, more: Partial<Order> = {}) =>
  priceOrder({
    items: [orderItem],
    zone: { name: "Moor", surchargeMinor: 0, smallestOrderMinor: 0 },
    pricesIncludeTax: true,
    coupon: by,
    ...more,
  });

describe("coupons", () => {
  it("of all leave nothing to pay, not a cent, with tax on top or within", () => {
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom(0, 700, 733),
        (included, quantity, onOurWayBp) => {
          const [item] = [{ ...orderItem, quantity }];
          const one = order(coupon({ value: 10_000 }), { items: [item], pricesIncludeTax: included, onOurWayBp });
          expect([one.totalMinor, one.taxMinor]).toEqual([0, 0]);
        },
      ),
    );
  });

  it("count for their services, in their time, as often as they may", () => {
    expect(couponProblem(coupon(), booking)).toBeNull();
    expect(couponProblem(null, booking)).toMatch(/do not know/);
    expect(
      [
        coupon({ services: [2] }),
        coupon({ first: "2027-03-11" }),
        coupon({ last: "2027-03-09" }),
        coupon({ most: 3, used: 3 }),
      ].map((c) => couponProblem(c, booking)),
    ).toEqual([
      "This code does not count for this service.",
      "This code counts from 11 March 2027.",
      "This code counted until 9 March 2027.",
      "This code has been used as often as it can be.",
    ]);
    expect(
      couponProblem(coupon({ services: [1], first: "2027-03-10", last: "2027-03-10", most: 3, used: 2 }), booking),
    ).toBeNull();
  });

  it("take off a share of each tax rate, and the deposit follows", () => {
    const { lines, totalMinor, taxMinor, depositMinor } = order(coupon());
    expect(lines.slice(2).map((l) => [l.description, l.taxBp, l.amountMinor])).toEqual([
      ["Coupon SPRING", 1300, -790],
      ["Coupon SPRING", 2100, -340],
    ]);
    expect([totalMinor, depositMinor]).toEqual([7900 + 3401 - 1130, 5086]);
    expect(taxMinor).toBe(lines.reduce((s, l) => s + l.taxMinor, 0));
  });

  it("never take more than there is", () => {
    expect(order(coupon({ kind: "fixed", value: 50_000 }))).toMatchObject({
      totalMinor: 0,
      taxMinor: 0,
      depositMinor: 0,
    });
    expect(reductions([], coupon())).toEqual([]);
  });

  it("take exactly what they say, whatever the prices", () => {
    const line = fc.record({
      unitMinor: fc.nat(50_000),
      quantity: fc.integer({ min: 1, max: 5 }),
      taxBp: fc.constantFrom(0, 1300, 2100),
    });
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 6 }),
        fc.constantFrom("percent" as const, "fixed" as const),
        fc.nat(10_000),
        (lines, kind, value) => {
          const total = lines.reduce((s, l) => s + l.unitMinor * l.quantity, 0);
          const off = reductions(lines, { kind, value }).reduce((s, r) => s + r.minor, 0);
          expect(off).toBe(Math.min(total, kind === "percent" ? Math.round((total * value) / 10_000) : value));
          expect(reductions(lines, { kind, value }).every((r) => r.minor > 0)).toBe(true);
        },
      ),
    );
  });
});
