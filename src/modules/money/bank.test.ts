import type { Match } from "@/core/money/bank-matching";
import { disagreements } from "@/core/money/balance";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { numberSameLines } from "@/core/imports/bank-row";
import { matchColumns } from "@/core/imports/match-columns";
import { readFile } from "@/core/imports/read-file";
import { eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { addImportRows, beginImport, takeImport, undoImport } from "@/modules/imports/operations/imports";
import { firstBroken } from "@/registry/laws";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, smallWorld, system } from "@demo/small-world";
import { readBooks } from "./books";
import { matchBankLine, reopenBankLine, setAsideBankLine } from "./operations/bank";
import { makeInvoice } from "./operations/billing";
import { refundPayment, takeBackPayment } from "./operations/corrections";
import { recordPayout } from "./operations/payouts";
import { recordPayment } from "./operations/record-payment";
import { bankLines } from "./views/bank-lines";

/** A business with invoices of €79.00 and €40.00 of one customer, and files of its bank. */
function withBank() {
  const w = smallWorld();
  const { customerId } = w.booked({ name: "Ada Ash" }).actor;
  const invoices = [7_900, 4_000].map((unitMinor) => {
    const lines = [{ description: "Work", quantity: 1, unitMinor, taxBp: 2300, discountBp: 0 }];
    const form = { discountBp: 0, before: "", after: "", dueDate: null, key: `invoice ${unitMinor}` };
    return mustPerform(w.hogar, makeInvoice, { customerId, lines, ...form }, office).invoiceId;
  });
  const reads = async (rows: string[], head = "Date;Amount;Name;Text") => {
    const read = readFile(new TextEncoder().encode([head, ...rows].join("\n")));
    if (!read.ok) throw new Error(read.sentence);
    const table = numberSameLines(read.table, matchColumns("bank lines", read.table));
    const columns = matchColumns("bank lines", table);
    const { id } = mustPerform(
      w.hogar,
      beginImport,
      { kind: "bank lines", file: "bank.csv", columns, rowCount: table.rows.length },
      office,
    );
    mustPerform(w.hogar, addImportRows, { importId: id, from: 1, rows: table.rows }, office);
    await runDue(w.hogar);
    mustPerform(w.hogar, takeImport, { importId: id }, office);
    await runDue(w.hogar);
    return id;
  };
  const lines = (show: "open" | "matched" | "set aside" | "all" = "open") => {
    const view = look(w.hogar, bankLines, { ...firstPage<"bank-lines">("date"), show }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    return view.value.rows;
  };
  const match = (lineId: number, to: Match) => perform(w.hogar, matchBankLine, { lineId, match: to }, office);
  const open = () =>
    w.hogar.store
      .sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances ORDER BY invoice_id")
      .all()
      .map(({ n }) => n);
  const holds = () => [firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))];
  const label = (id: number) => one<{ label: string }>(w.hogar, "SELECT label FROM invoices WHERE id = ?", id).label;
  return { ...w, customerId, invoices, reads, lines, match, open, holds, label };
}

it("pays an invoice with what its line was proposed for, once, and the rest is credit", async () => {
  const w = withBank();
  await w.reads([`2027-03-01;80.00;Ada Ash;${w.label(1)}`]);
  const [line] = w.lines();
  expect(line!.proposals[0]).toMatchObject({ sure: "likely", words: `Ada Ash: invoice ${w.label(1)}` });
  expect(w.match(line!.id, line!.proposals[0]!.match).ok).toBe(true);
  expect(w.match(line!.id, line!.proposals[0]!.match).ok).toBe(false);
  expect(w.open()).toEqual([0, 4_000]);
  expect(one(w.hogar, "SELECT left_minor AS n FROM payment_balances")).toEqual({ n: 100 });
  expect(w.lines("matched")).toMatchObject([{ is: { words: `Ada Ash: invoice ${w.label(1)}`, invoiceId: 1 } }]);
  expect(w.holds()).toEqual([null, []]);
});

