import { type Minor, roundHalfAway, shareOut } from "./amounts";

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
  "deposits held": "What was paid ahead for work that was not invoiced by the end of a day",
  "aged debts": "What each customer owed at the end of a day, by age",
  "bank against books":
    "What the books have in the bank at the end of a day, and what stands on no line of a statement",
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

/** What of an invoice stands at one rate, after its credit notes. */
export interface OfRate {
  taxBp: number;
  amountMinor: Minor;
  taxMinor: Minor;
}

/**
 * What of each rate of an invoice has been paid when so much of it has: each rate in proportion to what stands of it after
 * credit notes, so that the parts add up to what was paid, to the cent. A stretch of time has what is paid at its end, less
 * what was at its beginning.
 */
export function paidByRate(
  rates: readonly OfRate[],
  paidMinor: Minor,
): { taxBp: number; netMinor: Minor; taxMinor: Minor }[] {
  const paid = shareOut(
    paidMinor,
    rates.map(({ amountMinor }) => amountMinor),
  );
  return rates.map(({ taxBp, amountMinor, taxMinor }, i) => {
    const tax = amountMinor === 0 ? 0 : roundHalfAway((taxMinor * paid[i]!) / amountMinor);
    return { taxBp, netMinor: paid[i]! - tax, taxMinor: tax };
  });
}
