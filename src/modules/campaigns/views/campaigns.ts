import { campaignChannels, type CampaignTexts } from "@/core/messages/campaign-texts";
import { fieldsOf as fieldNames } from "@/core/messages/occasions";
import { fieldOf } from "@/core/messages/fields";
import { languages } from "@/core/messages/languages";
import { groupBy } from "@/core/group";
import { addDays } from "@/core/time/dates";
import { localDate } from "@/core/time/local";
import { Refusal } from "@/core/problems";
import { DateText, Id, input, Nothing, OneOf, OrNull } from "@/kernel/inputs";
import { pageInput, readPage } from "@/kernel/paging";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { readCoupons } from "@/modules/catalogue/coupons";
import { searchCondition } from "@/modules/customers/search";
import { rightsOn } from "@/kernel/seen";
import { templateOf } from "@/modules/messages/settings";
import { audienceColumn, campaignTextsColumn } from "@/store/columns";
import { agreedToOffers, audienceCondition, lastHad, paidInAll } from "../audience";
import { type CampaignRow, readCampaign } from "../campaigns";
import { AudienceInput, Texts } from "../inputs";
import { roomForAudience } from "../inviting";
import { resultsOf } from "../results";
import { Type } from "@sinclair/typebox";

/** All campaigns, those that run first, with what has come of them. */
export const campaigns = defineView({
  name: "campaigns",
  access: "setup.change of all",
  input: Nothing,
  read: (context) => ({
    currency: context.business.currency,
    rows: context
      .sql<CampaignRow & { service: string }>(
        `SELECT c.*, s.name AS service FROM campaigns c JOIN services s ON s.id = c.service_id
          ORDER BY CASE c.state WHEN 'running' THEN 0 WHEN 'paused' THEN 1 WHEN 'draft' THEN 2 ELSE 3 END, c.id DESC LIMIT 200`,
      )
      .all()
      .map((row) => ({
        id: row.id,
        name: row.name,
        state: row.state,
        service: row.service,
        first: row.first_date,
        last: row.last_date,
        nextAt: row.next_at,
        endReason: row.end_reason,
        results: resultsOf(context, row.id),
      })),
  }),
});

/** One campaign, to be written and looked at; without an id, what a new one begins with. */
export const campaign = defineView({
  name: "campaign",
  access: "setup.change of all",
  input: input({ id: OrNull(Id) }),
  read(context, { id }) {
    const { sql, business, today } = context;
    const row = id === null ? null : readCampaign(context, id);
    return {
      currency: business.currency,
      timeZone: business.time_zone,
      language: business.language,
      partMilli: business.text_part_milli,
      today,
      campaign: row && {
        id: row.id,
        state: row.state,
        endReason: row.end_reason,
        nextAt: row.next_at,
        name: row.name,
        serviceId: row.service_id,
        couponId: row.coupon_id,
        audience: audienceColumn.read(row.audience),
        texts: campaignTextsColumn.read(row.texts),
        first: row.first_date,
        last: row.last_date,
        at: row.at_minute,
        mostADay: row.most_a_day,
        answerDays: row.answer_days,
      },
      results: row && resultsOf(context, row.id),
      byDay: row === null ? [] : byDay(context, row.id),
      /** What a new one begins with. */
      starting: {
        first: addDays(today, 3),
        last: addDays(today, Math.min(60, business.horizon_days)),
        texts: startingTexts(context),
      },
      legend: fieldNames("offer").map((name) => {
        const field = fieldOf(name)!;
        return { name, about: field.about, mayMiss: field.mayMiss === true, of: [] as string[] };
      }),
      services: sql<{ id: number; name: string }>(
        "SELECT id, name FROM services WHERE active = 1 AND price_kind <> 'quote' ORDER BY position, name",
      ).all(),
      zones: sql<{ id: number; name: string }>("SELECT id, name FROM zones WHERE active = 1 ORDER BY name").all(),
      coupons: readCoupons(context)
        .filter(({ active }) => active)
        .map(({ id: couponId, code, kind, value, services, last }) => ({
          id: couponId,
          code,
          kind,
          value,
          services,
          last,
        })),
      tags: sql<{ tag: string }>(
        "SELECT tag, count(*) AS n FROM customer_tags GROUP BY tag ORDER BY n DESC, tag LIMIT 100",
      )
        .all()
        .map(({ tag }) => tag),
    };
  },
});

