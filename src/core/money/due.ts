import { addDays, addMonths, type LocalDate } from "../time/dates";
import { counted } from "../words";

/** When an invoice is due: so many days after its date, or after the end of the month in which it was issued; 0 days after its date is on the spot. */
export interface DueTerms {
  days: number;
  from: "invoice" | "end of month";
}

export const dueDateOf = (issued: LocalDate, { days, from }: DueTerms): LocalDate =>
  addDays(from === "invoice" ? issued : endOfMonth(issued), days);

const endOfMonth = (date: LocalDate): LocalDate => addDays(addMonths(`${date.slice(0, 7)}-01`, 1), -1);

export const dueWords = ({ days, from }: DueTerms): string =>
  from === "end of month"
    ? `${days === 0 ? "at" : `${counted(days, "day")} after`} the end of the month`
    : days === 0
      ? "on receipt"
      : `within ${counted(days, "day")}`;
