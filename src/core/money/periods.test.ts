import { ageOf, ages, dueOfAge } from "./ages";
import { dueDateOf, dueWords } from "./due";
import { nextNumber } from "./numbers";
import { daysOfMonth, endOfPeriod, firstPeriod, periodsUntil, periodWords } from "./periods";
import { discountLines, priceOf, type TaxKind, taxesOf, withoutTax, type ZeroKind } from "./papers";
import { addDays } from "../time/dates";
import { totalOf } from "./amounts";
import fc from "fast-check";

describe("when an invoice is due", () => {
  it("counts from its date, or from the end of its month", () => {
    expect(dueDateOf("2027-03-10", { days: 14, from: "invoice" })).toBe("2027-03-24");
    expect(dueDateOf("2027-03-10", { days: 0, from: "invoice" })).toBe("2027-03-10");
    expect(dueDateOf("2028-02-03", { days: 30, from: "end of month" })).toBe("2028-03-30");
  });

  it("is said in words", () => {
    expect(dueWords({ days: 0, from: "invoice" })).toBe("on receipt");
    expect(dueWords({ days: 14, from: "invoice" })).toBe("within 14 days");
    expect(dueWords({ days: 10, from: "end of month" })).toBe("10 days after the end of the month");
    expect(dueWords({ days: 0, from: "end of month" })).toBe("at the end of the month");
  });
});

it("numbers begin with 1 in each year, under the owner's prefix", () => {
  expect(nextNumber("MW-", 2027, null)).toEqual({ year: 2027, number: 1, label: "MW-2027-0001" });
  expect(nextNumber("", 2027, 9_999).label).toBe("2027-10000");
});

describe("the months and years of a flat price", () => {
  it("begin with the month, or on the day that was agreed, and go on without a gap", () => {
    expect(firstPeriod("2027-03-17", "month")).toBe("2027-03-01");
    expect(firstPeriod("2027-03-17", "year")).toBe("2027-03-17");
    expect(periodsUntil("2027-03-01", "month", "2027-05-31")).toEqual(["2027-03-01", "2027-04-01", "2027-05-01"]);
    expect(periodsUntil("2027-03-17", "year", "2028-03-16")).toEqual(["2027-03-17"]);
    expect(endOfPeriod("2027-03-17", "year")).toBe("2028-03-16");
    expect(periodWords("2027-11-01", "month")).toBe("November 2027");
    expect(periodWords("2027-03-17", "year")).toBe("17 March 2027 to 16 March 2028");
  });
});

describe("the age of what is owed", () => {
  it("is one of the ages, whose due dates hold that day and no other's", () => {
    const today = "2027-03-10";
    fc.assert(
      fc.property(fc.integer({ min: -400, max: 400 }), (days) => {
        const due = addDays(today, -days);
        const holding = ages.filter((age) => {
          const { from, to } = dueOfAge(age, today);
          return (from === null || due >= from) && (to === null || due <= to);
        });
        expect(holding).toEqual([ageOf(due, today)]);
      }),
    );
  });
});

describe("lines of a paper", () => {
  const line = priceOf({ description: "Rope", quantity: 3, unitMinor: 1_000, taxBp: 2_100, discountBp: 500 }, true);

  it("keep their price, and are charged less what is taken off", () => {
    expect(line).toMatchObject({ unitMinor: 1_000, amountMinor: 2_850, taxMinor: 495, discountBp: 500 });
  });

  it("cost their net amount to whoever accounts for the tax", () => {
    expect(withoutTax([line])).toMatchObject([{ amountMinor: 2_355, taxMinor: 0, taxBp: 0 }]);
    const category = (taxKind: TaxKind, zeroKind: ZeroKind) =>
      taxesOf({ lines: withoutTax([line]), taxKind, zeroKind })[0]!.category;
    expect(category("reverse charge", "exempt")).toBe("AE");
    expect(category("exempt", "zero rated")).toBe("E");
    expect(category("standard", "zero rated")).toBe("Z");
    expect(category("standard", "exempt")).toBe("E");
  });

  it("with something off all of them have a line below nothing for each rate, within half a cent a rate", () => {
    const other = priceOf({ description: "Sweep", quantity: 1, unitMinor: 9_999, taxBp: 600 }, true);
    const off = discountLines([line, other], { discountBp: 1_000, words: "Discount 10%", pricesIncludeTax: true });
    expect(off.map(({ taxBp, amountMinor }) => [taxBp, amountMinor])).toEqual([
      [600, -1_000],
      [2_100, -285],
    ]);
    expect(totalOf([line, other, ...off]).totalMinor).toBe(11_564);
    expect(discountLines([line], { discountBp: 0, words: "none", pricesIncludeTax: true })).toEqual([]);
  });
});

describe("a part of a month", () => {
  it("is its days from the first that counts to the last, and all of them where it is agreed whole", () => {
    const part = (since: string | null, until: string | null) => daysOfMonth("2028-02-01", { since, until });
    expect(part(null, null)).toEqual({ days: 29, of: 29 });
    expect(part("2028-02-15", null)).toEqual({ days: 15, of: 29 });
    expect(part("2028-02-15", "2028-02-20")).toEqual({ days: 6, of: 29 });
    expect(part("2027-01-01", "2028-03-01")).toEqual({ days: 29, of: 29 });
    expect(part(null, "2028-01-31").days).toBe(0);
  });
});
