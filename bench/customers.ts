import { everybody } from "@/core/customers/filter";
import { matchColumns } from "@/core/imports/match-columns";
import { readFile } from "@/core/imports/read-file";
import { personActor } from "@/core/people/permissions";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform } from "@/kernel/operation";
import { eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { addImportRows, beginImport, takeImport, undoImport } from "@/modules/imports/operations/imports";
import { goOnWithImport } from "@/modules/imports/operations/go-on-with-import";
import { lookAt, type ViewInput, type ViewName } from "@/registry/views";
import { firstPage } from "@/ui/first-page";
import { importFiles } from "@demo/import-files";
import Papa from "papaparse";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeLargeOffice } from "./large-office";
import { ms, percentile } from "./measure";

const owner = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
const system = { kind: "system", name: "bench" } as const;
/** What the import must do, and within which time; and what a search may take. */
const [rowsImported, importSeconds, searchMs, transactionMs] = [5_000, 60, 50, 50];
/** Customers that are there beside those who are imported: some 20,000 in all. */
const more = 6_000;

/** A file of 5,000 brought in, taken and undone; looking for somebody among 20,000; and erasing one of them. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const hogar = makeLargeOffice(folder);
    addCustomers(hogar, more);
    const importId = importRows(hogar);
    await measureSearch(hogar);
    measureStage(hogar, importId, "undone", () => mustPerform(hogar, undoImport, { importId }, owner));
    measureErasing(hogar);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function addCustomers({ store: { db, audit } }: Hogar, count: number): void {
  db.transaction(() =>
    audit.under({ at: 0, actor: "bench", operation: "bench" }, () =>
      db.exec(`
        WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${count})
          INSERT INTO customers (name, mail, phone, reminders, since_at, technician_note)
          SELECT 'Person ' || hex(i * 7919) || ' Surname' || (i % 900), 'p' || i || '@example.net', '+1 ' || (300 + i % 600) || ' 555 0' || (1000 + i % 9000), 1, 0, 'Note ' || i FROM n;
      `),
    ),
  ).immediate();
}

/** Reads the file as the browser does, and lets the worker look it over and take it. */
function importRows(hogar: Hogar): number {
  const began = performance.now();
  const text = manyRows(hogar);
  const read = readFile(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.sentence);
  const { rows } = read.table;
  const columns = matchColumns("customers", read.table);
  const input = { kind: "customers" as const, file: "bench.csv", columns, rowCount: rows.length };
  const { id: importId } = mustPerform(hogar, beginImport, input, owner);
  for (let from = 0; from < rows.length; from += 400)
    mustPerform(hogar, addImportRows, { importId, from: from + 1, rows: rows.slice(from, from + 400) }, owner);
  console.log(`  ${rows.length} rows read and sent: ${((performance.now() - began) / 1000).toFixed(1)} s`);
  measureStage(hogar, importId, "looked over", () => {});
  hogar.store.sql("UPDATE import_rows SET decision = 'take' WHERE verdict = 'likely'").run();
  measureStage(hogar, importId, "taken", () => mustPerform(hogar, takeImport, { importId }, owner));
  const seconds = (performance.now() - began) / 1000;
  console.log(
    `  an import of ${rows.length} in all: ${seconds.toFixed(1)} s${seconds > importSeconds ? "   too slow" : ""}`,
  );
  return importId;
}

/** The demo's file of 200, over and over with other names. */
function manyRows(hogar: Hogar): string {
  const file = importFiles(hogar.town!, []).find(({ name }) => name === "customers-200.csv")!;
  const { data } = Papa.parse<Record<string, string>>(new TextDecoder().decode(file.bytes), { header: true });
  const rows = Array.from({ length: rowsImported }, (_, i) => {
    const row = data[i % data.length]!;
    const turn = Math.floor(i / data.length);
    return turn ? { ...row, Surname: `${row.Surname}${turn}`, "E-Mail": `${turn}.${row["E-Mail"]}`, Mobile: "" } : row;
  });
  return Papa.unparse(rows, { delimiter: ";" });
}

function measureStage(hogar: Hogar, importId: number, words: string, begin: () => void): void {
  begin();
  const [began, each] = [performance.now(), [] as number[]];
  for (let more = true; more;) {
    const at = performance.now();
    more = mustPerform(hogar, goOnWithImport, { importId, most: 200 }, system).more;
    each.push(performance.now() - at);
  }
  const longest = Math.max(...each);
  console.log(
    `  ${words}: ${((performance.now() - began) / 1000).toFixed(1)} s in ${each.length} transactions, half of them within ${percentile(each, 0.5).toFixed(0)} ms, the longest ${longest.toFixed(0)} ms${longest > transactionMs * 1.2 ? "   too slow" : ""}`,
  );
}

async function measureSearch(hogar: Hogar): Promise<void> {
  const { n } = hogar.store.sql<{ n: number }>("SELECT count(*) AS n FROM customers").get()!;
  console.log(`  among ${n} customers`);
  const searched: [string, string][] = [
    ["a name", "okonjo"],
    ["a phone", "(301) 555-0123"],
    ["a street", "harbour lane"],
    ["a postcode", "mw101"],
    ["two words", "surname77 person"],
    ["two letters", "ok"],
    ["nobody", "zzzzzz"],
  ];
  for (const [what, text] of searched) {
    await measured(hogar, `find ${what}`, "find", { text });
    await measured(hogar, `the list by ${what}`, "customers", { ...firstPage<"customers">("name"), search: text });
  }
  for (const [what, filter] of [
    ["no visit for a year", { noVisitDays: 365 }],
    ["no coming visit", { noComing: true }],
    ["a tag", { tag: "old list" }],
    ["a zone", { zoneId: 1 }],
  ] as const)
    await measured(hogar, `the list with ${what}`, "customers", {
      ...firstPage<"customers">("name"),
      filter: { ...everybody, ...filter },
    });
}

async function measured<N extends ViewName>(hogar: Hogar, words: string, name: N, input: ViewInput<N>): Promise<void> {
  const mean = await ms(words, () => {
    const result = lookAt(hogar, name, input, owner);
    if (!result.ok) throw new Error(result.problem.sentence);
  });
  console.log(`  ${words.padEnd(34)} ${mean.toFixed(1).padStart(7)} ms${mean > searchMs ? "   too slow" : ""}`);
}

function measureErasing(hogar: Hogar): void {
  const { id } = mustPerform(
    hogar,
    saveCustomer,
    {
      id: null,
      name: "Quintessa Zwingli",
      mail: "zwingli@example.com",
      phone: "+1 909 555 0188",
      reachedBy: "any",
      tags: [],
      source: "",
      paymentDays: null,
      technicianNote: "",
      insideNote: "",
      bill: null,
      reminders: true,
      offers: false,
    },
    owner,
  );
  const began = performance.now();
  mustPerform(hogar, eraseCustomer, { customerId: id }, owner);
  const took = performance.now() - began;
  console.log(`  one erased: ${took.toFixed(0)} ms${took > transactionMs ? "   too slow" : ""}`);
}
