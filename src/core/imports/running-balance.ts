import { minorDigits } from "../money/amounts";
import { bankLineOf } from "./bank-row";
import { type Columns, valuesOf } from "./match-columns";
import type { Table } from "./read-file";
import type { LocalDate } from "../time/dates";
import type { StatementBalances } from "./statement-balances";

const isBalance = /^(?:running |account )?balance\b|^saldo\b|^kontostand|^solde\b/i;
/** So many places are named; more of them say the same. */
const mostNamed = 3;

/**
 * Where the balance that runs along a bank's lines does not go on by the amount of a line: one is missing there, or stands
 * twice. Lines may run from the oldest to the newest or the other way. Nothing where a table has no such column.
 */
export function balanceSays(table: Table, columns: Columns, currency: string): string[] {
  const odd = breaks(oldestFirst(linesOf(table, columns, currency)));
  const money = (minor: number) => (minor / 10 ** minorDigits(currency)).toFixed(minorDigits(currency));
  const said = odd
    .slice(0, mostNamed)
    .map(
      ({ before, line }) =>
        `The balance goes from ${money(before.balance!)} in row ${before.row} to ${money(line.balance!)} in row ${line.row}, whose amount is ${money(line.amount)}: a line may be missing.`,
    );
  return odd.length > mostNamed ? [...said, `The same in ${odd.length - mostNamed} more places.`] : said;
}

/** A balance is written as an amount is. */
function balanceOf(written: string, columns: Columns, currency: string): number | null {
  if (written.trim() === "") return null;
  if (/^[-+\s\p{Sc}]*0*(?:[.,]0+)?$/u.test(written.trim())) return 0;
  const { draft, problems } = bankLineOf({ date: "2027-01-01", amount: written }, { dates: columns.dates, currency });
  return problems.some(({ field }) => field === "amount") ? null : draft.amountMinor;
}

interface Line {
  row: number;
  date: LocalDate | null;
  amount: number;
  balance: number;
}

/** The lines of a table with the balance after each; none where it has no such column, or leaves it out. */
function linesOf(table: Table, columns: Columns, currency: string): Line[] {
  const at = table.columns.findIndex((name, i) => isBalance.test(name.trim()) && !columns.fields[i]);
  if (at < 0) return [];
  const lines = table.rows.flatMap((row, i): Line[] => {
    const { draft } = bankLineOf(valuesOf(columns, row), { dates: columns.dates, currency });
    const balance = balanceOf(row[at] ?? "", columns, currency);
    return balance === null ? [] : [{ row: i + 1, date: draft.date, amount: draft.amountMinor, balance }];
  });
  return lines.length === table.rows.length ? lines : [];
}

const breaks = (lines: readonly Line[]): { before: Line; line: Line }[] =>
  lines.slice(1).flatMap((line, i) => {
    const before = lines[i]!;
    return before.balance + line.amount === line.balance ? [] : [{ before, line }];
  });

/** Lines in the order in which their balance runs on best. */
function oldestFirst(lines: Line[]): Line[] {
  const back = lines.toReversed();
  return breaks(back).length < breaks(lines).length ? back : lines;
}

/** What the lines of a table begin and end with, by the balance that runs along them; null where there is none. */
export function endsOf(table: Table, columns: Columns, currency: string): StatementBalances | null {
  const lines = oldestFirst(linesOf(table, columns, currency));
  const [first, last] = [lines[0], lines.at(-1)];
  if (!first?.date || !last?.date) return null;
  const cents = (minor: number) => Math.round((minor * 100) / 10 ** minorDigits(currency));
  return {
    account: "",
    opening: { cents: cents(first.balance - first.amount), date: first.date },
    closing: { cents: cents(last.balance), date: last.date },
  };
}
