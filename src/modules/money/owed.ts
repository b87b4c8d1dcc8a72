import type { ViewContext } from "@/kernel/operation";

/** Whoever was merged into somebody has their account there. */
export const ofStanding = ({ sql }: ViewContext, customerId: number): number =>
  sql<{ id: number }>(
    `WITH RECURSIVE them (id, into_id) AS (SELECT id, merged_into FROM customers WHERE id = ?
        UNION SELECT c.id, c.merged_into FROM customers c JOIN them ON c.id = them.into_id)
      SELECT id FROM them WHERE into_id IS NULL`,
  ).get(customerId)!.id;
