import fc from "fast-check";
import { sum } from "./amounts";
import {
  allocated,
  cashHandedOver,
  disputeLost,
  disputeOpened,
  disputeWon,
  gatewayFeeKept,
  type Entry,
  invoiceCredited,
  invoiceIssued,
  paymentReceived,
  payoutArrived,
  payoutSent,
  refundAsked,
  refundSent,
  released,
  reversed,
  writtenOff,
  tipsPaidOut,
} from "./ledger";

const lines = [
  { amountMinor: 12_100, taxMinor: 2_100, taxBp: 2100 },
  { amountMinor: 1_060, taxMinor: 60, taxBp: 600 },
];
const held = { paymentId: 5, from: "credit" } as const;
const by = (entries: readonly Entry[]) =>
  Object.fromEntries(
    [...new Set(entries.map(({ account }) => account))].map((account) => [
      account,
      sum(entries.filter((entry) => entry.account === account).map(({ amountMinor }) => amountMinor)),
    ]),
  );

describe("the ledger", () => {
  it("posts an invoice as what is owed, what was earned and the tax of each rate", () => {
    const entries = invoiceIssued(1, lines);
    expect(by(entries)).toEqual({ receivable: 13_160, sales: -11_000, tax: -2_160 });
    expect(entries.filter(({ account }) => account === "tax").map((e) => [e.taxBp, e.amountMinor])).toEqual([
      [600, -60],
      [2100, -2_100],
    ]);
  });

  it("is as if nothing had been where an invoice is paid, released, credited and the money sent back", () => {
    const all = [
      ...invoiceIssued(1, lines),
      ...paymentReceived({ id: 5, method: "card", amountMinor: 13_160, into: "credit", technicianId: null }),
      ...allocated(held, 1, 13_160),
      ...released(held, 1, 13_160),
      ...invoiceCredited(7, 1, lines),
      ...refundAsked(held, 13_160),
      ...refundSent(5, "card", 13_160),
    ];
    expect(Object.values(by(all)).every((amount) => amount === 0)).toBe(true);
  });

  it("keeps cash that was taken on the road with whoever took it, until it is handed over", () => {
    const taken = paymentReceived({ id: 5, method: "cash", amountMinor: 4_000, into: "credit", technicianId: 3 });
    expect(taken[0]).toEqual({ account: "cash out", amountMinor: 4_000, paymentId: 5, technicianId: 3 });
    const cheque = paymentReceived({ id: 6, method: "cheque", amountMinor: 900, into: "credit", technicianId: 3 });
    const given = [
      { id: 5, method: "cash" as const, amountMinor: 4_000 },
      { id: 6, method: "cheque" as const, amountMinor: 900 },
    ];
    const handed = cashHandedOver(3, given, 0);
    expect(by([...taken, ...cheque])).toEqual({ "cash out": 4_900, credit: -4_900 });
    expect(by([...taken, ...cheque, ...handed])).toEqual({ "cash out": 0, credit: -4_900, cash: 4_000, bank: 900 });
    expect(by(cashHandedOver(3, given, -150))).toMatchObject({
      cash: 3_850,
      "cash differences": 150,
      "cash out": -4_900,
    });
  });

  it("counts a cheque as money in the bank", () => {
    expect(
      by(paymentReceived({ id: 5, method: "cheque", amountMinor: 900, into: "deposits", technicianId: null })),
    ).toEqual({
      bank: 900,
      deposits: -900,
    });
  });

  it("keeps a tip for the technician, beside what pays the invoice", () => {
    const tip = { minor: 500, technicianId: 3 };
    const paid = paymentReceived({
      id: 5,
      method: "card",
      amountMinor: 4_000,
      into: "credit",
      technicianId: null,
      tip,
    });
    expect(by(paid)).toEqual({ card: 4_500, credit: -4_000, tips: -500 });
    expect(by([...paid, ...tipsPaidOut(3, "cash", 500)])).toEqual({ card: 4_500, credit: -4_000, tips: 0, cash: -500 });
  });

  it("follows card money through its fee, a dispute that is lost, and the payout of the rest", () => {
    const paid = [5, 6].flatMap((id) =>
      paymentReceived({ id, method: "card", amountMinor: 10_000, into: "credit", technicianId: null }),
    );
    const events = [
      ...paid,
      ...gatewayFeeKept(5, 150),
      ...disputeOpened(6, 10_000),
      ...disputeLost({ paymentId: 6, from: "credit" }, 10_000),
      ...payoutSent(9_800, 50),
      ...payoutArrived(9_800),
    ];
    expect(by(events)).toEqual({
      card: 0,
      credit: -10_000,
      "gateway fees": 200,
      disputed: 0,
      "on the way": 0,
      bank: 9_800,
    });
    expect(by([...disputeOpened(6, 10_000), ...disputeWon(6, 10_000)])).toEqual({ card: 0, disputed: 0 });
  });

  it("balances each event, and each one taken back leaves nothing, for any amounts", () => {
    const amount = fc.integer({ min: 1, max: 10_000_000 });
    const taxed = fc
      .record({ amountMinor: fc.integer({ min: -1_000_000, max: 1_000_000 }), taxBp: fc.constantFrom(0, 600, 2100) })
      .map((one) => ({ ...one, taxMinor: Math.round((one.amountMinor * one.taxBp) / (10_000 + one.taxBp)) }));
    fc.assert(
      fc.property(fc.array(taxed, { minLength: 1, maxLength: 6 }), amount, (some, minor) => {
        const events = [
          invoiceIssued(1, some),
          invoiceCredited(2, 1, some),
          paymentReceived({ id: 5, method: "bank", amountMinor: minor, into: "deposits", technicianId: null }),
          allocated(held, 1, minor),
          writtenOff(1, minor),
          refundAsked(held, minor),
        ];
        for (const event of events) {
          expect(sum(event.map((e) => e.amountMinor))).toBe(0);
          expect(Object.values(by([...event, ...reversed(event)])).every((n) => n === 0)).toBe(true);
        }
      }),
    );
  });
});
