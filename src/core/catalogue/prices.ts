import { type Minor, minorDigits, roundHalfAway } from "../money/amounts";

/** How prices are rounded when many are changed at once: to a multiple of so many minor units, or to whole amounts that end in 9. */
export type Rounding = { to: Minor } | { endingIn9: true; digits: number };

/** The roundings people choose from, in units of the currency. */
export const roundings = ["0.10", "0.50", "1", "5", "ending in 9"] as const;
export type RoundingName = (typeof roundings)[number];

export function roundingNamed(name: RoundingName, currency: string): Rounding {
  const digits = minorDigits(currency);
  return name === "ending in 9"
    ? { endingIn9: true, digits }
    : { to: Math.max(1, Math.round(Number(name) * 10 ** digits)) };
}

/** A price changed by a share, rounded; never below nothing. `basisPoints` of 500 is 5% up. */
export function changePrice(minor: Minor, basisPoints: number, rounding: Rounding): Minor {
  const changed = Math.max(0, (minor * (10_000 + basisPoints)) / 10_000);
  if (changed === 0) return 0;
  if ("to" in rounding) return roundHalfAway(changed / rounding.to) * rounding.to;
  // 9, 19, 29 …: the nearest of them, and at least 9.
  const whole = 10 ** rounding.digits;
  const tens = Math.round((changed / whole - 9) / 10);
  return (Math.max(0, tens) * 10 + 9) * whole;
}

/** What goes into a flat price: an hour of labour, how long, for how many people, and materials with a mark-up. */
export interface FlatPrice {
  labourMinorPerHour: Minor;
  minutes: number;
  crew: number;
  materialsMinor: Minor;
  markUpBp: number;
  /** Where prices include it; 0 where they do not. */
  taxBp: number;
}

export interface FlatPriceParts {
  labourMinor: Minor;
  materialsMinor: Minor;
  taxMinor: Minor;
  totalMinor: Minor;
}

/** A flat price worked out of labour and materials, by part; labour and materials without tax. */
export function flatPrice({
  labourMinorPerHour,
  minutes,
  crew,
  materialsMinor,
  markUpBp,
  taxBp,
}: FlatPrice): FlatPriceParts {
  const labourMinor = roundHalfAway((labourMinorPerHour * minutes * crew) / 60);
  const materials = roundHalfAway((materialsMinor * (10_000 + markUpBp)) / 10_000);
  const taxMinor = roundHalfAway(((labourMinor + materials) * taxBp) / 10_000);
  return { labourMinor, materialsMinor: materials, taxMinor, totalMinor: labourMinor + materials + taxMinor };
}

export interface Margin {
  /** All without tax. */
  revenueMinor: Minor;
  labourMinor: Minor;
  materialsMinor: Minor;
  marginMinor: Minor;
  /** Of the revenue; null where there is none. */
  basisPoints: number | null;
}

/** What is left of an order when the people and the materials are paid. */
export function marginOf(
  order: { totalMinor: Minor; taxMinor: Minor; minutes: number; crew: number; materialsMinor: Minor },
  labourCostPerHour: Minor,
): Margin {
  const revenueMinor = order.totalMinor - order.taxMinor;
  const labourMinor = roundHalfAway((labourCostPerHour * order.minutes * order.crew) / 60);
  const marginMinor = revenueMinor - labourMinor - order.materialsMinor;
  return {
    revenueMinor,
    labourMinor,
    materialsMinor: order.materialsMinor,
    marginMinor,
    basisPoints: revenueMinor > 0 ? roundHalfAway((marginMinor * 10_000) / revenueMinor) : null,
  };
}

/** The price of something bought and sold on: its cost with a mark-up, and with the tax where prices include it. All in basis points. */
export const priceFromMarkUp = (costMinor: Minor, markUpBp: number, taxOnBp: number): Minor =>
  roundHalfAway((costMinor * (10_000 + markUpBp) * (10_000 + taxOnBp)) / 1e8);

/** What is earned on top of the cost, as a share of it in basis points; null where it costs nothing. */
export const markUpOf = (
  { priceMinor, costMinor }: { priceMinor: Minor; costMinor: Minor },
  taxOnBp: number,
): number | null =>
  costMinor > 0 && Number.isFinite(priceMinor)
    ? Math.round(((priceMinor * 10_000) / (10_000 + taxOnBp) / costMinor - 1) * 10_000)
    : null;
