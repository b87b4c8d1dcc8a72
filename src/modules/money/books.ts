import type { Books } from "@/core/money/balance";
import type { Account } from "@/core/money/ledger";
import type { ViewContext } from "@/kernel/operation";

/** The sums of all money by the ledger, and those of the papers that it must agree with. */
export function readBooks(sql: ViewContext["sql"]): Books {
  const one = (query: string) => sql<{ n: number }>(`SELECT coalesce(sum(n), 0) AS n FROM (${query})`).get()!.n;
  return {
    accounts: Object.fromEntries(
      sql<{ account: Account; n: number }>(
        "SELECT account, sum(amount_minor) AS n FROM ledger_entries GROUP BY account",
      )
        .all()
        .map(({ account, n }) => [account, n]),
    ),
    papers: {
      invoiced: one("SELECT total_minor AS n FROM invoices"),
      credited: one("SELECT total_minor AS n FROM credit_notes"),
      received: one(
        `SELECT amount_minor AS n FROM payments WHERE state = 'received'
          UNION ALL SELECT -lost_minor FROM disputes`,
      ),
      refundsAsked: one("SELECT amount_minor AS n FROM refunds"),
      refunded: one("SELECT amount_minor AS n FROM refunds WHERE state = 'refunded'"),
    },
  };
}
