import type { Item } from "@/core/catalogue/items";
import type { PricedOrder } from "@/core/catalogue/order";
import { titleOf } from "@/core/catalogue/titles";
import { patternAt, type PatternsOfRepeat } from "@/core/repeats/patterns";
import { periodOf } from "@/core/money/periods";
import { atAgreedPrice, priceOn, type PriceReview, type PriceTerms } from "@/core/repeats/price";
import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, readItem } from "@/modules/catalogue/catalogue";
import { itemsByPattern, readJobPattern } from "@/modules/catalogue/job-patterns";
import { workAtSite } from "@/modules/booking/site-work";
import { visitingDays } from "@/modules/placing/windows";
import { itemsColumn } from "@/store/columns";
import { allTerms, farthest, type RepeatRow } from "./terms";

/** What is done at a date of a repeat: what it needs, and what it costs by the terms of today. */
export interface Work {
  patternId: number | null;
  items: ItemRow[];
  needs: VisitToPlace;
  order: PricedOrder;
}

export const patternsOf = (
  repeat: Pick<RepeatRow, "pattern_id" | "first_pattern_id" | "nth" | "nth_pattern_id">,
): PatternsOfRepeat => ({
  usual: repeat.pattern_id,
  first: repeat.first_pattern_id,
  nth: repeat.nth === null ? null : { every: repeat.nth, pattern: repeat.nth_pattern_id! },
});

/** The price that is agreed; on a day, where one is given: that of a review from its day on. */
export const priceTermsOf = (repeat: RepeatRow, day: LocalDate | null = null): PriceTerms => {
  const terms = agreedPrice(repeat);
  return terms.per === "catalogue" || day === null
    ? terms
    : { ...terms, minor: priceOn(terms.minor, reviewOf(repeat), day) };
};

/** The price review that was agreed, where there is a price to review. */
export const reviewOf = ({ price_minor, review_date, review_bp, review_notice_days }: RepeatRow): PriceReview | null =>
  price_minor === null || review_date === null || review_bp === null
    ? null
    : { date: review_date, byBp: review_bp, noticeDays: review_notice_days ?? 0 };

const agreedPrice = ({ price_per, price_minor, price_visits }: RepeatRow): PriceTerms =>
  price_per === "visit"
    ? { per: "visit", minor: price_minor! }
    : price_per === "catalogue"
      ? { per: "catalogue" }
      : { per: price_per, minor: price_minor!, visits: price_visits! };

/** What is done at each date of a repeat; null is what is usual. Dates beyond `to` have what is usual. */
export function workOf(
  context: ViewContext,
  repeat: RepeatRow,
  to: LocalDate = farthest,
): (date: LocalDate | null) => Work {
  const patterns = patternsOf(repeat);
  const agreed = new Map(
    context
      .sql<{ date: LocalDate; pattern_id: number }>(
        "SELECT date, pattern_id FROM repeat_exceptions WHERE repeat_id = ? AND pattern_id IS NOT NULL",
      )
      .all(repeat.id)
      .map(({ date, pattern_id }) => [date, pattern_id]),
  );
  // Where a date stands in the rule is worked out only where that says what is done.
  const isOneWork = patterns.first === null && patterns.nth === null;
  let places: Map<LocalDate, number> | null = null;
  const placeOf = (date: LocalDate) => (places ??= placesInRule(context, repeat, to)).get(date);
  const isBeyond = beyondIncluded(context, repeat);
  const known = new Map<string, Work>();
  return (date) => {
    const place = date === null || isOneWork ? undefined : placeOf(date);
    const patternId =
      (date !== null && agreed.get(date)) || (place === undefined ? patterns.usual : patternAt(patterns, place));
    const price: PriceTerms = date !== null && isBeyond(date) ? { per: "catalogue" } : priceTermsOf(repeat, date);
    const key = JSON.stringify([patternId, price]);
    if (!known.has(key)) known.set(key, workBy(context, repeat, patternId, price));
    return known.get(key)!;
  };
}

