import type { LocalDate } from "@/core/time/dates";
import type { ViewContext } from "@/kernel/operation";

/** What an invoice's customer reads beside it: what is about to be charged, and the day that they have promised. */
export interface Coming {
  charge: { date: LocalDate; minor: number; card: string } | null;
  promised: LocalDate | null;
}

export const chargeComing = ({ sql, today }: ViewContext, invoiceId: number): Coming => ({
  charge:
    sql<{ date: LocalDate; minor: number; card: string }>(
      `SELECT n.run_date AS date, n.amount_minor AS minor, k.label AS card
        FROM collection_notices n JOIN cards k ON k.id = n.card_id
        WHERE n.invoice_id = ? AND n.run_date >= ? AND n.objected_at IS NULL
          AND NOT EXISTS (SELECT 1 FROM collection_items i WHERE i.run_date = n.run_date AND i.invoice_id = n.invoice_id)
        ORDER BY n.run_date LIMIT 1`,
    ).get(invoiceId, today) ?? null,
  promised:
    sql<{ day: LocalDate }>("SELECT day FROM pay_promises WHERE invoice_id = ? AND ended IS NULL").get(invoiceId)
      ?.day ?? null,
});
