import { isDate, type LocalDate } from "../time/dates";

/** Which of two numbers comes first in a written date; years first are read anyway. */
export type DateOrder = "day first" | "month first";

/** How dates are written in a column, by those that can be read in one way only; the day first where none says. */
export function dateOrderOf(cells: readonly string[]): DateOrder {
  const parts = cells.flatMap((cell) => {
    const found = /^(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(cell.trim());
    return found ? [[Number(found[1]), Number(found[2])] as const] : [];
  });
  return parts.some(([, second]) => second > 12) && !parts.some(([first]) => first > 12) ? "month first" : "day first";
}

/** A written date, or null where it is none: 2026-11-25, 25.11.2026, 11/25/26, 25 Nov 2026. */
export function readDate(text: string, order: DateOrder): LocalDate | null {
  const plain = text.trim().replace(/[T ]\d{1,2}:\d{2}.*$/, "");
  const iso = /^(\d{4})[./-](\d{1,2})[./-](\d{1,2})$/.exec(plain);
  if (iso) return dateOf(iso[1]!, iso[2]!, iso[3]!);
  const written = /^(\d{1,2})[./-](\d{1,2})[./-](\d{2}|\d{4})$/.exec(plain);
  if (written) {
    const [, one, other, year] = written as unknown as [string, string, string, string];
    const whole = year.length === 2 ? String((Number(year) > 70 ? 1900 : 2000) + Number(year)) : year;
    return order === "day first" ? dateOf(whole, other, one) : dateOf(whole, one, other);
  }
  const named = /^(\d{1,2})\.? ([A-Za-z]{3})[a-z]*\.?,? (\d{4})$/.exec(plain);
  const month = named ? months.indexOf(named[2]!.toLowerCase()) + 1 : 0;
  return named && month > 0 ? dateOf(named[3]!, String(month), named[1]!) : null;
}

const months = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

function dateOf(year: string, month: string, day: string): LocalDate | null {
  const date = `${year}-${month.padStart(2, "0")}-${day.padStart(2, "0")}`;
  return isDate(date) ? date : null;
}
