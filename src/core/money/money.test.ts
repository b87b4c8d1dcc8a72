import fc from "fast-check";
import { depositOf } from "../catalogue/order";
import { moneyWords, parseMoney, priceLine, roundHalfAway, shareOut, sum, taxedByRate, totalOf } from "./amounts";
import { applyReceived, invoiceState } from "./applying";
import { loadedCost, meanCost } from "./pay";

const amounts = fc.integer({ min: 0, max: 1_000_000 });
const openAmounts = fc
  .array(amounts, { maxLength: 6 })
  .map((list) => list.map((openMinor, i) => ({ id: i + 1, openMinor })));
const lines = fc.array(
  fc.record({
    description: fc.constant("x"),
    quantity: fc.integer({ min: 1, max: 20 }),
    unitMinor: amounts,
    taxBp: fc.constantFrom(0, 1300, 2100),
  }),
  { minLength: 1, maxLength: 6 },
);

describe("amounts", () => {
  it("round half away from zero", () => {
    expect([0.5, 1.5, -0.5, -1.5, 2.4].map(roundHalfAway)).toEqual([1, 2, -1, -2, 2]);
  });

  it("round as it is written in decimal, whatever binary fractions make of it", () => {
    expect([1.005 * 100, 8.325 * 100, -2.675 * 100].map(roundHalfAway)).toEqual([101, 833, -268]);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), fc.integer({ min: 1, max: 100_000 }), (thousandths, unit) => {
        const exact = BigInt(thousandths) * BigInt(unit);
        const half = (exact % 1000n) * 2n >= 1000n ? 1n : 0n;
        expect(roundHalfAway((thousandths / 1000) * unit)).toBe(Number(exact / 1000n + half));
      }),
    );
  });

  it("have the tax of what all lines of a rate come to, shared out among them", () => {
    const line = priceLine({ description: "Screw", quantity: 1, unitMinor: 102, taxBp: 2100 }, false);
    expect(totalOf(taxedByRate(Array<typeof line>(60).fill(line), false))).toMatchObject({
      taxMinor: 1_285,
      totalMinor: 7_405,
    });
    const signed = lines.chain((some) =>
      fc.record({ some: fc.constant(some), off: fc.integer({ min: 0, max: 10_000 }), included: fc.boolean() }),
    );
    fc.assert(
      fc.property(signed, ({ some, off, included }) => {
        const priced = [...some, { ...some[0]!, quantity: -1, unitMinor: off }].map((one) => priceLine(one, included));
        const net = (one: { amountMinor: number; taxMinor: number }) => one.amountMinor - one.taxMinor;
        for (const rate of totalOf(taxedByRate(priced, included)).taxes) {
          const of = priced.filter(({ taxBp }) => taxBp === rate.taxBp);
          const base = sum(of.map((one) => (included ? one.amountMinor : net(one))));
          expect(rate.taxMinor).toBe(roundHalfAway((base * rate.taxBp) / (included ? 10_000 + rate.taxBp : 10_000)));
          expect(included ? rate.amountMinor : net(rate)).toBe(base);
        }
      }),
    );
  });

  it("take the tax out of a price that includes it, and put it on top of one that does not", () => {
    const line = { description: "Stove service", quantity: 1, unitMinor: 12_100, taxBp: 2100 };
    expect(priceLine(line, true)).toMatchObject({ amountMinor: 12_100, taxMinor: 2100 });
    expect(priceLine({ ...line, unitMinor: 10_000 }, false)).toMatchObject({ amountMinor: 12_100, taxMinor: 2100 });
  });

  it("add up: the lines are the total, and the taxes by rate are the tax", () => {
    fc.assert(
      fc.property(lines, fc.boolean(), (some, included) => {
        const priced = some.map((line) => priceLine(line, included));
        const totals = totalOf(priced);
        expect(totals.totalMinor).toBe(sum(priced.map((l) => l.amountMinor)));
        expect(totals.taxMinor).toBe(sum(totals.taxes.map((t) => t.taxMinor)));
        expect(totals.taxMinor).toBeLessThanOrEqual(totals.totalMinor);
      }),
    );
  });

  it("are read as they are written", () => {
    fc.assert(
      fc.property(amounts, (minor) =>
        expect(parseMoney(moneyWords(minor, "EUR").replace(/[€,]/g, ""), "EUR")).toBe(minor),
      ),
    );
    expect(["89", "89.5", "89,50", "89.505", "-1", "a"].map((text) => parseMoney(text, "EUR"))).toEqual([
      8900,
      8950,
      8950,
      null,
      null,
      null,
    ]);
  });
});

