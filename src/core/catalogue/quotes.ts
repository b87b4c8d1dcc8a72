import {
  type Line,
  type Minor,
  type PricedLine,
  priceLine,
  shareOut,
  sum,
  totalOf,
  taxedByRate,
} from "../money/amounts";
import { addDays, type LocalDate } from "../time/dates";
import type { Item } from "./items";
import type { PricedOrder } from "./order";
import { type QuoteState, quoteStates } from "./quote-states";

/** What a person offers for some work: lines of their own, and the room that it takes. */
export interface Quoted {
  lines: readonly PricedLine[];
  minutes: number;
  crew: number;
  depositMinor: Minor;
}

/** One of several ways to do the work, of which the customer chooses. */
export interface QuoteOption extends Quoted {
  name: string;
  items: readonly Item[];
}

/** Why there is nothing to choose between: each of several needs a name of its own. Sentences by entry. */
export function choiceProblems(names: readonly string[]): Record<string, string> {
  if (names.length < 2) return {};
  const plain = names.map((name) => name.trim().toLowerCase());
  return Object.fromEntries(
    plain.flatMap((name, i) =>
      name === ""
        ? [[nameEntry(i), "Give each one a name, so that they can say which."]]
        : plain.indexOf(name) < i
          ? [[nameEntry(i), "Another one has this name already."]]
          : [],
    ),
  );
}

const nameEntry = (i: number) => (i === 0 ? "/option" : `/further/${i - 1}/option`);

/** The next day on which somebody who has not answered is asked again: so many days after it was sent, as long as it stands. */
export const nextFollowUp = (
  quote: { sent: LocalDate; validUntil: LocalDate },
  days: readonly number[],
  today: LocalDate,
): LocalDate | null =>
  days
    .map((n) => addDays(quote.sent, n))
    .filter((day) => day > today && day <= quote.validUntil)
    .sort()[0] ?? null;

/** How long a quote stands where nothing else is said, in days. */
export const quoteDays = 30;

/** Whether nobody has accepted a quote in time. */
export const hasRunOut = (quote: { state: QuoteState; validUntil: LocalDate }, today: LocalDate): boolean =>
  quoteStates.allows("change", quote.state) && quote.validUntil < today;

/** Where an open quote stands: with the customer, accepted, or ended by their no or by its day; and that in words. */
export function quoteStanding(
  quote: { state: QuoteState; validUntil: LocalDate },
  today: LocalDate,
): { standing: "out" | "accepted" | "over"; waits: string } {
  if (quote.state === "accepted") return { standing: "accepted", waits: "accepted, to be booked" };
  if (quote.state === "declined") return { standing: "over", waits: "they said no" };
  return hasRunOut(quote, today)
    ? { standing: "over", waits: "the quote has run out" }
    : { standing: "out", waits: "for the customer’s answer" };
}

/** The lines of a quote as they are offered; from then on changes of how prices are set touch them no more. */
export const quoteLines = (lines: readonly Line[], pricesIncludeTax: boolean): PricedLine[] =>
  taxedByRate(
    lines.map(({ description, ...line }) => priceLine({ description: description.trim(), ...line }, pricesIncludeTax)),
    pricesIncludeTax,
  );

/**
 * An order at the price of a quote, and with its minutes and people: what the order is made of stays.
 * Each item bears the part of the new total and deposit that it bears of the catalogue's total.
 */
export function quotedOrder(order: PricedOrder, { lines, minutes, crew, depositMinor }: Quoted): PricedOrder {
  const { totalMinor, taxMinor } = totalOf(lines);
  const weights = order.items.map((item) => item.totalMinor);
  const [shares, deposits] = [shareOut(totalMinor, weights), shareOut(depositMinor, weights)];
  return {
    ...order,
    lines: [...lines],
    totalMinor,
    taxMinor,
    depositMinor,
    minutes,
    crew,
    items: order.items.map(({ problems }, i) => ({ problems, totalMinor: shares[i]!, depositMinor: deposits[i]! })),
  };
}

/** Why a quote cannot be sent: sentences by entry. */
export function quoteProblems(
  { lines, depositMinor }: Pick<Quoted, "lines" | "depositMinor">,
  validUntil: LocalDate,
  today: LocalDate,
): Record<string, string> {
  const { totalMinor } = totalOf(lines);
  return {
    ...(totalMinor < 0 && { "/lines": "What is taken off is more than the work costs." }),
    ...(totalMinor >= 0 && depositMinor > totalMinor && { "/depositMinor": "The deposit is more than all of it." }),
    ...(validUntil < today && { "/validUntil": "This day is over. Choose a later one." }),
  };
}

/** What a quote begins with where a service is chosen for it. */
export interface QuotableService {
  id: number;
  name: string;
  priceMinor: Minor;
  taxBp: number;
  minutes: number;
  crew: number;
}

export interface QuotedWork {
  items: readonly { serviceId: number }[];
  lines: readonly Line[];
  minutes: number;
  crew: number;
}

/**
 * The work of a quote with other services: one that is added brings its line, time and people; one that is
 * taken away takes the line of its name and its time along. What was typed otherwise stays.
 */
export function withServices<W extends QuotedWork>(
  { items, lines, minutes, crew }: W,
  before: readonly QuotableService[],
  after: readonly QuotableService[],
): Pick<W, "items" | "lines" | "minutes" | "crew"> {
  const missingFrom = (others: readonly QuotableService[]) => (service: QuotableService) =>
    !others.some((other) => other.id === service.id);
  const [added, gone] = [after.filter(missingFrom(before)), before.filter(missingFrom(after))];
  const timeOf = (services: readonly QuotableService[]) => sum(services.map((service) => service.minutes));
  return {
    items: [
      ...items.filter((item) => !gone.some((s) => s.id === item.serviceId)),
      ...added.map((s) => ({ serviceId: s.id })),
    ],
    lines: [
      ...lines.filter((line) => !gone.some((s) => s.name === line.description)),
      ...added.map((s): Line => ({ description: s.name, quantity: 1, unitMinor: s.priceMinor, taxBp: s.taxBp })),
    ],
    minutes: Math.max(0, minutes + timeOf(added) - timeOf(gone)),
    crew: Math.max(crew, ...added.map((s) => s.crew)),
  };
}
