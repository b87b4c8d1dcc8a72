import type { LocalDate } from "../time/dates";
import { type Line, type Minor, type PricedLine, priceLine, roundHalfAway, sum, taxedByRate, totalOf } from "./amounts";

import type { Part } from "./instalments";

/** Why an invoice carries tax, or does not. */
export type TaxKind = "standard" | "reverse charge" | "exempt";

/** What lines of 0% are where tax is paid as a rule. */
export type ZeroKind = "zero rated" | "exempt";

/** The category of a tax in EN 16931 (UNCL 5305): standard rate, zero rate, exempt, reverse charge. */
export type TaxCategory = "S" | "Z" | "E" | "AE";

export interface Party {
  name: string;
  /** Lines of the address, as they are printed. */
  address: string[];
  taxNumber: string;
  mail: string;
  phone: string;
}

export interface PaperLine extends PricedLine {
  /** Basis points taken off the price. */
  discountBp: number;
  /** The day on which the work was done. */
  date: LocalDate | null;
}

/** What was done with an account, with the balance after it. */
export interface PaperEntry {
  date: LocalDate;
  words: string;
  amountMinor: Minor;
  balanceMinor: Minor;
}

/**
 * A paper about money, as its reader sees it: on a page, as PDF and, where it is an invoice or a credit note, as XML.
 * Amounts of a credit note are what it takes back, above nothing.
 */
export interface Paper {
  kind: "invoice" | "credit note" | "quote" | "receipt" | "statement";
  label: string;
  issued: LocalDate;
  due: LocalDate | null;
  /** Where it is paid in parts, those that are open. */
  parts?: readonly Part[];
  /** The invoice that a credit note takes back, or that a receipt is about. */
  about: string | null;
  seller: Party & { registration: string; bankAccount: string; site: string; mark: string | null };
  buyer: Party;
  /** Where the work was done, where that is one place. */
  place: string | null;
  currency: string;
  /** Whether its prices, and so the amounts of its lines, are with tax. */
  pricesIncludeTax: boolean;
  taxKind: TaxKind;
  /** Where lines carry no tax although their customer pays it. */
  zeroKind: ZeroKind;
  /** Why there is no tax, where there is none. */
  taxWords: string;
  before: string;
  lines: PaperLine[];
  entries: PaperEntry[];
  totalMinor: Minor;
  /** What has paid it, and what was taken back or given up of it. */
  paidMinor: Minor;
  creditedMinor: Minor;
  openMinor: Minor;
  after: string;
  /** By whom it was signed: the drawing is a PNG as a data: address. */
  signature?: { by: string; drawing: string } | null;
}

/** A line of a paper: its price, less what is taken off it. */
export const priceOf = (
  line: Line & { discountBp?: number; date?: LocalDate | null },
  pricesIncludeTax: boolean,
): PaperLine => {
  const discountBp = line.discountBp ?? 0;
  const priced = priceLine({ ...line, unitMinor: (line.unitMinor * (10_000 - discountBp)) / 10_000 }, pricesIncludeTax);
  return { ...priced, unitMinor: line.unitMinor, discountBp, date: line.date ?? null };
};

/** Lines for somebody who pays no tax to us: their net amounts. */
export const withoutTax = <L extends Pick<PricedLine, "amountMinor" | "taxMinor" | "taxBp">>(
  lines: readonly L[],
): L[] => lines.map((line) => ({ ...line, amountMinor: line.amountMinor - line.taxMinor, taxMinor: 0, taxBp: 0 }));

/** So much off all of it: a line below nothing for each rate, as the business writes its prices. */
export function discountLines(
  lines: readonly PaperLine[],
  { discountBp, words, pricesIncludeTax }: { discountBp: number; words: string; pricesIncludeTax: boolean },
): PaperLine[] {
  const share = (minor: Minor) => 0 - roundHalfAway((minor * discountBp) / 10_000);
  return totalOf(lines).taxes.flatMap(({ taxBp, amountMinor, taxMinor }) => {
    const unitMinor = share(pricesIncludeTax ? amountMinor : amountMinor - taxMinor);
    return unitMinor === 0
      ? []
      : [
          {
            ...priceLine({ description: words, quantity: 1, unitMinor, taxBp }, pricesIncludeTax),
            discountBp: 0,
            date: null,
          },
        ];
  });
}

/** The lines of a paper, what is taken off all of them at the end, with the tax of each rate. */
export const linesWithDiscount = (
  lines: readonly PaperLine[],
  off: { discountBp: number; words: string; pricesIncludeTax: boolean },
): PaperLine[] => taxedByRate([...lines, ...discountLines(lines, off)], off.pricesIncludeTax);

export interface PaperTax {
  category: TaxCategory;
  taxBp: number;
  netMinor: Minor;
  taxMinor: Minor;
}

/** What a paper comes to by rate of tax: the sums of its lines, which are rounded each. */
export const taxesOf = ({ lines, ...kinds }: Pick<Paper, "lines" | "taxKind" | "zeroKind">): PaperTax[] =>
  totalOf(lines).taxes.map(({ taxBp, taxMinor, amountMinor }) => ({
    category: categoryOf(taxBp, kinds),
    taxBp,
    netMinor: amountMinor - taxMinor,
    taxMinor,
  }));

export function categoryOf(taxBp: number, { taxKind, zeroKind }: Pick<Paper, "taxKind" | "zeroKind">): TaxCategory {
  if (taxBp > 0) return "S";
  if (taxKind === "reverse charge") return "AE";
  return taxKind === "exempt" || zeroKind === "exempt" ? "E" : "Z";
}

export const netOf = ({ lines }: Pick<Paper, "lines">): Minor =>
  sum(lines.map(({ amountMinor, taxMinor }) => amountMinor - taxMinor));

/** What the law wants said where the tax is the customer's to pay. */
export const reverseChargeWords = "Reverse charge: the tax is to be accounted for by the customer.";

/** What one calls it on top of the page. */
export const paperTitle = ({ kind, label }: Pick<Paper, "kind" | "label">): string =>
  `${kind[0]!.toUpperCase()}${kind.slice(1)} ${label}`.trim();
