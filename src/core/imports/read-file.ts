import type { StatementBalances } from "./statement-balances";
import { withoutEnd } from "@/core/words";
import ICAL from "ical.js";
import Papa from "papaparse";
import { isCamt, readCamt } from "./camt";
import { mostColumns, mostRows } from "./table-size";

/** A file as rows under named columns: every row has a text for each column. */
export interface Table {
  columns: string[];
  rows: string[][];
}

/** What cannot be read at all: a sentence. */
export type ReadFile =
  | {
      ok: true;
      table: Table;
      /** It is a bank’s, and says so. */ isStatement?: true;
      /** What is odd about it, in sentences. */ says?: string[];
      /** What it opens and closes with. */ balances?: StatementBalances | null;
    }
  | { ok: false; sentence: string };

/** Characters of one cell that are kept; nobody's name or note is longer. */
const longestCell = 4000;

/** Reads CSV (with whatever stands between its fields, in UTF-8, UTF-16 or Latin-1), vCard 3 and 4, or a bank’s statement as CAMT.053. Any bytes are answered; nothing is thrown. */
export function readFile(bytes: Uint8Array): ReadFile {
  const text = decoded(bytes);
  if (text.trim() === "") return { ok: false, sentence: "This file is empty." };
  if (looksBinary(text))
    return { ok: false, sentence: "This is no text file. Save it as CSV or vCard in the program it comes from." };
  if (isCamt(text)) return readStatement(text);
  const table = /^\s*BEGIN:VCARD/i.test(text) ? fromVCards(text) : fromCsv(text);
  if (table === null)
    return { ok: false, sentence: "These contacts cannot be read. Export them again as vCard, or as CSV." };
  if (table.rows.length === 0)
    return { ok: false, sentence: "There is no row under the head of this file. Choose another file." };
  return notTooLong(table);
}

function readStatement(text: string): ReadFile {
  const table = readCamt(text);
  if (table === null) return { ok: false, sentence: "This statement cannot be read. Download it from the bank again." };
  if (table.rows.length === 0) return { ok: false, sentence: "Nothing is booked in this statement." };
  const read = notTooLong(table);
  return read.ok ? { ...read, isStatement: true, says: table.says, balances: table.balances } : read;
}

const notTooLong = (table: Table): ReadFile =>
  table.rows.length > mostRows
    ? {
        ok: false,
        sentence: `This file has ${table.rows.length} rows; at most ${mostRows} can be imported at once. Cut it in parts.`,
      }
    : { ok: true, table: tidied(table) };

/** Text by its byte order mark, as UTF-8 where it is that throughout, and otherwise as Windows-1252, which holds Latin-1. */
function decoded(bytes: Uint8Array): string {
  const as = (encoding: string, fatal = false) => new TextDecoder(encoding, { fatal }).decode(bytes);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return as("utf-16le");
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return as("utf-16be");
  try {
    return as("utf-8", true);
  } catch {
    return as("windows-1252");
  }
}

const looksBinary = (text: string): boolean => text.startsWith("PK\u0003\u0004") || text.slice(0, 2000).includes("\0");

function fromCsv(text: string): Table {
  const lines = Papa.parse<string[]>(text, { skipEmptyLines: "greedy" }).data;
  const [first = [], ...rest] = lines;
  const width = Math.min(mostColumns, Math.max(0, ...lines.slice(0, 500).map((line) => line.length)));
  const isHead = !first.some((cell) => /@|\d{4}/.test(cell));
  const columns = Array.from({ length: width }, (_, i) => (isHead && first[i]?.trim()) || `Column ${i + 1}`);
  return { columns, rows: isHead ? rest : lines };
}

const cardColumns = ["Name", "Company", "Phone", "Email", "Address", "Town", "Postcode", "Site", "Tags", "Note"];

/** A row for each card, and for each address beyond the first one more. */
function fromVCards(text: string): Table | null {
  // One card that is broken must not take the others along.
  const cards = text.match(/BEGIN:VCARD[\s\S]*?END:VCARD/gi) ?? [];
  const rows = cards.flatMap((card) => {
    try {
      return rowsOfCard(new ICAL.Component(ICAL.parse(card.replace(/\r?\n/g, "\r\n")) as unknown[]));
    } catch {
      return [
        [`(unreadable) ${/^FN[^:]*:(.*)$/m.exec(card)?.[1]?.trim() ?? ""}`, ...cardColumns.slice(1).map(() => "")],
      ];
    }
  });
  return rows.length ? { columns: cardColumns, rows } : null;
}

function rowsOfCard(card: ICAL.Component): string[][] {
  const first = (name: string) => wordsOf(card.getFirstPropertyValue(name));
  const parts = card.getFirstPropertyValue("n");
  const [family, given] = Array.isArray(parts) ? parts.map(wordsOf) : ["", ""];
  const name = first("fn") || [given, family].filter(Boolean).join(" ");
  const person = [name, withoutEnd(first("org"), /;/), first("tel").replace(/^tel:/i, ""), first("email")];
  const tags = card.getAllProperties("categories").flatMap((property) => property.getValues().map(wordsOf));
  const addresses = card.getAllProperties("adr").map((property) => {
    const value = property.getFirstValue() as unknown;
    const [box, extended, street, town, region, postcode] = (Array.isArray(value) ? value : [value]).map(wordsOf);
    const label = wordsOf(property.getParameter("label"));
    return [[box, extended, street].filter(Boolean).join(" "), town || region || "", postcode ?? "", label];
  });
  const notes = [tags.join(", "), first("note")];
  return (addresses.length ? addresses : [["", "", "", ""]]).map((address) => [...person, ...address, ...notes]);
}

const wordsOf = (value: unknown): string =>
  value === null || value === undefined
    ? ""
    : Array.isArray(value)
      ? value.map(wordsOf).join(" ")
      : String(value as string);

/** Every row as wide as the head; what a spreadsheet put before a plain text goes. */
function tidied({ columns, rows }: Table): Table {
  return {
    columns: columns.map((name) => name.slice(0, 80)),
    rows: rows.map((row) =>
      columns.map((_, i) =>
        (row[i] ?? "")
          .replace(/^'(?=[=+\-@\t\r'])/, "")
          .trim()
          .slice(0, longestCell),
      ),
    ),
  };
}
