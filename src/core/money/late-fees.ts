import { addDays, type LocalDate } from "../time/dates";
import { type Minor, roundHalfAway } from "./amounts";

/** What it costs to pay late: once, so many days after the due date. No days: nothing. */
export interface LateFeeRule {
  days: number | null;
  /** A sum, and basis points of what is open. */
  minor: Minor;
  bp: number;
}

/** The day on which an invoice that is still open costs more. */
export const lateFeeDay = (due: LocalDate, { days, minor, bp }: LateFeeRule): LocalDate | null =>
  days === null || (minor === 0 && bp === 0) ? null : addDays(due, days);

export const lateFeeOf = (openMinor: Minor, { minor, bp }: LateFeeRule): Minor =>
  minor + roundHalfAway((openMinor * bp) / 10_000);
