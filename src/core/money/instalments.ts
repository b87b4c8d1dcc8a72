import { addMonths, type LocalDate } from "../time/dates";
import { type Minor, moneyWords, shareOut, sum } from "./amounts";

/** A dated part of an invoice. */
export interface Part {
  due: LocalDate;
  amountMinor: Minor;
}

export const mostParts = 12;

/** A sum in so many parts of the same size, a month apart; what cannot be divided goes to the first ones, a cent each. */
export const splitEvenly = (amountMinor: Minor, parts: number, first: LocalDate): Part[] =>
  shareOut(amountMinor, Array<number>(parts).fill(1)).map((part, i) => ({
    due: addMonths(first, i),
    amountMinor: part,
  }));

/** What is open of each part: what was paid or taken back went to the first ones. Parts that are covered are left out. */
export function openParts<P extends Part>(parts: readonly P[], openMinor: Minor): (P & { openMinor: Minor })[] {
  let covered = Math.max(0, sum(parts.map(({ amountMinor }) => amountMinor)) - openMinor);
  return parts.flatMap((part) => {
    const gone = Math.min(covered, part.amountMinor);
    covered -= gone;
    return gone < part.amountMinor ? [{ ...part, openMinor: part.amountMinor - gone }] : [];
  });
}

/** Why an invoice cannot be split like this: a sentence; null where it can. */
export function wrongParts(
  parts: readonly Part[],
  { openMinor, today, currency }: { openMinor: Minor; today: LocalDate; currency: string },
): string | null {
  if (parts.length < 2 || parts.length > mostParts) return `Split it into 2 to ${mostParts} parts.`;
  if (parts.some(({ amountMinor }) => amountMinor <= 0)) return "Each part asks for something.";
  const all = sum(parts.map(({ amountMinor }) => amountMinor));
  if (all !== openMinor)
    return `The parts come to ${moneyWords(all, currency)}; ${moneyWords(openMinor, currency)} is open.`;
  if (parts[0]!.due < today) return "The first part is due today at the soonest.";
  if (parts.some(({ due }, i) => i > 0 && due <= parts[i - 1]!.due)) return "Each part is due after the one before.";
  return null;
}
