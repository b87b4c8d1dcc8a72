import type { LocalDate } from "../time/dates";
import { dateWords } from "../time/words";

/** What an account held, in hundredths of the currency's unit, whichever it is. */
interface BalanceOn {
  cents: number;
  date: LocalDate;
}

/** What the statements of a file open and close with. `account`: as the bank numbers it, or nothing. */
export interface StatementBalances {
  account: string;
  opening: BalanceOn;
  closing: BalanceOn;
}

/** What is odd about a file that follows another of the same account: there is something between them. Files that overlap say nothing. */
export function gapBetween(last: StatementBalances | null, next: StatementBalances | null): string[] {
  if (!last || !next || last.account !== next.account || next.opening.date < last.closing.date) return [];
  if (next.opening.cents === last.closing.cents) return [];
  return [
    `A statement is missing: the last one that was imported closed with ${decimal(last.closing.cents)} on ${dateWords(last.closing.date)}, and this one opens with ${decimal(next.opening.cents)} on ${dateWords(next.opening.date)}.`,
  ];
}

const decimal = (cents: number): string => (cents / 100).toFixed(2);
