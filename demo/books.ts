import { disagreements } from "@/core/money/balance";
import { numberSameLines } from "@/core/imports/bank-row";
import { matchColumns } from "@/core/imports/match-columns";
import { readFile } from "@/core/imports/read-file";
import type { ReportName } from "@/core/money/reports";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { addImportRows, beginImport, takeImport } from "@/modules/imports/operations/imports";
import { readBooks } from "@/modules/money/books";
import { matchBankLine } from "@/modules/money/operations/bank";
import { makeInvoice } from "@/modules/money/operations/billing";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { bankLines } from "@/modules/money/views/bank-lines";
import { report } from "@/modules/money/views/report";
import { firstBroken } from "@/registry/laws";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld } from "./small-world";

/** A business on 9 March 2027 with an invoice of €100.00 at 23% and €50.00 at 9% of one customer, and lines of its bank. */
export function books() {
  const w = smallWorld();
  const { customerId } = w.booked({ name: "Ada Ash" }).actor;
  const lines = [
    { description: "Work", quantity: 1, unitMinor: 10_000, taxBp: 2300, discountBp: 0 },
    { description: "Wood", quantity: 1, unitMinor: 5_000, taxBp: 900, discountBp: 0 },
  ];
  const form = { discountBp: 0, before: "", after: "", dueDate: null, key: "the invoice" };
  const { invoiceId } = mustPerform(w.hogar, makeInvoice, { customerId, lines, ...form }, office);
  const { label } = one<{ label: string }>(w.hogar, "SELECT label FROM invoices WHERE id = ?", invoiceId);
  const open = () =>
    one<{ n: number }>(w.hogar, "SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId).n;
  const on = (account: string) =>
    one<{ n: number }>(
      w.hogar,
      "SELECT coalesce(sum(amount_minor), 0) AS n FROM ledger_entries WHERE account = ?",
      account,
    ).n;
  const holds = () => [firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))];
  const pay = (amountMinor: number, more: { on?: string; key?: string } = {}) =>
    perform(
      w.hogar,
      recordPayment,
      { customerId, method: "bank", amountMinor, invoices: [{ invoiceId, amountMinor }], key: "by transfer", ...more },
      office,
    );
  const bankReads = (...rows: string[]) => takesIn(["Date;Amount;Name;Text", ...rows].join("\n"));
  /** A file of the bank is imported whole; answers how many of its lines were there already. */
  const takesIn = async (file: string): Promise<number> => {
    const read = readFile(new TextEncoder().encode(file));
    if (!read.ok) throw new Error(read.sentence);
    const table = numberSameLines(read.table, matchColumns("bank lines", read.table));
    const about = { kind: "bank lines" as const, file: "bank.csv", columns: matchColumns("bank lines", table) };
    const { id } = mustPerform(w.hogar, beginImport, { ...about, rowCount: table.rows.length }, office);
    mustPerform(w.hogar, addImportRows, { importId: id, from: 1, rows: table.rows }, office);
    await runDue(w.hogar);
    const known = one<{ n: number }>(
      w.hogar,
      "SELECT count(*) AS n FROM import_rows WHERE import_id = ? AND verdict = 'certain'",
      id,
    ).n;
    mustPerform(w.hogar, takeImport, { importId: id }, office);
    await runDue(w.hogar);
    return known;
  };
  const line = (amountMinor: number) => {
    const seen = look(w.hogar, bankLines, { ...firstPage<"bank-lines">("date"), show: "all" }, office);
    if (!seen.ok) throw new Error(seen.problem.sentence);
    return seen.value.rows.find((one) => one.amountMinor === amountMinor)!;
  };
  const take = (amountMinor: number) =>
    perform(
      w.hogar,
      matchBankLine,
      { lineId: line(amountMinor).id, match: line(amountMinor).proposals[0]!.match },
      office,
    );
  const reads = (name: ReportName, from: string, to: string) => {
    const seen = look(w.hogar, report, { name, from, to }, office);
    if (!seen.ok) throw new Error(seen.problem.sentence);
    return seen.value.rows;
  };
  return { ...w, customerId, invoiceId, label, open, on, holds, pay, bankReads, takesIn, line, take, reads };
}
