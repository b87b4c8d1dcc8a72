/** A number of an invoice or a credit note: they run from 1 in each year, without a gap. */
export interface PaperNumber {
  year: number;
  number: number;
  /** As it is printed. */
  label: string;
}

/** The number after the last one of a year; `prefix` is the owner's: "MW-2027-0001". */
export function nextNumber(prefix: string, year: number, last: number | null): PaperNumber {
  const number = (last ?? 0) + 1;
  return { year, number, label: `${prefix}${year}-${String(number).padStart(4, "0")}` };
}