/** Whether a date comes after as many of its month or year as a flat price includes: it costs what its work costs. */
function beyondIncluded(context: ViewContext, repeat: RepeatRow): (date: LocalDate) => boolean {
  const { sql } = context;
  const terms = agreedPrice(repeat);
  if (terms.per !== "month" && terms.per !== "year") return () => false;
  const { per, visits } = terms;
  const skipped = new Set(
    sql<{ date: LocalDate }>("SELECT date FROM repeat_exceptions WHERE repeat_id = ? AND skip = 1")
      .all(repeat.id)
      .map(({ date }) => date),
  );
  const pauses = sql<{ first_date: LocalDate; last_date: LocalDate }>(
    "SELECT first_date, last_date FROM repeat_pauses WHERE repeat_id = ?",
  ).all(repeat.id);
  const all = allTerms(context, repeat);
  const counts = (date: LocalDate) =>
    !skipped.has(date) && !pauses.some(({ first_date, last_date }) => first_date <= date && date <= last_date);
  return (date) => {
    const opens = periodOf(date, per, repeat.bill_from ?? repeat.start_date);
    const before = all.flatMap(({ rule, start_date, until_date }, i) => {
      const from = i === 0 || opens > addDays(all[i - 1]!.until_date, 1) ? opens : addDays(all[i - 1]!.until_date, 1);
      const to = until_date < date ? until_date : addDays(date, -1);
      return from > to ? [] : datesOfRule(readRule(rule), start_date, from, to);
    });
    return before.filter(counts).length >= visits;
  };
}

/** What is done at one date of a repeat; null is what is usual. */
export const workOn = (context: ViewContext, repeat: RepeatRow, date: LocalDate | null): Work =>
  workOf(context, repeat, date ?? undefined)(date);

/** The usual work of a repeat, and the days on which somebody could come for it. */
export function needsOf(
  context: ViewContext,
  repeat: RepeatRow,
): { needs: VisitToPlace; comes: (day: LocalDate) => boolean } {
  const { needs } = workOn(context, repeat, null);
  return { needs, comes: visitingDays(context, needs) };
}

/** What an order needs at a site, before anything is agreed. */
export const needsAt = (context: ViewContext, siteId: number, items: readonly Item[]): VisitToPlace =>
  workAtSite(
    context,
    siteId,
    items.map((item) => readItem(context, item)),
  ).needs;

/** How many dates of the rule came before each, by all terms that have counted. */
function placesInRule(context: ViewContext, repeat: RepeatRow, to: LocalDate): Map<LocalDate, number> {
  const all = allTerms(context, repeat);
  // Counted from the last visit, its start has moved on past those that were.
  const terms = repeat.counted === "done" ? all.slice(-1) : all;
  const before = repeat.counted === "done" ? repeat.dates_before : 0;
  const dates = terms.flatMap(({ rule, start_date, until_date }) =>
    datesOfRule(readRule(rule), start_date, start_date, until_date < to ? until_date : to, mostDates),
  );
  return new Map(dates.map((date, i) => [date, before + i]));
}

/** Every day of twenty-five years. */
const mostDates = 9131;

function workBy(context: ViewContext, repeat: RepeatRow, patternId: number | null, terms: PriceTerms): Work {
  const stored =
    patternId === null ? itemsColumn.read(repeat.items) : itemsByPattern(readJobPattern(context, patternId));
  const items = stored.map((item) => readItem(context, item));
  const { needs, price } = workAtSite(context, repeat.site_id, items);
  // A price of its own is agreed for the usual visit: another one costs what its work costs.
  const isOther = terms.per === "visit" && patternId !== repeat.pattern_id;
  const order = atAgreedPrice(
    price,
    {
      title: titleOf(items),
      taxBp: items[0]!.service.tax_bp,
      terms: isOther ? { per: "catalogue" } : terms,
    },
    context.business.prices_include_tax === 1,
  );
  return { patternId, items, needs, order };
}
