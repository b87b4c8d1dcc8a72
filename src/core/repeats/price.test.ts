import { priceOrder } from "../catalogue/order";
import fc from "fast-check";
import { atAgreedPrice, fromNotice, noticeOn, priceTermsWords, reviewed } from "./price";

const service = {
  id: 1,
  name: "Chimney sweep",
  priceMinor: 8900,
  taxBp: 2100,
  deposit: { kind: "fixed" as const, amountMinor: 2000 },
  minutes: 45,
  crew: 1,
  skills: [],
  questions: [],
  extras: [],
};
const order = priceOrder({
  items: [{ service, quantity: 1, answers: {}, extras: [] }],
  zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
  pricesIncludeTax: true,
});
const title = "Chimney sweep";

describe("the price of a repeat", () => {
  it("stands in one line in place of the catalogue’s, without a deposit", () => {
    const priced = atAgreedPrice(order, { title, taxBp: 2100, terms: { per: "visit", minor: 7500 } }, true);
    expect(priced.lines).toMatchObject([
      { description: "Chimney sweep, as agreed", amountMinor: 7500, taxMinor: 1302 },
    ]);
    expect([priced.totalMinor, priced.depositMinor, priced.minutes]).toEqual([7500, 0, 45]);
    expect(priced.items.map(({ totalMinor }) => totalMinor)).toEqual([7500]);
  });

  it("is nothing for a visit of a month or a year that is paid", () => {
    const terms = { per: "year" as const, minor: 30_000, visits: 4 };
    const priced = atAgreedPrice(order, { title, taxBp: 2100, terms }, true);
    expect([priced.totalMinor, priced.lines[0]!.description]).toEqual([0, "Chimney sweep, included in your year"]);
  });

  it("stays the catalogue’s where nothing else is agreed", () => {
    expect(atAgreedPrice(order, { title, taxBp: 2100, terms: { per: "catalogue" } }, true)).toBe(order);
  });

  it("is said in words", () => {
    expect(priceTermsWords({ per: "month", minor: 6000, visits: 1 }, "EUR")).toBe(
      "€60.00 a month, 1 visit a month included",
    );
  });
});

describe("a price review", () => {
  const review = { date: "2027-07-01", byBp: 350, noticeDays: 30 };

  it("rounds to the cent, once", () => {
    expect(reviewed(7500, review)).toBe(7763);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e7 }), (minor) => {
        expect(reviewed(minor, { byBp: 0 })).toBe(minor);
        expect(Number.isInteger(reviewed(minor, review))).toBe(true);
      }),
    );
  });

  it("is told in time; told late, the old price stays as many days longer", () => {
    expect(noticeOn(review)).toBe("2027-06-01");
    expect(fromNotice(review, "2027-06-01").date).toBe("2027-07-01");
    expect(fromNotice(review, "2027-06-20").date).toBe("2027-07-20");
  });
});
