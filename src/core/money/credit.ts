import { type Minor, roundHalfAway } from "./amounts";

/** A line of an invoice, and what credit notes have taken back of it before. */
export interface CreditableLine {
  position: number;
  description: string;
  taxBp: number;
  amountMinor: Minor;
  taxMinor: Minor;
  creditedMinor: Minor;
  creditedTaxMinor: Minor;
}

export interface CreditedLine {
  position: number;
  description: string;
  taxBp: number;
  amountMinor: Minor;
  taxMinor: Minor;
}

/** What of a line can still be taken back. A line that takes something off can be taken back too: below nothing. */
export const leftOf = ({ amountMinor, creditedMinor }: CreditableLine): Minor => amountMinor - creditedMinor;

/**
 * Takes back so much of a line: its share of the tax, rounded; the last part of a line takes the tax that is left, so that
 * all parts together are the line. Null where it is more than is left, or of the other sign.
 */
export function creditedPart(line: CreditableLine, amountMinor: Minor): CreditedLine | null {
  const left = leftOf(line);
  if (amountMinor === 0 || Math.sign(amountMinor) !== Math.sign(left) || Math.abs(amountMinor) > Math.abs(left))
    return null;
  const { position, description, taxBp } = line;
  const taxMinor =
    amountMinor === left
      ? line.taxMinor - line.creditedTaxMinor
      : roundHalfAway((amountMinor * line.taxMinor) / line.amountMinor);
  return { position, description, taxBp, amountMinor, taxMinor };
}
