import { type Minor, roundHalfAway } from "./amounts";

/** What one looks back at in the books. */
export const reports = {
  "tax by invoice": "Tax by rate and month, of what was invoiced less credit notes",
  "tax by payment": "Tax by rate and month, of what was paid",
  "sales by month": "Net sales by month",
  "sales by service": "Net sales by service",
  "sales by zone": "Net sales by zone",
  "sales by technician": "Net sales by technician; of a crew, the first",
  "sales by source": "Net sales by where customers came from",
  tips: "What customers gave for each technician, what they were paid of it, and what is theirs still",
  "gateway fees": "What the card service kept, by month",
  "deposits held": "What was paid ahead for work that is not invoiced yet",
  "aged debts": "What each customer owes, by age",
  journal: "Each entry of the ledger",
} as const;
export type ReportName = keyof typeof reports;
export const reportNames = Object.keys(reports) as ReportName[];

export interface Column {
  words: string;
  kind: "text" | "money" | "number";
}

/** A report as a table; amounts are minor units. */
export interface Report {
  columns: Column[];
  rows: (string | number)[][];
  /** The sum of each column of money, and null for others; none where sums say nothing. */
  sums: (Minor | null)[] | null;
  /** Which column says what a bar is, and which how long it is; none where there is nothing to draw. */
  chart: { of: number; by: number } | null;
}

/** The sums of the columns of money. */
export const sumsOf = ({ columns, rows }: Pick<Report, "columns" | "rows">): (Minor | null)[] =>
  columns.map(({ kind }, i) => (kind === "money" ? rows.reduce((all, row) => all + Number(row[i]), 0) : null));

/**
 * What of a part of an invoice has been paid by payments in a stretch of time, by how much of the invoice was paid before
 * it and after it. The parts of all stretches add up to the whole, to the cent.
 */
export function paidPart(
  partMinor: Minor,
  totalMinor: Minor,
  { before, after }: { before: Minor; after: Minor },
): Minor {
  if (totalMinor === 0) return 0;
  const until = (paid: Minor) => roundHalfAway((partMinor * paid) / totalMinor);
  return until(after) - until(before);
}
