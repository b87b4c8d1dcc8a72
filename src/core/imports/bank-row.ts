import { amountIn } from "../money/amounts";
import type { LocalDate } from "../time/dates";
import { tidy } from "../words";
import type { RowProblem } from "./customer-row";
import { type DateOrder, readDate } from "./dates";
import type { Columns } from "./match-columns";
import type { Table } from "./read-file";

/** A line of a bank's statement, as a row of a file tells of it. */
export interface BankDraft {
  date: LocalDate;
  /** Below nothing: it went out. */
  amountMinor: number;
  name: string;
  words: string;
  /** What tells it from every other line of the bank: all that it says, and which of several such lines of its day it is. */
  key: string;
  /** By what it was told apart before: the bank's reference and the amount, where there was one. */
  keyBefore: string;
}

/** Reads the values of a row; what cannot be read is told, cell by cell. Never throws. */
export function bankLineOf(
  values: Record<string, string>,
  { dates, currency }: { dates: DateOrder; currency: string },
): { draft: BankDraft; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const wrong = (field: string, sentence: string) => void problems.push({ field, sentence });
  const date = readDate(values.date ?? "", dates);
  if (date === null) wrong("date", `“${(values.date ?? "").slice(0, 40)}” is no date.`);
  const amountMinor = signedAmount(values, currency, wrong);
  const stated = tidy(values.currency ?? "").toUpperCase();
  if (stated && stated !== currency) wrong("currency", `This line is in ${stated}; the books are in ${currency}.`);
  const [name, words] = [tidy(values.name ?? "").slice(0, 140), tidy(values.words ?? "").slice(0, 500)];
  const reference = tidy(values.reference ?? "");
  const nth = values.nth?.trim() || "1";
  return {
    draft: {
      date: date ?? "",
      amountMinor: amountMinor ?? 0,
      name,
      words,
      // A bank's reference alone is none: NONREF stands in many a line.
      key: JSON.stringify([date, amountMinor, name, words, reference, nth]),
      keyBefore: reference ? `${reference} ${amountMinor}` : [date, amountMinor, name, words, nth].join("|"),
    },
    problems,
  };
}

/** One column with a sign, or one for what came in and one for what went out. */
function signedAmount(
  values: Record<string, string>,
  currency: string,
  wrong: (field: string, sentence: string) => void,
): number | null {
  const read = (field: string): number | null => {
    const written = (values[field] ?? "").trim();
    if (written === "") return null;
    const isOut = /^\(.*\)$/.test(written) || /^[-−–]|[-−–]$/.test(written.replace(/[\p{Sc}\s]/gu, ""));
    const amount = amountIn(written.replace(/[-−–()+]/g, ""), currency);
    if (amount === null || amount > 10_000_000_000) {
      wrong(field, `“${written.slice(0, 40)}” is no amount.`);
      return null;
    }
    return isOut ? 0 - amount : amount;
  };
  const [amount, paidIn, paidOut] = [read("amount"), read("in"), read("out")];
  const sum = amount ?? (paidIn !== null || paidOut !== null ? Math.abs(paidIn ?? 0) - Math.abs(paidOut ?? 0) : null);
  if (sum === null && ["amount", "in", "out"].every((field) => !values[field]?.trim()))
    wrong("amount", "There is no amount.");
  if (sum === 0) wrong("amount", "The amount is nothing.");
  return sum;
}

const sameLine = "Same line";

/** What a line says, of which several may be the same; a balance that runs along says nothing of it. */
const said: readonly (string | null)[] = ["date", "amount", "in", "out", "currency", "name", "words", "reference"];

/**
 * Lines that say the same are told apart by counting them: a file that begins within the one before still counts them the same
 * way, as long as both hold whole days. Numbers that a table has already are worked out anew.
 */
export function numberSameLines({ columns, rows }: Table, { fields }: Pick<Columns, "fields">): Table {
  const isNumbered = columns.at(-1) === sameLine;
  const width = columns.length - (isNumbered ? 1 : 0);
  const counts = Array.from({ length: width }, (_, i) => i).filter((i) => said.includes(fields[i] ?? null));
  const seen = new Map<string, number>();
  return {
    columns: [...columns.slice(0, width), sameLine],
    rows: rows.map((row) => {
      const key = JSON.stringify(counts.map((i) => tidy(row[i]!)));
      const n = (seen.get(key) ?? 0) + 1;
      seen.set(key, n);
      return [...row.slice(0, width), n === 1 ? "" : String(n)];
    }),
  };
}