describe("an amount that is shared out", () => {
  it("goes by the weights, what is left over to those who miss most", () => {
    expect(shareOut(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(shareOut(100, [1, 2, 3])).toEqual([17, 33, 50]);
    expect([shareOut(70, [0, 0]), shareOut(0, [5, 5])]).toEqual([
      [70, 0],
      [0, 0],
    ]);
  });

  it("is never a cent more or less than it was, and no share is a cent off its part", () => {
    fc.assert(
      fc.property(amounts, fc.array(fc.nat(100_000), { minLength: 1, maxLength: 8 }), (amount, weights) => {
        const shares = shareOut(amount, weights);
        const all = sum(weights);
        expect(sum(shares)).toBe(amount);
        if (all > 0)
          shares.forEach((share, i) => expect(Math.abs(share - (amount * weights[i]!) / all)).toBeLessThan(1));
      }),
    );
  });
});

describe("an order", () => {
  it("never asks for a deposit larger than its price", () => {
    fc.assert(
      fc.property(
        amounts,
        fc.oneof(
          fc.record({ kind: fc.constant("fixed" as const), amountMinor: amounts }),
          fc.record({ kind: fc.constant("percent" as const), basisPoints: fc.integer({ min: 0, max: 10_000 }) }),
          fc.constant({ kind: "full" as const }),
        ),
        (total, deposit) => {
          const asked = depositOf(deposit, total);
          expect(Number.isInteger(asked) && asked >= 0 && asked <= total).toBe(true);
        },
      ),
    );
  });
});

describe("what was received", () => {
  it("is applied to what is due, never more than is left on either, and as much as can be", () => {
    fc.assert(
      fc.property(openAmounts, openAmounts, (received, due) => {
        const applied = applyReceived(received, due);
        for (const payment of received)
          expect(sum(applied.filter((a) => a.paymentId === payment.id).map((a) => a.amountMinor))).toBeLessThanOrEqual(
            payment.openMinor,
          );
        for (const invoice of due)
          expect(sum(applied.filter((a) => a.invoiceId === invoice.id).map((a) => a.amountMinor))).toBeLessThanOrEqual(
            invoice.openMinor,
          );
        const [all, asked] = [sum(received.map((p) => p.openMinor)), sum(due.map((i) => i.openMinor))];
        expect(sum(applied.map((a) => a.amountMinor))).toBe(Math.min(all, asked));
      }),
    );
  });

  it("decides how an invoice stands", () => {
    const stands = (openMinor: number, appliedMinor: number, creditedMinor: number, today: string) =>
      invoiceState({ totalMinor: 100, openMinor, appliedMinor, creditedMinor, dueDate: "2027-03-10" }, today);
    expect(stands(100, 0, 0, "2027-03-10")).toBe("open");
    expect(stands(60, 40, 0, "2027-03-10")).toBe("part paid");
    expect(stands(60, 40, 0, "2027-03-11")).toBe("overdue");
    expect(stands(0, 100, 0, "2027-03-11")).toBe("paid");
    expect(stands(0, 60, 40, "2027-03-11")).toBe("paid");
    expect(stands(0, 0, 100, "2027-03-11")).toBe("credited");
    expect(stands(0, 40, 0, "2027-03-11")).toBe("written off");
  });
});

describe("what an hour costs", () => {
  it("is the wage or a month's salary by its hours, with what the employer adds", () => {
    expect(loadedCost({ kind: "hourly", amountMinor: 1800, hours: 160, employerBp: 2375 })).toBe(2228);
    expect(loadedCost({ kind: "salary", amountMinor: 288_000, hours: 160, employerBp: 0 })).toBe(1800);
    expect(loadedCost({ kind: "none", amountMinor: 0, hours: 160, employerBp: 2000 })).toBeNull();
  });

  it("is the mean of those who could come, or the usual cost where none is known", () => {
    const hourly = (amountMinor: number) => ({ kind: "hourly" as const, amountMinor, hours: 160, employerBp: 0 });
    expect(
      meanCost([hourly(2000), hourly(3001), { kind: "none", amountMinor: 0, hours: 160, employerBp: 0 }], 9999),
    ).toBe(2501);
    expect(meanCost([], 3000)).toBe(3000);
  });
});