it("takes the same line once, however often its file is read; undoing leaves what is matched", async () => {
  const w = withBank();
  const rows = [`2027-03-01;79.00;Ada Ash;${w.label(1)}`, "2027-03-01;-4.50;The Bank;Fees"];
  await w.reads(rows);
  const again = await w.reads([...rows, "2027-03-02;12.00;Bo Berg;coffee"]);
  expect(w.lines("all")).toHaveLength(3);
  const line = w.lines().find(({ amountMinor }) => amountMinor === 7_900)!;
  mustPerform(w.hogar, matchBankLine, { lineId: line.id, match: line.proposals[0]!.match }, office);
  mustPerform(w.hogar, undoImport, { importId: again }, office);
  await runDue(w.hogar);
  expect(w.lines("all").map(({ amountMinor }) => amountMinor)).toEqual([7_900, -450]);
});

it("loses no payment of two for one sum on one day, with a reference that is none and a balance that runs along", async () => {
  const w = withBank();
  const head = "Date;Amount;Name;Text;Bank reference;Balance";
  const rows = [
    "2027-03-01;45.00;Ada Ash;Thanks;NONREF;145.00",
    "2027-03-01;45.00;Bo Berg;Thanks;NONREF;190.00",
    "2027-03-01;45.00;Bo Berg;Thanks;NONREF;235.00",
  ];
  await w.reads(rows, head);
  expect(w.lines("all").map(({ amountMinor }) => amountMinor)).toEqual([4_500, 4_500, 4_500]);
  // The same days again, and one in other words: that one is asked about.
  const again = w.reads([...rows, "2027-03-01;45.00;Bo Berg;Thank you;NONREF;280.00"], head);
  await expect(again).rejects.toThrow();
  expect(w.lines("all")).toHaveLength(3);
  expect(one(w.hogar, "SELECT count(*) AS n FROM import_rows WHERE verdict = 'likely' AND decision IS NULL")).toEqual({
    n: 1,
  });
});

it("is the payment that was recorded by hand, and makes no second one", async () => {
  const w = withBank();
  const { paymentId } = mustPerform(
    w.hogar,
    recordPayment,
    { customerId: w.customerId, method: "bank", amountMinor: 7_900, invoices: null, key: "by hand 1" },
    office,
  );
  await w.reads(["2027-03-01;79.00;Ada Ash;windows"]);
  const [line] = w.lines();
  expect(line!.proposals[0]!.match).toEqual({ kind: "recorded", id: paymentId });
  mustPerform(w.hogar, matchBankLine, { lineId: line!.id, match: { kind: "recorded", id: paymentId } }, office);
  expect(one(w.hogar, "SELECT count(*) AS n FROM payments")).toEqual({ n: 1 });
  // Taken back as a payment, its line waits again.
  mustPerform(w.hogar, takeBackPayment, { paymentId, reason: "Somebody else’s" }, office);
  expect([w.lines().length, ...w.holds()]).toEqual([1, null, []]);
});

it("opens a line again with what was recorded from it taken back, and can be matched anew", async () => {
  const w = withBank();
  await w.reads(["2027-03-01;40.00;Ada Ash;thanks"]);
  const [line] = w.lines();
  const to = (invoiceId: number): Match => ({
    kind: "invoices",
    customerId: w.customerId,
    invoices: [{ invoiceId, amountMinor: 4_000 }],
  });
  w.match(line!.id, to(1));
  expect(w.open()).toEqual([3_900, 4_000]);
  mustPerform(w.hogar, reopenBankLine, { lineId: line!.id }, office);
  expect(w.open()).toEqual([7_900, 4_000]);
  expect(w.match(line!.id, to(2)).ok).toBe(true);
  expect([w.open(), ...w.holds()]).toEqual([[7_900, 0], null, []]);
});

