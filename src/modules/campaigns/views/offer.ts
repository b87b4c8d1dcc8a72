import { lookOf } from "@/core/look/front-door";
import { dayWords } from "@/core/time/words";
import type { Offer } from "@/core/windows/offer";
import { firstLinkTokenOf } from "@/kernel/links";
import { defineView } from "@/kernel/view";
import { agreementNow } from "@/modules/booking/agreed";
import { addressAt } from "@/modules/place/addresses";
import { answersFor, pickable } from "@/modules/placing/windows";
import { readFrontDoor } from "@/store/front-door";
import { datesOf, offeredTo, openInvite } from "../campaigns";
import { OfferToken } from "../inputs";
import { needsMore } from "../offered";

/** What the link of an invitation shows: what is offered, where, what it costs; and what the front door begins with where it asks for more. Of whom it is for it says nothing. */
export const offer = defineView({
  name: "offer",
  access: "anybody",
  input: OfferToken,
  read(context, { token }) {
    const { business, hogar, sql } = context;
    const { invite, campaign } = openInvite(context, token);
    const offered = offeredTo(context, campaign, invite);
    const { items, needs, order, coupon } = offered;
    const site = sql<{ line: string; postcode: string }>("SELECT line, postcode FROM sites WHERE id = ?").get(
      invite.site_id,
    )!;
    return {
      business: {
        name: business.name,
        mark: business.mark,
        phone: business.phone,
        currency: business.currency,
        timeZone: business.time_zone,
        onOurWayBp: business.on_our_way_bp,
      },
      look: lookOf(readFrontDoor(hogar.store)),
      what: needs.title,
      minutes: needs.minutes,
      address: site.line,
      until: dayWords(campaign.last_date),
      totalMinor: order.totalMinor,
      /** What taking a window means, at the price before what is less on our way. */
      agreement: agreementNow(context, items, order, 0),
      lines: order.lines.map(({ description, amountMinor }) => ({ description, amountMinor })),
      booked: invite.job_id === null ? null : firstLinkTokenOf(hogar, invite.job_id),
      needsMore: needsMore(context, offered),
      begins: {
        address: addressAt(context, site),
        item: { serviceId: items[0]!.service.id, quantity: items[0]!.quantity, answers: items[0]!.answers },
        coupon: coupon && { code: coupon.code, kind: coupon.kind, value: coupon.value, services: [...coupon.services] },
      },
    };
  },
});

/** The windows of an invitation that can be promised now, soonest first. */
export const offerWindows = defineView({
  name: "offer-windows",
  access: "anybody",
  input: OfferToken,
  read(context, { token }) {
    const { invite, campaign } = openInvite(context, token);
    const { needs } = offeredTo(context, campaign, invite);
    return answersFor(context, needs, datesOf(context, campaign))
      .filter((answer): answer is Offer => answer.offered)
      .map((answer) => pickable(context, needs, answer));
  },
});
