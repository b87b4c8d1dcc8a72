import { numberSameLines } from "@/core/imports/bank-row";
import { matchColumns } from "@/core/imports/match-columns";
import { readFile } from "@/core/imports/read-file";
import { moneyTyped } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { addImportRows, beginImport, takeImport } from "@/modules/imports/operations/imports";
import { matchBankLine, setAsideBankLine } from "@/modules/money/operations/bank";
import { bankLines } from "@/modules/money/views/bank-lines";
import { look } from "@/kernel/view";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { create } from "xmlbuilder2";
import { office } from "./set-up";

interface Line {
  date: string;
  minor: number;
  name: string;
  words: string;
}

/** What the bank has booked since yesterday: invoices with their numbers, with an error in one, without any; payouts; its own fees, and the rent. */
function booked(hogar: Hogar, skip: number): Line[] {
  const { sql } = hogar.store;
  const { today } = viewContext(hogar, office);
  const date = addDays(today, -1);
  const open = sql<{ label: string; name: string; minor: number }>(
    `SELECT i.label, c.name, b.open_minor AS minor FROM invoices i JOIN customers c ON c.id = i.customer_id
      JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE b.open_minor > 0 AND NOT EXISTS (SELECT 1 FROM cards WHERE customer_id = c.id AND collects = 1)
      ORDER BY i.due_date, i.id LIMIT 5 OFFSET ?`,
  ).all(skip);
  const said = [
    (label: string) => `Invoice ${label}`,
    (label: string) => `RE ${label.replace(/(\d)(\d)$/, "$2$1")} thank you`,
    () => "Thank you for the good work",
    (label: string) => label.replace("-", " "),
    (label: string) => `${label}, first half`,
  ];
  const paid = open.map(({ label, name, minor }, i) => ({
    date,
    minor: i === 4 ? Math.floor(minor / 2) : minor,
    name,
    words: said[i]!(label),
  }));
  return [
    ...paid,
    { date, minor: -450, name: "Harbour Savings Bank", words: "Account fees" },
    { date, minor: -85_000, name: "Quayside Lettings", words: "Rent of the yard" },
  ];
}

/** A statement as CAMT.053 (ISO 20022). */
function camt(lines: readonly Line[]): string {
  const entries = lines.map(({ date, minor, name, words }, i) => ({
    Amt: { "@Ccy": "EUR", "#": moneyTyped(Math.abs(minor), "EUR") },
    CdtDbtInd: minor < 0 ? "DBIT" : "CRDT",
    Sts: "BOOK",
    BookgDt: { Dt: date },
    AcctSvcrRef: `HSB${date.replaceAll("-", "")}${String(i + 1).padStart(3, "0")}`,
    NtryDtls: {
      TxDtls: {
        Refs: { EndToEndId: "NOTPROVIDED" },
        RltdPties: { [minor < 0 ? "Cdtr" : "Dbtr"]: { Nm: name } },
        RmtInf: { Ustrd: words },
      },
    },
  }));
  return create({
    Document: {
      "@xmlns": "urn:iso:std:iso:20022:tech:xsd:camt.053.001.02",
      BkToCstmrStmt: {
        GrpHdr: { MsgId: "1", CreDtTm: `${lines[0]!.date}T20:00:00` },
        Stmt: { Id: "1", Ntry: entries },
      },
    },
  }).end({ prettyPrint: true });
}

const csv = (lines: readonly Line[]): string =>
  [
    "Booked;Amount;Name;Text",
    ...lines.map((l) => [l.date, moneyTyped(l.minor, "EUR"), l.name, l.words].join(";")),
  ].join("\n");

/** Files of the bank to try the import with: of lines that nobody has read yet. */
export const bankFiles = (hogar: Hogar): { name: string; about: string; bytes: Uint8Array }[] =>
  [
    {
      name: "bank-statement.xml",
      about: "The bank’s statement of yesterday, as CAMT.053",
      text: camt(booked(hogar, 5)),
    },
    {
      name: "bank-lines.csv",
      about: "Lines of the bank as CSV: numbers with errors, fees, rent",
      text: csv(booked(hogar, 10)),
    },
  ].map(({ text, ...file }) => ({ ...file, bytes: new TextEncoder().encode(text) }));

/** A statement that was read this morning: what is sure was taken, and the rent set aside; the rest waits. */
export async function readTheBank(hogar: Hogar): Promise<void> {
  const read = readFile(new TextEncoder().encode(camt(booked(hogar, 0))));
  if (!read.ok) throw new Error(read.sentence);
  const table = numberSameLines(read.table, matchColumns("bank lines", read.table));
  const columns = matchColumns("bank lines", table);
  const { id: importId } = mustPerform(
    hogar,
    beginImport,
    { kind: "bank lines", file: "bank-statement.xml", columns, rowCount: table.rows.length },
    office,
  );
  mustPerform(hogar, addImportRows, { importId, from: 1, rows: table.rows }, office);
  await runDue(hogar);
  mustPerform(hogar, takeImport, { importId }, office);
  await runDue(hogar);
  const lines = look(hogar, bankLines, { ...firstPage<"bank-lines">("date"), show: "open" }, office);
  if (!lines.ok) throw new Error(lines.problem.sentence);
  const [sure] = lines.value.rows.filter(({ proposals }) => proposals[0]?.sure === "sure");
  if (sure) mustPerform(hogar, matchBankLine, { lineId: sure.id, match: sure.proposals[0]!.match }, office);
  const rent = lines.value.rows.find(({ words }) => words.startsWith("Rent"));
  if (rent) mustPerform(hogar, setAsideBankLine, { lineId: rent.id, why: "Rent" }, office);
}
