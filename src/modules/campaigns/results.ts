import { messageStates } from "@/core/messages/states";
import { may } from "@/core/people/permissions";
import type { ViewContext } from "@/kernel/operation";

/** What came of a campaign: customers, and money in minor units. */
export interface Results {
  invited: number;
  /** To whom a message has gone out. */
  sent: number;
  /** Who have opened the email, where that is noted, or the link. */
  opened: number;
  booked: number;
  /** What the bookings that stand come to, and what has been paid of it; null for whoever may not see money. */
  bookedMinor: number | null;
  earnedMinor: number | null;
  /** Who wanted no more offers afterwards. */
  left: number;
}

/** Counted anew each time: a booking that is cancelled earns nothing. */
export function resultsOf({ sql, actor }: ViewContext, campaignId: number): Results {
  const results = sql<Results>(
    `SELECT count(*) AS invited,
        count(*) FILTER (WHERE EXISTS (SELECT 1 FROM messages m WHERE m.invite_id = i.id AND m.state IN ${messageStates.sql("gone")})) AS sent,
        count(*) FILTER (WHERE i.opened_at IS NOT NULL
          OR EXISTS (SELECT 1 FROM messages m WHERE m.invite_id = i.id AND m.opened_at IS NOT NULL)) AS opened,
        count(j.id) AS booked,
        coalesce(sum(j.total_minor), 0) AS bookedMinor,
        coalesce(sum((SELECT sum(min(l.amount, b.applied_minor))
          FROM (SELECT invoice_id, sum(amount_minor) AS amount FROM billed_lines WHERE job_id = j.id GROUP BY invoice_id) l
            JOIN invoice_balances b ON b.invoice_id = l.invoice_id)), 0) AS earnedMinor,
        count(*) FILTER (WHERE EXISTS (SELECT 1 FROM consents k
            WHERE k.customer_id = i.customer_id AND k.kind = 'offers' AND k.given = 0 AND k.at >= i.invited_at)
          OR EXISTS (SELECT 1 FROM messages m JOIN stops t ON t.channel = m.channel AND t.address = m.recipient
            WHERE m.invite_id = i.id AND t.since >= i.invited_at)) AS left
      FROM campaign_invites i LEFT JOIN jobs j ON j.id = i.job_id AND j.state <> 'cancelled' WHERE i.campaign_id = ?`,
  ).get(campaignId)!;
  return may(actor, "money.see") ? results : { ...results, bookedMinor: null, earnedMinor: null };
}
