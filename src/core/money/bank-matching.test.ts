import fc from "fast-check";
import { type BankLine, bankMatcher, type OpenBooks, type OpenInvoice } from "./bank-matching";

const invoice = (
  id: number,
  openMinor: number,
  name = "Mira Okonjo",
  more: Partial<OpenInvoice> = {},
): OpenInvoice => ({
  id,
  label: `2027-${String(id).padStart(4, "0")}`,
  customerId: [...name].reduce((n, letter) => n + letter.charCodeAt(0), 0),
  names: [name],
  openMinor,
  due: "2027-03-10",
  ...more,
});
const nothing: OpenBooks = { invoices: [], payouts: [], recorded: [], refunds: [], returnable: [] };
const line = (amountMinor: number, words = "", name = ""): BankLine => ({
  date: "2027-03-20",
  amountMinor,
  name,
  words,
});
const first = (books: Partial<OpenBooks>, of: BankLine) => bankMatcher({ ...nothing, ...books })(of)[0];
const ids = (books: Partial<OpenBooks>, of: BankLine) => {
  const match = first(books, of)?.match;
  return match?.kind === "invoices" ? match.invoices.map(({ invoiceId }) => invoiceId) : [];
};

describe("what came in", () => {
  const invoices = [
    invoice(12, 7_900),
    invoice(13, 7_900, "Ada Ash"),
    invoice(14, 4_000, "Ada Ash", { due: "2027-03-01" }),
    invoice(15, 2_500, "Ada Ash"),
  ];

  it.each<[string, BankLine, number[], string]>([
    ["its number and amount", line(7_900, "Invoice 2027-0013, thank you"), [13], "sure"],
    ["a number written otherwise", line(7_900, "RE 2027 0012"), [12], "sure"],
    ["two numbers of one customer", line(11_900, "2027-0013 2027-0014"), [14, 13], "sure"],
    ["a number and a part of the amount", line(2_000, "2027-0013"), [13], "likely"],
    ["a number and more than is open", line(9_000, "2027-0013"), [13], "likely"],
    ["a wrong figure in the number, amount and name", line(4_000, "2027-0017", "A. Ash"), [14], "sure"],
    ["two figures that changed places", line(4_000, "2027-0041"), [14], "likely"],
    ["name and amount", line(7_900, "windows", "ASH, ADA"), [13], "likely"],
    ["name and all that is open", line(14_400, "", "Ada Ash"), [14, 13, 15], "likely"],
    ["name and some that come to it", line(6_500, "", "Ada Ash"), [14, 15], "likely"],
    ["the name alone, what was due first", line(1_000, "", "Ada Ash"), [14], "possible"],
    ["the amount alone", line(2_500, "thanks", "B. Berg"), [15], "possible"],
  ])("is found by %s", (_, of, expected, sure) => {
    expect([ids({ invoices }, of), first({ invoices }, of)?.sure]).toEqual([expected, sure]);
  });

  it("is nothing of ours where neither number nor name nor amount is", () => {
    expect(first({ invoices }, line(1_234, "rent", "B. Berg"))).toBeUndefined();
  });

  it("is not taken for a number within a longer one", () => {
    const some = [invoice(1, 500, "Ada Ash", { label: "R1" }), invoice(2, 500, "Mira Okonjo", { label: "R12" })];
    expect(ids({ invoices: some }, line(500, "R12"))).toEqual([2]);
  });

  it("is a payout by its reference, and likely one by amount and day, and a few cents apart a possible one, with the difference said", () => {
    const payouts = [{ id: 3, amountMinor: 7_764, from: "2027-03-19", reference: "po_abc123", names: [] }];
    expect(first({ payouts }, line(7_764, "PO ABC123 CARDS"))).toMatchObject({
      match: { kind: "payout", id: 3 },
      sure: "sure",
    });
    expect(first({ payouts }, line(7_764))?.sure).toBe("likely");
    expect(first({ payouts }, line(7_763, "po_abc123"))).toMatchObject({
      sure: "possible",
      why: ["a few cents apart", "day"],
    });
    expect(first({ payouts }, line(7_600, "po_abc123"))).toBeUndefined();
    expect(first({ payouts }, { ...line(7_764), date: "2027-03-18" })).toBeUndefined();
  });

  it("is the payment that was recorded by hand before another invoice of that amount", () => {
    const recorded = [{ id: 8, amountMinor: 7_900, from: "2027-03-21", reference: "", names: ["Mira Okonjo"] }];
    expect(first({ invoices, recorded }, line(7_900, "", "M. Okonjo"))?.match).toEqual({ kind: "recorded", id: 8 });
  });
});

it("finds the refund that went out, and no invoice for it", () => {
  const refunds = [{ id: 2, amountMinor: -900, from: "2027-03-19", reference: "", names: ["Ada Ash"] }];
  const books = { refunds, invoices: [invoice(1, 900, "Ada Ash")] };
  expect(first(books, line(-900, "", "Ada Ash"))).toMatchObject({ match: { kind: "refund", id: 2 }, sure: "likely" });
  expect(first(books, line(-800, "2027-0001", "Ada Ash"))).toBeUndefined();
});

it("never gives an invoice more than is open on it, nor more than came, nor mixes customers", () => {
  const invoices = fc.array(
    fc.record({ cents: fc.integer({ min: 1, max: 40 }), who: fc.constantFrom("Ada Ash", "Mira Okonjo", "Bo Berg") }),
    { maxLength: 14 },
  );
  fc.assert(
    fc.property(
      invoices,
      fc.integer({ min: 1, max: 120 }),
      fc.array(fc.nat(16), { maxLength: 3 }),
      fc.constantFrom("Ada Ash", "M. Okonjo", ""),
      (some, amount, named, name) => {
        const open = some.map(({ cents, who }, i) => invoice(i + 1, cents, who));
        const words = named.map((i) => `2027-${String(i + 1).padStart(4, "0")}`).join(" ");
        for (const { match, sure } of bankMatcher({ ...nothing, invoices: open })(line(amount, words, name))) {
          if (match.kind !== "invoices") continue;
          const given = match.invoices.reduce((all, part) => all + part.amountMinor, 0);
          expect(given).toBeLessThanOrEqual(amount);
          if (sure === "sure") expect(given).toBe(amount);
          for (const { invoiceId, amountMinor } of match.invoices) {
            expect(amountMinor).toBeLessThanOrEqual(open[invoiceId - 1]!.openMinor);
            expect(open[invoiceId - 1]!.customerId).toBe(match.customerId);
          }
        }
      },
    ),
  );
});