/** The words of the occasion, in each language, for email and text. */
function startingTexts(context: ViewContext): CampaignTexts {
  return Object.fromEntries(
    languages.map((language) => [
      language,
      Object.fromEntries(
        campaignChannels.flatMap((channel) => {
          const words = templateOf(context, "offer", channel, language);
          return words ? [[channel, words]] : [];
        }),
      ),
    ]),
  );
}

/** Invited by day, and how many of them have booked since; what was cancelled does not count. */
function byDay(
  { sql, business }: ViewContext,
  campaignId: number,
): { date: string; invited: number; booked: number }[] {
  const invites = sql<{ at: number; booked: number }>(
    `SELECT i.invited_at AS at, j.id IS NOT NULL AS booked
      FROM campaign_invites i LEFT JOIN jobs j ON j.id = i.job_id AND j.state <> 'cancelled'
      WHERE i.campaign_id = ? ORDER BY i.invited_at`,
  ).all(campaignId);
  const days = groupBy(invites, ({ at }) => localDate(Math.floor(at / 60_000), business.time_zone));
  return [...days].map(([date, those]) => ({
    date,
    invited: those.length,
    booked: those.filter(({ booked }) => booked).length,
  }));
}

/** Ways in which an invitation goes out. */
const Channels = Type.Array(OneOf(campaignChannels), { maxItems: 2 });

/** Whom a campaign would write to, and how many: those of the choice, and those of them who have agreed to offers. */
export const campaignAudience = defineView({
  name: "campaign-audience",
  access: "setup.change of all",
  input: input({
    ...pageInput(["name", "lastHad", "paidMinor"]),
    audience: AudienceInput,
    channels: Channels,
    campaignId: OrNull(Id),
  }),
  read(context, { audience, channels, campaignId, ...asked }) {
    const rights = rightsOn(context.actor);
    if (!rights.money && (asked.sort === "paidMinor" || audience.paidLeastMinor !== null))
      throw new Refusal("not-allowed");
    const { where, params } = audienceCondition(context, audience, campaignId);
    const searched = searchCondition(asked.search, rights);
    const all = { ...params, ...searched.params };
    const { rows, count } = readPage(context, asked, {
      from: "FROM customers c",
      where: `${where} AND ${searched.where} AND ${agreedToOffers(channels)}`,
      id: "c.id",
      order: { name: "c.name COLLATE NOCASE", lastHad, paidMinor: paidInAll },
      params: all,
    });
    const row = context.sql<{ id: number; name: string; place: string; lastHad: string | null; paidMinor: number }>(
      `SELECT c.id, c.name, (SELECT s.line FROM sites s WHERE s.customer_id = c.id AND s.archived_at IS NULL ORDER BY s.id LIMIT 1) AS place,
          ${lastHad} AS lastHad, ${paidInAll} AS paidMinor FROM customers c WHERE c.id = @id`,
    );
    return {
      count,
      /** Who are meant, whether or not they have agreed. */
      meant: context.sql<{ n: number }>(`SELECT count(*) AS n FROM customers c WHERE ${where}`).get(params)!.n,
      rows: rows.map((id) => {
        const found = row.get({ id, services: params.services })!;
        return { ...found, paidMinor: rights.money ? found.paidMinor : null };
      }),
    };
  },
});

/** So many are put into the days that there are, to see how many of them there is room for. */
const lookedAt = 60;

/** How many of those who would be invited there is room for. */
export const campaignRoom = defineView({
  name: "campaign-room",
  access: "setup.change of all",
  input: input({
    audience: AudienceInput,
    texts: Texts,
    serviceId: Id,
    first: DateText,
    last: DateText,
    campaignId: OrNull(Id),
  }),
  read(context, { audience, texts, serviceId, first, last, campaignId }) {
    if (last < first)
      throw new Refusal("invalid-input", { fields: { "/last": "The last day is not before the first." } });
    return roomForAudience(
      context,
      {
        id: campaignId ?? 0,
        audience: JSON.stringify(audience),
        texts: JSON.stringify(texts),
        service_id: serviceId,
        coupon_id: null,
        first_date: first,
        last_date: last,
      },
      lookedAt,
    );
  },
});
