import type { Item } from "@/core/catalogue/items";
import type { PricedOrder } from "@/core/catalogue/order";
import { titleOf } from "@/core/catalogue/titles";
import { patternAt, type PatternsOfRepeat } from "@/core/repeats/patterns";
import { atAgreedPrice, type PriceTerms } from "@/core/repeats/price";
import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import type { LocalDate } from "@/core/time/dates";
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

export const priceTermsOf = ({ price_per, price_minor, price_visits }: RepeatRow): PriceTerms =>
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
  const known = new Map<number | null, Work>();
  return (date) => {
    const place = date === null || isOneWork ? undefined : placeOf(date);
    const patternId =
      (date !== null && agreed.get(date)) || (place === undefined ? patterns.usual : patternAt(patterns, place));
    if (!known.has(patternId)) known.set(patternId, workBy(context, repeat, patternId));
    return known.get(patternId)!;
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

function workBy(context: ViewContext, repeat: RepeatRow, patternId: number | null): Work {
  const stored =
    patternId === null ? itemsColumn.read(repeat.items) : itemsByPattern(readJobPattern(context, patternId));
  const items = stored.map((item) => readItem(context, item));
  const { needs, price } = workAtSite(context, repeat.site_id, items);
  const terms = priceTermsOf(repeat);
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
