import Papa from "papaparse";

/**
 * What a spreadsheet would take for a formula gets an apostrophe in front (as spreadsheets write a plain text), and what
 * begins with one gets another: the import takes away exactly one.
 */
const escapeFormulae = /^[=+\-@\t\r\n'].*$/s;

/** A table as CSV (RFC 4180). */
export const csvOf = (fields: readonly string[], data: readonly (readonly (string | number)[])[]): string =>
  Papa.unparse({ fields: [...fields], data: data.map((row) => [...row]) }, { escapeFormulae });
