import type { ViewOutput } from "@/api/client";
import type { ImportKind } from "@/core/imports/fields";

export type OneImport = ViewOutput<"import">;
export type ImportRow = ViewOutput<"import-rows">["rows"][number];

/** What is imported, as it is said of one and of many. */
export const kindWords: Record<ImportKind, { one: string; many: string; about: string }> = {
  customers: { one: "customer", many: "customers", about: "Names, contacts, sites, tags and notes, from CSV or vCard" },
  services: { one: "service", many: "services", about: "Names, categories, prices and minutes, from CSV" },
  extras: { one: "extra", many: "extras", about: "Parts and products with unit, price and cost, from CSV" },
  repeats: {
    one: "repeat",
    many: "repeats",
    about: "Who, what, how often in words or as an RRULE, from when, window, technician and price, from CSV",
  },
  "bank lines": {
    one: "line of the bank",
    many: "lines of the bank",
    about: "A statement as CAMT.053, or as CSV from your bank’s website; the same line twice is taken once",
  },
  prices: { one: "price", many: "prices", about: "New prices of services and extras you have, from CSV" },
};

export const counted = (n: number, kind: ImportKind): string =>
  `${n} ${n === 1 ? kindWords[kind].one : kindWords[kind].many}`;

export const stateWords: Record<OneImport["state"], string> = {
  filling: "not finished reading",
  checking: "being looked over",
  checked: "waits for you",
  taking: "being imported",
  stopped: "stopped",
  taken: "imported",
  undoing: "being undone",
  undone: "undone",
};
