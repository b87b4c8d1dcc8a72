import { csvOf } from "../csv";
import { moneyTyped } from "../money/amounts";

interface ServiceRow {
  name: string;
  code: string;
  category: string;
  priceMinor: number;
  taxBp: number;
  minutes: number;
  description: string;
}
interface ExtraRow {
  name: string;
  unit: string;
  priceMinor: number;
  costMinor: number;
  taxBp: number;
}

const percent = (basisPoints: number): string => String(basisPoints / 100);

/** Services as CSV, with columns that the import knows. */
export const servicesCsv = (services: readonly ServiceRow[], currency: string): string =>
  csvOf(
    ["Name", "Code", "Category", "Price", "Tax", "Minutes", "Description"],
    services.map((s) => [
      s.name,
      s.code,
      s.category,
      moneyTyped(s.priceMinor, currency),
      percent(s.taxBp),
      s.minutes,
      s.description,
    ]),
  );

export const extrasCsv = (extras: readonly ExtraRow[], currency: string): string =>
  csvOf(
    ["Name", "Unit", "Price", "Cost", "Tax"],
    extras.map((x) => [
      x.name,
      x.unit,
      moneyTyped(x.priceMinor, currency),
      moneyTyped(x.costMinor, currency),
      percent(x.taxBp),
    ]),
  );
