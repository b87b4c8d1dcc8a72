import type { PricedOrder } from "../catalogue/order";
import { quotedOrder } from "../catalogue/quotes";
import { type Minor, moneyWords, priceLine, roundHalfAway } from "../money/amounts";
import { addDays, type LocalDate } from "../time/dates";

/** What a visit of a repeat costs: as the catalogue says then; a price of its own; or nothing, because a month or a year of so many visits is paid. */
export type PriceTerms =
  { per: "catalogue" } | { per: "visit"; minor: Minor } | { per: "month" | "year"; minor: Minor; visits: number };
export const pricePers = ["catalogue", "visit", "month", "year"] as const;

/** "by the catalogue", "€95 a visit", "€60 a month, 12 visits a year included". */
export function priceTermsWords(terms: PriceTerms, currency: string): string {
  if (terms.per === "catalogue") return "by the catalogue";
  const sum = `${moneyWords(terms.minor, currency)} a ${terms.per}`;
  return terms.per === "visit"
    ? sum
    : `${sum}, ${terms.visits} ${terms.visits === 1 ? "visit" : "visits"} a ${terms.per} included`;
}

/** What an order costs by these terms: one line in place of those of the catalogue. A visit of a paid month or year costs nothing itself. */
export function atAgreedPrice(
  order: PricedOrder,
  { title, taxBp, terms }: { title: string; taxBp: number; terms: PriceTerms },
  pricesIncludeTax: boolean,
): PricedOrder {
  if (terms.per === "catalogue") return order;
  const isOwn = terms.per === "visit";
  const description = isOwn ? `${title}, as agreed` : `${title}, included in your ${terms.per}`;
  const line = priceLine({ description, quantity: 1, unitMinor: isOwn ? terms.minor : 0, taxBp }, pricesIncludeTax);
  return quotedOrder(order, { lines: [line], minutes: order.minutes, crew: order.crew, depositMinor: 0 });
}

/** Another price from a day on, by basis points, and how many days before it the customer hears of it. */
export interface PriceReview {
  date: LocalDate;
  byBp: number;
  noticeDays: number;
}

/** The price after a review, rounded to the nearest minor unit, halves away from zero. */
export const reviewed = (minor: Minor, { byBp }: Pick<PriceReview, "byBp">): Minor =>
  roundHalfAway((minor * (10_000 + byBp)) / 10_000);

/** The price that counts on a day: that of the review from its day on. */
export const priceOn = (minor: Minor, review: Pick<PriceReview, "date" | "byBp"> | null, day: LocalDate): Minor =>
  review && day >= review.date ? reviewed(minor, review) : minor;

/** The day from which the customer may be told. */
export const noticeOn = ({ date, noticeDays }: PriceReview): LocalDate => addDays(date, -noticeDays);

/** The review as it counts for whoever is told today: told later than agreed, they keep the old price for as many days as they were to have. */
export const fromNotice = (review: PriceReview, today: LocalDate): PriceReview => {
  const soonest = addDays(today, review.noticeDays);
  return review.date < soonest ? { ...review, date: soonest } : review;
};
