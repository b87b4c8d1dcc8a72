/**
 * Money is an integer of minor units (cents); the currency stands on the business. Rates are basis
 * points (2100 is 21%). Rounding is half away from zero in decimal: amounts at the line, tax at the rate.
 */
export type Minor = number;

/** Rounded half away from zero as it is written in decimal: 1.005 times 100 is 100.5, whatever binary fractions make of it. */
export const roundHalfAway = (value: number): number =>
  Math.sign(value) * Math.round(Number(Math.abs(value).toPrecision(15))) + 0;

export interface Line {
  description: string;
  quantity: number;
  unitMinor: Minor;
  taxBp: number;
}

export interface PricedLine extends Line {
  /** What the customer pays for the line, tax included. */
  amountMinor: Minor;
  taxMinor: Minor;
}

/** A line with its amount and tax. Where prices include tax, the tax is taken out of the amount; otherwise it is put on top. */
export function priceLine(line: Line, pricesIncludeTax: boolean): PricedLine {
  const price = line.quantity * line.unitMinor;
  if (pricesIncludeTax) {
    const amountMinor = roundHalfAway(price);
    return { ...line, amountMinor, taxMinor: roundHalfAway((amountMinor * line.taxBp) / (10_000 + line.taxBp)) };
  }
  const net = roundHalfAway(price);
  const taxMinor = roundHalfAway((net * line.taxBp) / 10_000);
  return { ...line, amountMinor: net + taxMinor, taxMinor };
}

/**
 * Lines with the tax of each rate worked out of what its lines come to together, as most laws have it, and shared out among
 * them to the cent (Hamilton's method): so line by line it adds up to the tax of the rate.
 */
export function taxedByRate<L extends Pick<PricedLine, "amountMinor" | "taxMinor" | "taxBp">>(
  lines: readonly L[],
  pricesIncludeTax: boolean,
): L[] {
  const taxed = [...lines];
  for (const bp of new Set(lines.map(({ taxBp }) => taxBp))) {
    const of = lines.flatMap((line, i) => (line.taxBp === bp ? [i] : []));
    const base = (i: number) => (pricesIncludeTax ? lines[i]!.amountMinor : lines[i]!.amountMinor - lines[i]!.taxMinor);
    const taxOf = (minor: Minor) => (minor * bp) / (pricesIncludeTax ? 10_000 + bp : 10_000);
    const exact = of.map((i) => taxOf(base(i)));
    const shares = exact.map(Math.floor);
    const byRemainder = of.map((_, n) => n).sort((a, b) => exact[b]! - shares[b]! - (exact[a]! - shares[a]!) || a - b);
    const left = roundHalfAway(taxOf(sum(of.map(base)))) - sum(shares);
    for (const n of byRemainder.slice(0, left)) shares[n]!++;
    for (const [n, i] of of.entries())
      taxed[i] = {
        ...lines[i]!,
        taxMinor: shares[n]!,
        ...(!pricesIncludeTax && { amountMinor: base(i) + shares[n]! }),
      };
  }
  return taxed;
}

export interface Totals {
  totalMinor: Minor;
  taxMinor: Minor;
  /** Tax by rate, in the order of the rates. */
  taxes: { taxBp: number; taxMinor: Minor; amountMinor: Minor }[];
}

export function totalOf(lines: readonly Pick<PricedLine, "amountMinor" | "taxMinor" | "taxBp">[]): Totals {
  const byRate = new Map<number, { taxBp: number; taxMinor: Minor; amountMinor: Minor }>();
  for (const { taxBp, taxMinor, amountMinor } of lines) {
    const rate = byRate.get(taxBp) ?? { taxBp, taxMinor: 0, amountMinor: 0 };
    byRate.set(taxBp, { taxBp, taxMinor: rate.taxMinor + taxMinor, amountMinor: rate.amountMinor + amountMinor });
  }
  const taxes = [...byRate.values()].sort((a, b) => a.taxBp - b.taxBp);
  return { totalMinor: sum(taxes.map((t) => t.amountMinor)), taxMinor: sum(taxes.map((t) => t.taxMinor)), taxes };
}

/** An amount divided by weights, to the cent: whole parts first, what is left over to the largest remainders (Hamilton's method). Without any weight, all of it to the first. */
export function shareOut(amount: Minor, weights: readonly number[]): Minor[] {
  const all = sum(weights);
  if (all <= 0) return weights.map((_, i) => (i === 0 ? amount : 0));
  const exact = weights.map((weight) => (amount * weight) / all);
  const shares = exact.map(Math.floor);
  const byRemainder = exact
    .map((value, i) => ({ i, rest: value - shares[i]! }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i);
  const left = amount - sum(shares);
  for (const { i } of byRemainder.slice(0, left)) shares[i]!++;
  return shares;
}

export const sum = (amounts: readonly number[]): number => amounts.reduce((a, b) => a + b, 0);

/** "€1,240.00", "−€30.00". */
export function moneyWords(minor: Minor, currency: string): string {
  const { format, digits } = formatter(currency);
  return format.format(minor / 10 ** digits).replace("-", "−");
}

/** Minor units of an amount as typed ("89", "89.5", "89,50"), or null where it is none. */
export function parseMoney(text: string, currency: string): Minor | null {
  const { digits } = formatter(currency);
  const match = new RegExp(`^(\\d{1,9})(?:[.,](\\d{1,${Math.max(digits, 1)}}))?$`).exec(text.trim());
  if (!match || (match[2] && digits === 0)) return null;
  return Number(match[1]) * 10 ** digits + Number((match[2] ?? "").padEnd(digits, "0"));
}

/** "€ 1.234,50", "1,234.50" and "89" as minor units: the last point or comma with at most two figures behind it is the decimal one. */
export function amountIn(written: string, currency: string): number | null {
  const plain = written.replace(/[^\d.,]/g, "");
  if (!/\d/.test(plain) || /[a-z]{4,}/i.test(written) || /-/.test(written)) return null;
  const decimal = /[.,](\d{1,2})$/.exec(plain);
  const whole = (decimal ? plain.slice(0, decimal.index) : plain).replace(/[.,]/g, "");
  return parseMoney(decimal ? `${whole || "0"}.${decimal[1]}` : whole, currency);
}

/** Digits of the minor unit: 2 for EUR, 0 for JPY. */
export const minorDigits = (currency: string): number => formatter(currency).digits;

/** An amount as one types it: "89.50". */
export const moneyTyped = (minor: Minor, currency: string): string =>
  (minor / 10 ** minorDigits(currency)).toFixed(minorDigits(currency));

const formatters = new Map<string, { format: Intl.NumberFormat; digits: number }>();
function formatter(currency: string) {
  let known = formatters.get(currency);
  if (!known) {
    const format = new Intl.NumberFormat("en-IE", { style: "currency", currency });
    formatters.set(currency, (known = { format, digits: format.resolvedOptions().maximumFractionDigits ?? 2 }));
  }
  return known;
}