it("finds a payout, and refuses one of quite another amount", async () => {
  const w = withBank();
  const payout = { reference: "po_77123", amountMinor: 7_764, feeMinor: 0, at: w.hogar.now(), items: [] };
  mustPerform(w.hogar, recordPayout, payout, system);
  const today = w.hogar.now();
  const day = new Date(today).toISOString().slice(0, 10);
  await w.reads([`${day};77.64;CARD SERVICE;PO 77123`, `${day};75.63;CARD SERVICE;other`]);
  const [right, other] = w.lines().toSorted((a, b) => b.amountMinor - a.amountMinor);
  expect(right!.proposals[0]).toMatchObject({ match: { kind: "payout", id: 1 }, sure: "sure" });
  expect(saidOf(w.match(other!.id, { kind: "payout", id: 1 }))).toContain("€75.63");
  expect(w.match(right!.id, { kind: "payout", id: 1 }).ok).toBe(true);
  expect(one(w.hogar, "SELECT sum(amount_minor) AS n FROM ledger_entries WHERE account = 'on the way'")).toEqual({
    n: 0,
  });
  expect(saidOf(perform(w.hogar, reopenBankLine, { lineId: right!.id }, office))).toContain("cannot be taken back");
});

it("finds a refund that went out by bank, and sets the bank’s fees aside with a word", async () => {
  const w = withBank();
  const { paymentId } = mustPerform(
    w.hogar,
    recordPayment,
    { customerId: w.customerId, method: "bank", amountMinor: 12_900, invoices: null, key: "by hand 1" },
    office,
  );
  mustPerform(
    w.hogar,
    refundPayment,
    { paymentId, amountMinor: 1_000, method: "bank", reason: "Paid too much" },
    office,
  );
  await w.reads(["2027-03-01;-10.00;Ada Ash;back", "2027-03-01;-4.50;The Bank;Fees"]);
  const [back, fees] = w.lines();
  expect(back!.proposals[0]).toMatchObject({ match: { kind: "refund" }, sure: "likely" });
  expect(fees!.proposals).toEqual([]);
  mustPerform(w.hogar, matchBankLine, { lineId: back!.id, match: back!.proposals[0]!.match }, office);
  mustPerform(w.hogar, setAsideBankLine, { lineId: fees!.id, why: "Bank fees" }, office);
  expect([w.lines("open"), w.lines("set aside")]).toMatchObject([[], [{ why: "Bank fees" }]]);
  mustPerform(w.hogar, reopenBankLine, { lineId: fees!.id }, office);
  expect(w.lines("open")).toHaveLength(1);
});

it("leaves nothing of who has paid when a customer is erased, knows the line all the same, and the books stay as they were", async () => {
  const w = withBank();
  const rows = [`2027-03-01;119.00;Ada Ash;by Ada Ash of the old mill`];
  await w.reads(rows);
  const [line] = w.lines();
  expect(w.match(line!.id, line!.proposals[0]!.match).ok).toBe(true);
  expect(w.open()).toEqual([0, 0]);
  const visit = one<{ id: number }>(w.hogar, "SELECT id FROM visits WHERE state = 'promised'");
  mustPerform(w.hogar, cancelVisit, { visitId: visit.id, refundDeposit: true }, office);
  mustPerform(w.hogar, eraseCustomer, { customerId: w.customerId }, office);
  const { sql } = w.hogar.store;
  for (const query of [
    "SELECT name || words || key AS words FROM bank_lines",
    "SELECT note AS words FROM payments",
    "SELECT cells AS words FROM import_rows",
    "SELECT key AS words FROM import_keys",
    "SELECT coalesce(before, '') || coalesce(after, '') AS words FROM audit_changes",
  ])
    expect(
      sql<{ words: string }>(query)
        .all()
        .filter(({ words }) => /old mill/.test(words)),
    ).toEqual([]);
  await w.reads(rows);
  expect(w.lines("all")).toHaveLength(1);
  expect(w.holds()).toEqual([null, []]);
});
