import { parseMoney } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { Id, input } from "@/kernel/inputs";
import { Refusal } from "@/core/problems";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { heldByService } from "../bank";
import type { Rows } from "@/store/rows";

const sorts = ["at", "amountMinor", "arrived"] as const;

/** One page of what the card service has paid out; looked for by reference and amount. */
export const payouts = defineView({
  name: "payouts",
  access: "money.see of all",
  input: input(pageInput(sorts)),
  read(context, asked) {
    const { sql, business } = context;
    const { rows: ids, count } = readPage(context, asked, {
      from: "FROM payouts p",
      where: "(@search IS NULL OR p.reference LIKE @search ESCAPE '\\' OR p.amount_minor = @amount)",
      id: "p.id",
      order: { at: "p.paid_at", amountMinor: "p.amount_minor", arrived: "p.arrived_on" },
      params: { search: likePattern(asked.search), amount: parseMoney(asked.search, business.currency) },
    });
    const row = sql<Rows["payouts"] & { n: number; fees: number }>(
      `SELECT p.*, count(i.position) AS n, p.fee_minor + coalesce(sum(i.fee_minor), 0) AS fees
        FROM payouts p LEFT JOIN payout_items i ON i.payout_id = p.id WHERE p.id = ? GROUP BY p.id`,
    );
    return {
      currency: business.currency,
      heldMinor: heldByService(context),
      /** What paying out at once costs; null where that is not done. */
      atOnceBp: context.hogar.gateways.cards?.atOnceBp ?? null,
      count,
      rows: ids.map((id) => {
        const { reference, amount_minor, paid_at, arrived_on, n, fees } = row.get(id)!;
        return {
          id,
          reference,
          at: localDate(Math.floor(paid_at / 60_000), business.time_zone),
          amountMinor: amount_minor,
          feesMinor: fees,
          n,
          arrived: arrived_on,
        };
      }),
    };
  },
});

/** One payout with all that was in it, and what matches nothing of ours. */
export const payout = defineView({
  name: "payout",
  access: "money.see of all",
  about: { id: "shared" },
  input: input({ id: Id }),
  read({ sql, business, today }, { id }) {
    const row = sql<Rows["payouts"]>("SELECT * FROM payouts WHERE id = ?").get(id);
    if (!row) throw new Refusal("not-found");
    return {
      today,
      currency: business.currency,
      reference: row.reference,
      amountMinor: row.amount_minor,
      feeMinor: row.fee_minor,
      at: localDate(Math.floor(row.paid_at / 60_000), business.time_zone),
      arrived: row.arrived_on,
      items: sql<{
        kind: "charge" | "refund" | "dispute";
        reference: string;
        grossMinor: number;
        feeMinor: number;
        customer: string | null;
        invoiceId: number | null;
        invoice: string | null;
      }>(
        `SELECT o.kind, o.reference, o.gross_minor AS grossMinor, o.fee_minor AS feeMinor, c.name AS customer,
            i.id AS invoiceId, i.label AS invoice
          FROM payout_items o LEFT JOIN payments p ON p.id = o.payment_id LEFT JOIN customers c ON c.id = p.customer_id
            LEFT JOIN invoices i ON i.id = coalesce(p.invoice_id, (SELECT id FROM invoices WHERE job_id = p.job_id))
          WHERE o.payout_id = ? ORDER BY o.position LIMIT 2000`,
      ).all(id),
    };
  },
});
