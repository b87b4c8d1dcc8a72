import Papa from "papaparse";
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

/** What a spreadsheet would take for a formula gets an apostrophe in front; the import takes it away again. */
const escapeFormulae = /^[=+\-@\t\r'].*$/;
const percent = (basisPoints: number): string => String(basisPoints / 100);

/** Services as CSV (RFC 4180), with columns that the import knows. */
export const servicesCsv = (services: readonly ServiceRow[], currency: string): string =>
  Papa.unparse(
    {
      fields: ["Name", "Code", "Category", "Price", "Tax", "Minutes", "Description"],
      data: services.map((s) => [
        s.name,
        s.code,
        s.category,
        moneyTyped(s.priceMinor, currency),
        percent(s.taxBp),
        s.minutes,
        s.description,
      ]),
    },
    { escapeFormulae },
  );

export const extrasCsv = (extras: readonly ExtraRow[], currency: string): string =>
  Papa.unparse(
    {
      fields: ["Name", "Unit", "Price", "Cost", "Tax"],
      data: extras.map((x) => [
        x.name,
        x.unit,
        moneyTyped(x.priceMinor, currency),
        moneyTyped(x.costMinor, currency),
        percent(x.taxBp),
      ]),
    },
    { escapeFormulae },
  );
