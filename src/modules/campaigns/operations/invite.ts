import { Id, input, OrNull } from "@/kernel/inputs";
import { makeShortLink } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";
import { campaignWords } from "@/modules/messages/writing";
import { tellOfOffer } from "@/modules/messages/messaging";
import { audienceColumn, campaignTextsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { agreedToOffers, audienceCondition, channelsFor } from "../audience";
import { readCampaign } from "../campaigns";
import { fieldsOf } from "../fields";
import { nextTurn } from "../inviting";
import { endOf } from "./campaigns";

/** Invites one customer by their link; whoever was invited meanwhile, or is not meant any more, is not. */
export const inviteCustomer = defineOperation({
  name: "invite-customer",
  access: "system",
  input: input({ campaignId: Id, customerId: Id, siteId: Id }),
  run(context, { campaignId, customerId, siteId }) {
    const { sql, now } = context;
    const campaign = readCampaign(context, campaignId);
    if (campaign.state !== "running") return;
    const texts = campaignTextsColumn.read(campaign.texts);
    const { where, params } = audienceCondition(context, audienceColumn.read(campaign.audience), campaignId);
    if (
      !sql(
        `SELECT 1 FROM customers c WHERE c.id = @customerId AND ${where} AND ${agreedToOffers(channelsFor(context, texts))}`,
      ).get({
        ...params,
        customerId,
      })
    )
      return;
    const id = insertRow(sql, "campaign_invites", {
      campaign_id: campaignId,
      customer_id: customerId,
      site_id: siteId,
      nonce: nanoid(32),
      invited_at: now,
    });
    makeShortLink(context, { kind: "offer", id });
    tellOfOffer(context, {
      customerId,
      inviteId: id,
      words: campaignWords(texts),
      fields: fieldsOf(context, campaign, { customer_id: customerId, site_id: siteId }),
    });
  },
});

/** A campaign has done what it does today: it goes on tomorrow, or it ends. */
export const closeTurn = defineOperation({
  name: "close-campaign-turn",
  access: "system",
  input: input({ campaignId: Id, end: OrNull(Type.String({ maxLength: 200 })) }),
  run(context, { campaignId, end }) {
    const campaign = readCampaign(context, campaignId);
    if (campaign.state !== "running") return;
    if (end !== null) return endOf(context, campaignId, end);
    context.sql("UPDATE campaigns SET next_at = ? WHERE id = ?").run(nextTurn(context, campaign), campaignId);
  },
});
