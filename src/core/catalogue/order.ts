import { priceLine, sum, totalOf, type Minor, type PricedLine } from "../money/amounts";

/** What is booked, and where: enough to know what it costs and what is asked for at once. */
export interface Order {
  service: { name: string; priceMinor: Minor; taxBp: number; deposit: Deposit };
  zone: { name: string; surchargeMinor: Minor; smallestOrderMinor: Minor };
  pricesIncludeTax: boolean;
}

export type Deposit = { kind: "none" } | { kind: "percent"; basisPoints: number } | { kind: "fixed"; amountMinor: Minor } | { kind: "full" };

export interface PricedOrder {
  lines: PricedLine[];
  totalMinor: Minor;
  taxMinor: Minor;
  depositMinor: Minor;
}

/** Lines, total and deposit of an order: the same for the front door, the office and the invoice. */
export function priceOrder({ service, zone, pricesIncludeTax }: Order): PricedOrder {
  const line = (description: string, unitMinor: Minor): PricedLine => priceLine({ description, quantity: 1, unitMinor, taxBp: service.taxBp }, pricesIncludeTax);
  const lines = [line(service.name, service.priceMinor)];
  if (zone.surchargeMinor > 0) lines.push(line(`Surcharge ${zone.name}`, zone.surchargeMinor));
  const priced = sum(lines.map((l) => l.unitMinor * l.quantity));
  if (priced < zone.smallestOrderMinor) lines.push(line(`Smallest order ${zone.name}`, zone.smallestOrderMinor - priced));
  const { totalMinor, taxMinor } = totalOf(lines);
  return { lines, totalMinor, taxMinor, depositMinor: depositOf(service.deposit, totalMinor) };
}

/** What is paid while booking; never more than the order costs. */
export function depositOf(deposit: Deposit, totalMinor: Minor): Minor {
  switch (deposit.kind) {
    case "none": return 0;
    case "full": return totalMinor;
    case "fixed": return Math.min(deposit.amountMinor, totalMinor);
    case "percent": return Math.min(priceLine({ description: "", quantity: 1, unitMinor: (totalMinor * deposit.basisPoints) / 10_000, taxBp: 0 }, true).amountMinor, totalMinor);
  }
}
