import { amountIn } from "../money/amounts";
import { tidy } from "../words";
import type { RowProblem } from "./customer-row";

/** A service, an extra or a price as a row of a file tells of it; what the file does not say is null. */
export interface CatalogueDraft {
  name: string;
  code: string;
  category: string;
  priceMinor: number;
  costMinor: number | null;
  taxBp: number | null;
  minutes: number | null;
  unit: string;
  description: string;
}

/** Reads the values of a row; what cannot be read is told, cell by cell. Never throws. */
export function catalogueOf(
  values: Record<string, string>,
  kind: "services" | "extras" | "prices",
  currency: string,
): { draft: CatalogueDraft; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const wrong = (field: string, sentence: string) => void problems.push({ field, sentence });
  const text = (field: string, most: number): string => {
    const value = tidy(values[field] ?? "");
    if (value.length > most) wrong(field, `This is longer than ${most} characters.`);
    return value.slice(0, most);
  };
  const money = (field: string): number | null => {
    const written = (values[field] ?? "").trim();
    if (written === "") return null;
    const amount = amountIn(written, currency);
    if (amount === null || amount > 100_000_000) wrong(field, `“${written.slice(0, 40)}” is no amount.`);
    return amount;
  };
  const name = text("name", 80);
  const code = text("code", 2).toUpperCase();
  if (name === "" && (kind !== "prices" || code === "")) wrong("name", "There is no name.");
  if (code !== "" && !/^[A-Z]{2}$/.test(code)) wrong("code", "A code is two letters, such as SW.");
  const price = money("price");
  if (price === null && !values.price?.trim()) wrong("price", "There is no price.");
  const tax = percentIn(values.tax ?? "");
  if (tax === "unclear") wrong("tax", "Write a share in percent, such as 21.");
  const minutes = minutesIn(values.minutes ?? "");
  if (kind === "services" && (minutes === null || minutes < 5 || minutes > 600))
    wrong("minutes", "Write how long it takes: 5 to 600 minutes.");
  return {
    draft: {
      name,
      code,
      category: text("category", 80),
      priceMinor: price ?? 0,
      costMinor: money("cost"),
      taxBp: tax === "unclear" ? null : tax,
      minutes,
      unit: text("unit", 20),
      description: (values.description ?? "").trim().slice(0, 400),
    },
    problems,
  };
}

function percentIn(written: string): number | null | "unclear" {
  const plain = written.replace("%", "").replace(",", ".").trim();
  if (plain === "") return null;
  const share = Number(plain);
  return Number.isFinite(share) && share >= 0 && share <= 100 ? Math.round(share * 100) : "unclear";
}

/** "90", "90 min", "1:30" and "1.5 h" as minutes. */
function minutesIn(written: string): number | null {
  const plain = written.trim().toLowerCase().replace(",", ".");
  const clock = /^(\d{1,2}):(\d{2})$/.exec(plain);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  const hours = /^(\d{1,2}(?:\.\d{1,2})?) ?(?:h|hr|hrs|hours?)$/.exec(plain);
  if (hours) return Math.round(Number(hours[1]) * 60);
  const minutes = /^(\d{1,4}) ?(?:min|mins|minutes?|m)?$/.exec(plain);
  return minutes ? Number(minutes[1]) : null;
}
