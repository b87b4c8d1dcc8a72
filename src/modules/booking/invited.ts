import { openedBy } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";

/** A booking of what somebody was invited to counts for the campaign, however it came: by the link, at the front door or on the phone. */
export const countForInvite = (
  { sql }: OperationContext,
  { jobId, customerId, serviceIds }: { jobId: number; customerId: number; serviceIds: readonly number[] },
): void =>
  void sql(
    `UPDATE campaign_invites SET job_id = @jobId WHERE id = (
      SELECT i.id FROM campaign_invites i JOIN campaigns c ON c.id = i.campaign_id
      WHERE i.customer_id = @customerId AND i.job_id IS NULL AND c.service_id IN (SELECT value FROM json_each(@services))
        AND EXISTS (SELECT 1 FROM visits v WHERE v.job_id = @jobId AND v.repeat_id IS NULL
          AND v.date BETWEEN c.first_date AND c.last_date)
      ORDER BY i.invited_at DESC LIMIT 1)`,
  ).run({ jobId, customerId, services: idsColumn.write([...serviceIds]) });

/** The customer whom the link of an invitation went to; null where it opens none. */
export function invitedBy({ hogar, sql }: ViewContext, token: string): number | null {
  const id = openedBy(hogar, "offer", token);
  const invite = sql<{ customer_id: number }>("SELECT customer_id FROM campaign_invites WHERE id = ?").get(id);
  return invite?.customer_id ?? null;
}
