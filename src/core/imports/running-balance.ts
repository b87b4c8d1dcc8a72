import { minorDigits } from "../money/amounts";
import { bankLineOf } from "./bank-row";
import { type Columns, valuesOf } from "./match-columns";
import type { Table } from "./read-file";

const isBalance = /^(?:running |account )?balance\b|^saldo\b|^kontostand|^solde\b/i;
/** So many places are named; more of them say the same. */
const mostNamed = 3;

/**
 * Where the balance that runs along a bank's lines does not go on by the amount of a line: one is missing there, or stands
 * twice. Lines may run from the oldest to the newest or the other way. Nothing where a table has no such column.
 */
export function balanceSays(table: Table, columns: Columns, currency: string): string[] {
  const at = table.columns.findIndex((name, i) => isBalance.test(name.trim()) && !columns.fields[i]);
  if (at < 0) return [];
  const lines = table.rows.map((row, i) => ({
    row: i + 1,
    amount: bankLineOf(valuesOf(columns, row), { dates: columns.dates, currency }).draft.amountMinor,
    balance: balanceOf(row[at] ?? "", columns, currency),
  }));
  if (lines.some(({ balance }) => balance === null)) return [];
  const breaks = (inOrder: typeof lines) =>
    inOrder.slice(1).flatMap((line, i) => {
      const before = inOrder[i]!;
      return before.balance! + line.amount === line.balance! ? [] : [{ before, line }];
    });
  const [forth, back] = [breaks(lines), breaks(lines.toReversed())];
  const odd = back.length < forth.length ? back : forth;
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
