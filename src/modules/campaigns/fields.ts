import type { MergeFields } from "@/core/messages/fields";
import { moneyWords } from "@/core/money/amounts";
import type { ViewContext } from "@/kernel/operation";
import { saidTitle } from "@/store/service-names";
import { lastHad } from "./audience";
import { type CampaignRow, offeredTo } from "./campaigns";
import type { Candidate } from "./inviting";

/** Merge fields of an invitation. */
export function fieldsOf(context: ViewContext, campaign: CampaignRow, to: Candidate): MergeFields {
  const { sql, business } = context;
  const { items, order, coupon } = offeredTo(context, campaign, to);
  const { last, line } = sql<{ last: string | null; line: string }>(
    `SELECT ${lastHad} AS last, (SELECT line FROM sites WHERE id = @siteId) AS line FROM customers c WHERE c.id = @customerId`,
  ).get({ customerId: to.customer_id, siteId: to.site_id, services: JSON.stringify([campaign.service_id]) })!;
  return {
    service: saidTitle(context.sql, items[0]!.service.name),
    site: line,
    price: { minor: order.totalMinor, currency: business.currency },
    off:
      coupon === null
        ? ""
        : coupon.kind === "percent"
          ? `${coupon.value / 100}%`
          : moneyWords(coupon.value, business.currency),
    last_time: last === null ? "" : { month: last },
    until: { days: [campaign.last_date] },
  };
}
