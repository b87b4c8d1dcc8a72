import { mustPerform, perform } from "@/kernel/operation";
import { books } from "@demo/books";
import { office, one, saidOf, system } from "@demo/small-world";
import { postBankLine, reopenBankLine, saveOwnAccount } from "./operations/bank";
import { closeBooks } from "./operations/close-books";
import { creditInvoiceByHand, undoWriteOff, writeOff } from "./operations/corrections";
import { recordPayout } from "./operations/payouts";

describe("what was given up", () => {
  const reason = "They have moved away";

  it("is owed again where that is undone, once", () => {
    const w = books();
    mustPerform(w.hogar, writeOff, { invoiceId: w.invoiceId, reason }, office);
    mustPerform(w.hogar, undoWriteOff, { invoiceId: w.invoiceId, reason: "They are back" }, office);
    expect([w.open(), w.on("write-offs"), ...w.holds()]).toEqual([15_000, 0, null, []]);
    expect(perform(w.hogar, undoWriteOff, { invoiceId: w.invoiceId, reason }, office).ok).toBe(false);
    expect(one(w.hogar, "SELECT remind_on IS NOT NULL AS n FROM invoices WHERE id = ?", w.invoiceId)).toEqual({ n: 1 });
  });

  it("is taken when money comes for it after all; the rest stays given up", () => {
    const w = books();
    mustPerform(w.hogar, writeOff, { invoiceId: w.invoiceId, reason }, office);
    expect(w.pay(4_000).ok).toBe(true);
    expect([w.open(), w.on("write-offs"), ...w.holds()]).toEqual([0, 11_000, null, []]);
    expect(w.pay(11_001, { key: "too much" }).ok).toBe(false);
  });

  it("is proposed for a line of the bank that names its number, and for none that has its sum alone", async () => {
    const w = books();
    mustPerform(w.hogar, writeOff, { invoiceId: w.invoiceId, reason }, office);
    await w.bankReads(`2027-03-08;60.00;Somebody;${w.label}`, "2027-03-08;150.00;Somebody;hello");
    expect(w.line(15_000).proposals).toEqual([]);
    expect(w.line(6_000).proposals).toMatchObject([{ sure: "likely", why: ["number", "given up before"] }]);
    expect(w.take(6_000).ok).toBe(true);
    expect([w.on("write-offs"), ...w.holds()]).toEqual([9_000, null, []]);
  });

  it("stays given up where another part is credited", () => {
    const w = books();
    w.pay(5_000);
    mustPerform(w.hogar, writeOff, { invoiceId: w.invoiceId, reason }, office);
    const lines = [{ position: 1, amountMinor: 2_000 }];
    mustPerform(w.hogar, creditInvoiceByHand, { invoiceId: w.invoiceId, lines, reason: "Wet wood" }, office);
    expect([w.open(), w.on("write-offs"), ...w.holds()]).toEqual([0, 8_000, null, []]);
  });
});

describe("tax by payment", () => {
  it("knows what is left of each rate after a credit note", () => {
    const w = books();
    const lines = [{ position: 1, amountMinor: 5_000 }];
    mustPerform(w.hogar, creditInvoiceByHand, { invoiceId: w.invoiceId, lines, reason: "Wet wood" }, office);
    w.pay(10_000);
    // €100.00 with 23% in it; nothing at 9%.
    expect(w.reads("tax by payment", "2027-03-01", "2027-03-31")).toEqual([
      ["March 2027", "23%", 8_130, 1_870, 10_000],
    ]);
  });
});

