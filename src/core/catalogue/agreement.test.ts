import fc from "fast-check";
import { moneyWords } from "../money/amounts";
import { type Agreement, harsher } from "./agreement";
import { lateFee, noAccessFee } from "./terms";

const money = (minor: number) => moneyWords(minor, "EUR");
const anyItem = fc.record({
  name: fc.constantFrom("Sweep", "Check"),
  late: fc.record({
    hours: fc.nat(72),
    kind: fc.constantFrom("none" as const, "percent" as const, "fixed" as const),
    value: fc.nat(10_000),
  }),
  noAccessMinor: fc.nat(9_000),
  totalMinor: fc.nat(30_000),
});
const anyAgreement: fc.Arbitrary<Agreement> = fc.record({
  totalMinor: fc.nat(30_000),
  nowMinor: fc.nat(30_000),
  moveHours: fc.nat(72),
  cancelHours: fc.nat(72),
  items: fc.array(anyItem, { minLength: 1, maxLength: 3 }),
  words: fc.constantFrom("", "As we agreed.", "Otherwise."),
});

describe("what is asked anew before somebody books", () => {
  it("is nothing where all is as they read it", () => {
    fc.assert(fc.property(anyAgreement, (one) => harsher(one, one, money).length === 0));
  });

  it("is whatever costs them more at any moment, or leaves them less time, and nothing else", () => {
    fc.assert(
      fc.property(anyAgreement, anyAgreement, (read, now) => {
        const minutes = Array.from({ length: 73 * 60 }, (_, i) => i);
        const costsMore =
          noAccessFee(now.items) > noAccessFee(read.items) ||
          minutes.some((m) => lateFee(now.items, m) > lateFee(read.items, m));
        expect(harsher(read, now, money).map(({ what }) => what)).toEqual(
          [
            now.totalMinor > read.totalMinor && "Price",
            now.nowMinor > read.nowMinor && "Paid now",
            now.moveHours > read.moveHours && "Moving it yourself",
            now.cancelHours > read.cancelHours && "Cancelling it yourself",
            costsMore && "If it falls through",
            now.words !== "" && now.words !== read.words && "Our terms",
          ].filter(Boolean),
        );
      }),
      { numRuns: 60 },
    );
  });

  it("says old and new in words", () => {
    const read: Agreement = {
      totalMinor: 11_900,
      nowMinor: 3_000,
      moveHours: 2,
      cancelHours: 2,
      items: [{ name: "Sweep", totalMinor: 11_900, noAccessMinor: 0, late: { hours: 24, kind: "none", value: 0 } }],
      words: "",
    };
    expect(harsher(read, { ...read, nowMinor: 11_900, moveHours: 24 }, money)).toEqual([
      { what: "Paid now", before: "€30.00", now: "€119.00" },
      { what: "Moving it yourself", before: "until 2 h before", now: "until 24 h before" },
    ]);
  });
});
