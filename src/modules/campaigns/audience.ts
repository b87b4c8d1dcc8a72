import type { Audience } from "@/core/customers/audience";
import { everybody } from "@/core/customers/filter";
import { dayMs } from "@/core/horizons";
import { type CampaignChannel, type CampaignTexts, channelsOfCampaign } from "@/core/messages/campaign-texts";
import type { ViewContext } from "@/kernel/operation";
import { filterCondition } from "@/modules/customers/filtered";
import { settingsOf } from "@/modules/messages/settings";
import { idsColumn } from "@/store/columns";

/** The day on which a customer `c` last had one of the services (`@services`; none named: any). */
export const lastHad = `(SELECT max(v.date) FROM jobs j JOIN visits v ON v.job_id = j.id
  WHERE j.customer_id = c.id AND v.state = 'done' AND (@services = '[]'
    OR v.service_id IN (SELECT value FROM json_each(@services))
    OR EXISTS (SELECT 1 FROM json_each(v.also) a WHERE a.value IN (SELECT value FROM json_each(@services)))))`;

/** What a customer `c` has paid in all and not been given back. */
export const paidInAll = `(SELECT coalesce(sum(p.amount_minor), 0) - coalesce((SELECT sum(r.amount_minor) FROM refunds r
    JOIN payments q ON q.id = r.payment_id WHERE q.customer_id = c.id), 0)
  FROM payments p WHERE p.customer_id = c.id AND p.state = 'received')`;

/** Where the visit would be: at the place of the last such visit, otherwise at the first of theirs in the zones (`@zones`; none named: any). */
export const siteOf = `(SELECT s.id FROM sites s WHERE s.customer_id = c.id AND s.archived_at IS NULL
    AND (@zones = '[]' OR s.zone_id IN (SELECT value FROM json_each(@zones)))
  ORDER BY (SELECT max(v.date) FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.site_id = s.id AND v.state = 'done') DESC NULLS LAST, s.id
  LIMIT 1)`;

/** Whom a campaign means, as a condition on customers `c`, whether or not they have agreed to offers. `campaignId`: one of which they must have no invitation yet. */
export function audienceCondition(
  context: ViewContext,
  audience: Audience,
  campaignId: number | null,
): { where: string; params: Record<string, string | number | null> } {
  const filtered = filterCondition(context, { ...everybody, noComing: audience.noComing, tag: audience.tag });
  const parts = [
    "c.merged_into IS NULL AND c.erased_at IS NULL AND (c.mail <> '' OR c.phone <> '')",
    filtered.where,
    `${siteOf} IS NOT NULL`,
    "NOT EXISTS (SELECT 1 FROM campaign_invites i WHERE i.customer_id = c.id AND (i.campaign_id = @campaignId OR i.invited_at > @rested))",
  ];
  const { monthsAgoLeast: least, monthsAgoMost: most, services, paidLeastMinor } = audience;
  if (services.length || least !== null || most !== null) parts.push(`${lastHad} IS NOT NULL`);
  if (least !== null) parts.push(`${lastHad} <= date(@today, '-' || CAST(@least AS INTEGER) || ' months')`);
  if (most !== null) parts.push(`${lastHad} >= date(@today, '-' || CAST(@most AS INTEGER) || ' months')`);
  if (paidLeastMinor !== null) parts.push(`${paidInAll} >= @paidLeast`);
  return {
    where: parts.join(" AND "),
    params: {
      ...filtered.params,
      today: context.today,
      services: idsColumn.write([...services]),
      zones: idsColumn.write([...audience.zones]),
      least,
      most,
      paidLeast: paidLeastMinor,
      campaignId,
      rested: context.now - audience.restDays * dayMs,
    },
  };
}

const addresses = { mail: "c.mail", text: "c.phone" } as const;

/** On which channels an invitation can go out: those of its words that the owner has for offers at all. None: nothing goes. */
export function channelsFor(context: ViewContext, texts: CampaignTexts): CampaignChannel[] {
  const { on, channels } = settingsOf(context, "offer");
  return on ? channelsOfCampaign(texts).filter((channel) => channels.includes(channel)) : [];
}

/** They have agreed to offers, and are reached on one of these channels, on which they have not ended them. */
export const agreedToOffers = (channels: readonly CampaignChannel[]): string => {
  const reached = channels.map((channel) => {
    const address = addresses[channel];
    return `(${address} <> ''
      AND NOT EXISTS (SELECT 1 FROM withheld w WHERE w.customer_id = c.id AND w.purpose = 'offers' AND w.channel = '${channel}')
      AND NOT EXISTS (SELECT 1 FROM stops t WHERE t.channel = '${channel}' AND t.address = ${address}))`;
  });
  return `(c.offers = 1 AND (${reached.join(" OR ") || "0"}))`;
};
