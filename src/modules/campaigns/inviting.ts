import { dayMs } from "@/core/horizons";
import { inviteToday } from "@/core/messages/inviting";
import { addDays } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { ViewContext } from "@/kernel/operation";
import { roomLeft } from "@/modules/placing/room-left";
import { audienceColumn, campaignTextsColumn } from "@/store/columns";
import { agreedToOffers, audienceCondition, channelsFor, lastHad, siteOf } from "./audience";
import { type CampaignRow, datesOf, type Meant, offeredTo, readCampaign } from "./campaigns";

/** Campaigns whose next invitations are due. */
export const dueCampaigns = ({ sql, minute }: ViewContext): number[] =>
  sql<{ id: number }>("SELECT id FROM campaigns WHERE next_at <= ? ORDER BY next_at")
    .all(minute)
    .map(({ id }) => id);

/** Somebody who could be invited, and where the visit would be. */
export interface Candidate {
  customer_id: number;
  site_id: number;
}

/** Who could be invited next: those who had it longest ago come first, those who never had it last. */
function candidates(
  context: ViewContext,
  campaign: Pick<CampaignRow, "id" | "audience" | "texts">,
  most: number,
): Candidate[] {
  const channels = channelsFor(context, campaignTextsColumn.read(campaign.texts));
  const { where, params } = audienceCondition(context, audienceColumn.read(campaign.audience), campaign.id);
  return context
    .sql<Candidate>(
      `SELECT c.id AS customer_id, ${siteOf} AS site_id FROM customers c WHERE ${where} AND ${agreedToOffers(channels)}
        ORDER BY ${lastHad} NULLS LAST, c.id LIMIT @most`,
    )
    .all({ ...params, most });
}

/** For how many of those who come next it is looked whether there is room, for each that may be invited, and in all where it is gone: some live where no day is free. */
const triesForEach = 2;
const mostTries = 100;

export type TodaysTurn = { invite: Candidate[] } | { end: string };

/** What a campaign does now: whom it invites, as many as there is room for; or why it ends. Looked at outside of any transaction. */
export function todaysTurn(context: ViewContext, campaignId: number): TodaysTurn {
  const campaign = readCampaign(context, campaignId);
  const dates = datesOf(context, campaign);
  if (campaign.last_date <= context.today) return { end: "Its last day has come." };
  if (channelsFor(context, campaignTextsColumn.read(campaign.texts)).length === 0)
    return { end: "Offers are switched off, or have no channel for its words." };
  // Nothing can be booked yet: the days lie beyond the horizon.
  if (dates.length === 0) return { invite: [] };
  const asked = awaited(context);
  const most = campaign.most_a_day - invitedToday(context, campaign);
  const waiting = candidates(context, campaign, Math.max(mostTries, most * triesForEach));
  if (waiting.length === 0) return asked.length ? { invite: [] } : { end: "Everybody was invited." };
  if (most <= 0) return { invite: [] };
  const roomFor = (some: readonly Candidate[]) =>
    roomLeft(context, [...asked, ...some.map((one) => visitOf(context, campaign, one))], dates).map(
      (window) => window !== null,
    );
  const next = waiting.slice(0, most * triesForEach);
  let room = roomFor(next);
  // Nobody of those who come next fits: perhaps others do, who live elsewhere.
  if (waiting.length > next.length && room.slice(asked.length).every((fits) => !fits)) room = roomFor(waiting);
  const turn = inviteToday({ asked: room.slice(0, asked.length), waiting: room.slice(asked.length), most });
  return "full" in turn
    ? { end: "There is no room left on its days." }
    : { invite: turn.invite.map((i) => waiting[i]!) };
}

const visitOf = (context: ViewContext, campaign: Meant, to: Candidate): VisitToPlace =>
  offeredTo(context, campaign, to).needs;

/** The visits of those who were asked, by whatever campaign, and may still answer: their room is not offered to others. */
const awaited = (context: ViewContext): VisitToPlace[] =>
  context
    .sql<Candidate & { campaign_id: number }>(
      `SELECT i.customer_id, i.site_id, i.campaign_id FROM campaign_invites i JOIN campaigns c ON c.id = i.campaign_id
        WHERE i.job_id IS NULL AND c.last_date >= @today AND i.invited_at > @now - c.answer_days * ${dayMs} ORDER BY i.id`,
    )
    .all({ today: context.today, now: context.now })
    .map((one) => visitOf(context, readCampaign(context, one.campaign_id), one));

const invitedToday = ({ sql, business, today }: ViewContext, { id }: CampaignRow): number =>
  sql<{ n: number }>("SELECT count(*) AS n FROM campaign_invites WHERE campaign_id = ? AND invited_at >= ?").get(
    id,
    epochMinute(today, 0, business.time_zone) * 60_000,
  )!.n;

/** The next moment of a campaign, after now (epoch minutes). */
export function nextTurn(
  { minute, today, business }: ViewContext,
  { at_minute }: Pick<CampaignRow, "at_minute">,
): number {
  const todays = epochMinute(today, at_minute, business.time_zone);
  if (todays > minute) return todays;
  return epochMinute(addDays(today, 1), at_minute, business.time_zone);
}

/** For how many of those who would be invited there is room on the days of a campaign, of as many as are looked at. */
export function roomForAudience(
  context: ViewContext,
  campaign: Meant & Pick<CampaignRow, "id" | "audience" | "texts">,
  most: number,
): { looked: number; fit: number } {
  const found = candidates(context, campaign, most);
  const room = roomLeft(
    context,
    found.map((one) => visitOf(context, campaign, one)),
    datesOf(context, campaign),
  );
  return { looked: found.length, fit: room.filter((window) => window !== null).length };
}