describe("lines of the bank", () => {
  it("are posted to accounts of one's own, and taken back from there", async () => {
    const w = books();
    await w.bankReads("2027-03-05;-4.50;The Bank;Fees of March");
    const account = { id: null, name: "Bank fees", number: "6855", active: true };
    const { id } = mustPerform(w.hogar, saveOwnAccount, account, office);
    expect(perform(w.hogar, saveOwnAccount, account, office).ok).toBe(false);
    const lineId = w.line(-450).id;
    for (let again = 0; again < 2; again++) {
      mustPerform(w.hogar, postBankLine, { lineId, accountId: id }, office);
      expect([w.on("bank"), w.on("own"), ...w.holds()]).toEqual([-450, 450, null, []]);
      expect(w.reads("journal", "2027-03-05", "2027-03-05").at(-1)!.slice(1, 4)).toEqual(
        again === 0 ? ["bank line", "Bank fees", "6855"] : expect.anything(),
      );
      mustPerform(w.hogar, reopenBankLine, { lineId }, office);
      expect([w.on("bank"), ...w.holds()]).toEqual([0, null, []]);
    }
  });

  it("take a payment back that the bank returns: both lines stand, and the invoice is open again", async () => {
    const w = books();
    await w.bankReads(`2027-03-02;150.00;Ada Ash;${w.label}`, "2027-03-06;-150.00;Ada Ash;RETURNED, ACCOUNT CLOSED");
    w.take(15_000);
    expect(w.open()).toBe(0);
    expect(w.line(-15_000).proposals[0]).toMatchObject({ match: { kind: "returned" }, sure: "likely" });
    expect(w.take(-15_000).ok).toBe(true);
    expect([w.open(), w.on("bank"), w.line(15_000).state, ...w.holds()]).toEqual([15_000, 0, "matched", null, []]);
  });

  it("are a payout with some cents less, which are a fee", async () => {
    const w = books();
    const payout = { reference: "po_1", amountMinor: 20_000, feeMinor: 0, at: Date.parse("2027-03-03"), items: [] };
    mustPerform(w.hogar, recordPayout, payout, system);
    await w.bankReads("2027-03-05;199.40;Card service;PAYOUT");
    expect(w.line(19_940).proposals[0]).toMatchObject({ words: expect.stringContaining("€0.60 less than announced") });
    expect(w.take(19_940).ok).toBe(true);
    expect([w.on("bank"), w.on("gateway fees"), w.on("on the way"), ...w.holds()]).toEqual([19_940, 60, 0, null, []]);
  });

  it("are held against the books at the end of a day", async () => {
    const w = books();
    w.pay(15_000, { on: "2027-03-04" });
    await w.bankReads("2027-03-05;-4.50;The Bank;Fees");
    expect(w.reads("bank against books", "2027-03-09", "2027-03-09").map((row) => [row[0], row[3]])).toEqual([
      ["in the bank, by the books", 15_000],
      ["booked, on no line yet", -15_000],
      ["on a line, not booked", -450],
    ]);
  });
});

describe("closed books", () => {
  it("take nothing in on a closed day: what is typed is refused, what a line says is posted later", async () => {
    const w = books();
    mustPerform(w.hogar, closeBooks, { to: "2027-03-05" }, office);
    expect(saidOf(w.pay(15_000, { on: "2027-03-05" }))).toContain("closed up to 5 March 2027");
    await w.bankReads(`2027-03-02;150.00;Ada Ash;${w.label}`);
    expect(w.take(15_000).ok).toBe(true);
    expect(
      one(w.hogar, "SELECT count(*) AS n FROM ledger_events WHERE at < ?", Date.parse("2027-03-05T23:00:00Z")),
    ).toEqual({ n: 0 });
    expect(perform(w.hogar, closeBooks, { to: "2027-03-09" }, office).ok).toBe(false);
  });
});

it("debts and deposits are those of the end of any day", () => {
  const w = books();
  w.at("2027-03-20", 600);
  w.pay(15_000);
  expect(w.reads("aged debts", "2027-03-19", "2027-03-19")).toHaveLength(1);
  expect(w.reads("aged debts", "2027-03-19", "2027-03-19")[0]!.at(-1)).toBe(15_000);
  expect(w.reads("aged debts", "2027-03-20", "2027-03-20")).toEqual([]);
});
