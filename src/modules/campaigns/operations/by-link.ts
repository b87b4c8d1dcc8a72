import { Refusal } from "@/core/problems";
import { isOnOurWay, type Offer } from "@/core/windows/offer";
import { input, windowChosen } from "@/kernel/inputs";
import { firstLinkTokenOf, linkTokenOf } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { agreementNow, AgreementRead, mustBeAsRead } from "@/modules/booking/agreed";
import { mayKeepRoom } from "@/modules/booking/unproved";
import { takeRoom } from "@/modules/booking/room";
import { workAtSite } from "@/modules/booking/site-work";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellOffice } from "@/modules/messages/telling-us";
import { answersFor } from "@/modules/placing/windows";
import { datesOf, offeredTo, openInvite } from "../campaigns";
import { Type } from "@sinclair/typebox";
import { OfferToken } from "../inputs";
import { needsMore } from "../offered";

const token = OfferToken.properties.token;

/** Somebody has opened the link of their invitation. */
export const openOffer = defineOperation({
  name: "open-offer",
  access: "anybody",
  input: OfferToken,
  run(context, { token }) {
    const { invite } = openInvite(context, token);
    context
      .sql("UPDATE campaign_invites SET opened_at = ? WHERE id = ? AND opened_at IS NULL")
      .run(context.now, invite.id);
  },
});

/** A customer who was invited takes a window by the link; twice is once. */
export const takeOffer = defineOperation({
  name: "take-offer",
  access: "anybody",
  input: input({ token, window: input(windowChosen), read: Type.Optional(AgreementRead) }),
  run(context, { token, window, read }) {
    const { sql, now } = context;
    const { invite, campaign } = openInvite(context, token);
    if (invite.job_id !== null) return { link: firstLinkTokenOf(context.hogar, invite.job_id) };
    const offered = offeredTo(context, campaign, invite);
    if (needsMore(context, offered)) throw new Refusal("service-not-offered");
    const { items, needs, coupon } = offered;
    const offer = answersFor(
      context,
      needs,
      datesOf(context, campaign).filter((date) => date === window.date),
    ).find((a): a is Offer => a.offered && a.from === window.from && a.to === window.to);
    if (!offer)
      throw new Refusal("window-gone", {
        sentence: "Somebody was faster: this window has just been taken. Choose another one.",
      });
    // Where it is on our way it costs less, as at the front door.
    const onOurWayBp = isOnOurWay(offer, needs.workPlace) ? context.business.on_our_way_bp : 0;
    const { price: order } = workAtSite(context, invite.site_id, items, { coupon, onOurWayBp });
    mustBeAsRead(context, read, agreementNow(context, items, order, 0));
    const contact = sql<{ mail: string; phone: string }>("SELECT mail, phone FROM customers WHERE id = ?").get(
      invite.customer_id,
    )!;
    mayKeepRoom(context, { date: offer.date, minutes: needs.minutes * needs.crew }, contact, true);
    const visitId = takeRoom(context, { visit: needs }, offer, { key: null, until: now });
    const jobId = agreeJob(context, {
      visitId,
      customerId: invite.customer_id,
      siteId: invite.site_id,
      items,
      order,
      note: "",
      toConfirm: items.some(({ service }) => service.confirm === 1),
      depositMinor: 0,
      bookedBy: "front door",
      couponId: coupon?.id ?? null,
      source: "campaign",
    });
    // It counts for the campaign whose link was used, and for no other.
    sql("UPDATE campaign_invites SET job_id = NULL WHERE job_id = ?").run(jobId);
    sql("UPDATE campaign_invites SET job_id = ?, opened_at = coalesce(opened_at, ?) WHERE id = ?").run(
      jobId,
      now,
      invite.id,
    );
    tellOffice(context, jobId);
    tellBooked(context, jobId);
    return { link: linkTokenOf(context.hogar, jobId) };
  },
});
