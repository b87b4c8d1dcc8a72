import type { Hogar } from "@/kernel/hogar";
import type { ViewContext } from "@/kernel/operation";

/** Holds that ran out, and bookings whose deposit or code never came: their ids. */
export const lapsedHolds = (hogar: Hogar): number[] =>
  hogar.store
    .sql<{ id: number }>("SELECT id FROM visits WHERE state = 'held' AND held_until < ? ORDER BY id")
    .all(hogar.now())
    .map(({ id }) => id);

export function lapsedDeposits(hogar: Hogar, { business, now }: ViewContext): number[] {
  return hogar.store
    .sql<{ id: number }>(
      `SELECT id FROM jobs j
        WHERE (state = 'awaiting deposit' AND (booked_at < @before OR lapses_at <= @now)
            AND NOT EXISTS (SELECT 1 FROM payments WHERE job_id = j.id AND state = 'asked'))
          OR (proof = 'asked' AND state = 'agreed' AND lapses_at <= @now)
        ORDER BY id`,
    )
    .all({ before: now - business.deposit_minutes * 60_000, now })
    .map(({ id }) => id);
}
