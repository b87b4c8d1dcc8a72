import { justOne } from "@/core/catalogue/items";
import { couponProblem } from "@/core/catalogue/coupons";
import type { PricedOrder } from "@/core/catalogue/order";
import { Refusal } from "@/core/problems";
import { datesFrom, type LocalDate } from "@/core/time/dates";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import { openedBy } from "@/kernel/links";
import type { ViewContext } from "@/kernel/operation";
import { workAtSite } from "@/modules/booking/site-work";
import { type ItemRow, readItem } from "@/modules/catalogue/catalogue";
import { readCoupons, type StoredCoupon } from "@/modules/catalogue/coupons";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import { bookableDates } from "@/modules/placing/windows";
import type { Rows } from "@/store/rows";

export type CampaignRow = Rows["campaigns"];
export type InviteRow = Rows["campaign_invites"];

export function readCampaign({ sql }: Pick<ViewContext, "sql">, id: number): CampaignRow {
  const campaign = sql<CampaignRow>("SELECT * FROM campaigns WHERE id = ?").get(id);
  if (!campaign) throw new Refusal("not-found");
  return campaign;
}

/** What a campaign invites to, and on which days. */
export type Meant = Pick<CampaignRow, "service_id" | "coupon_id" | "first_date" | "last_date">;

/** The days on which visits of a campaign may still be, and are booked by now. */
export const datesOf = (
  context: ViewContext,
  { first_date, last_date }: Pick<Meant, "first_date" | "last_date">,
): LocalDate[] => {
  const bookable = new Set(bookableDates(context));
  return datesFrom(first_date, last_date).filter((date) => bookable.has(date));
};

/** What somebody is invited to: the service as they had it last, where they had it, with what it costs them. */
export interface Offered {
  items: ItemRow[];
  needs: VisitToPlace;
  order: PricedOrder;
  coupon: StoredCoupon | null;
}

export function offeredTo(
  context: ViewContext,
  campaign: Pick<Meant, "service_id" | "coupon_id">,
  to: { customer_id: number; site_id: number },
): Offered {
  const items = lastItems(context, campaign.service_id, to.customer_id);
  const coupon = couponOf(context, campaign);
  const { needs, price } = workAtSite(context, to.site_id, items, { coupon });
  return { items, needs, order: price, coupon };
}

/** The service as it was answered last, where it was done alone and can still be asked so; otherwise as it stands in the catalogue. */
function lastItems(context: ViewContext, serviceId: number, customerId: number): ItemRow[] {
  const job = context
    .sql<{ id: number }>(
      `SELECT j.id FROM jobs j JOIN job_items i ON i.job_id = j.id
        WHERE j.customer_id = ? AND i.service_id = ? AND j.state = 'done'
          AND NOT EXISTS (SELECT 1 FROM job_items o WHERE o.job_id = j.id AND o.position > 0) ORDER BY j.id DESC LIMIT 1`,
    )
    .get(customerId, serviceId);
  const [last] = job ? itemsOfJob(context, job.id) : [];
  return [readItem(context, last ? { ...last, patternId: undefined } : justOne(serviceId))];
}

/** The coupon of a campaign as long as it counts. */
function couponOf(
  context: ViewContext,
  { coupon_id, service_id }: Pick<Meant, "service_id" | "coupon_id">,
): StoredCoupon | null {
  if (coupon_id === null) return null;
  const coupon = readCoupons(context).find(({ id }) => id === coupon_id);
  return coupon?.active && !couponProblem(coupon, { serviceIds: [service_id], today: context.today }) ? coupon : null;
}

/** The invitation of a sealed link, with its campaign; refused where it opens nothing, or its days are over and nothing was booked. */
export function openInvite(context: ViewContext, token: string): { invite: InviteRow; campaign: CampaignRow } {
  const id = openedBy(context.hogar, "offer", token);
  const invite =
    id === null ? undefined : context.sql<InviteRow>("SELECT * FROM campaign_invites WHERE id = ?").get(id);
  if (!invite) throw new Refusal("link-ended");
  const campaign = readCampaign(context, invite.campaign_id);
  if (invite.job_id === null && campaign.last_date < context.today) throw new Refusal("link-ended");
  return { invite, campaign };
}
