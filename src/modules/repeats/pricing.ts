import type { PricedOrder } from "@/core/catalogue/order";
import { titleOf } from "@/core/catalogue/titles";
import { atAgreedPrice, type PriceTerms } from "@/core/repeats/price";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, priceItems, readItem, zoneThatCounts } from "@/modules/catalogue/catalogue";
import type { ZoneRules } from "@/modules/place/zones";
import { itemsColumn } from "@/store/columns";
import type { RepeatRow } from "./terms";

export const priceTermsOf = ({ price_per, price_minor, price_visits }: RepeatRow): PriceTerms =>
  price_per === "visit"
    ? { per: "visit", minor: price_minor! }
    : price_per === "catalogue"
      ? { per: "catalogue" }
      : { per: price_per, minor: price_minor!, visits: price_visits! };

/** What is done at a visit of a repeat, and what that costs by its terms today. */
export function orderOfRepeat(
  context: ViewContext,
  repeat: RepeatRow,
): { items: ItemRow[]; order: PricedOrder; zone: ZoneRules | null } {
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const zone = zoneThatCounts(
    items,
    context
      .sql<ZoneRules>("SELECT z.* FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.id = ?")
      .get(repeat.site_id) ?? null,
  );
  const order = atAgreedPrice(
    priceItems(context, items, zone),
    { title: titleOf(items), taxBp: items[0]!.service.tax_bp, terms: priceTermsOf(repeat) },
    context.business.prices_include_tax === 1,
  );
  return { items, order, zone };
}
