import type { Books } from "@/core/money/balance";
import type { ViewContext } from "@/kernel/operation";

/** The sums of all money, from the rows and from the journal. */
export function readBooks(sql: ViewContext["sql"]): Books {
  const sum = (query: string) => sql<{ n: number }>(`SELECT coalesce(sum(n), 0) AS n FROM (${query})`).get()!.n;
  const accounts = new Map(
    sql<{ account: string; n: number }>("SELECT account, sum(amount_minor) AS n FROM journal GROUP BY account")
      .all()
      .map(({ account, n }) => [account, n]),
  );
  const account = (name: string) => accounts.get(name) ?? 0;
  return {
    rows: {
      received: sum("SELECT amount_minor AS n FROM payments WHERE state = 'received'"),
      applied: sum("SELECT amount_minor AS n FROM applications"),
      refunded: sum("SELECT amount_minor AS n FROM refunds"),
      refundsAsked: sum("SELECT amount_minor AS n FROM refunds WHERE state = 'asked'"),
      open:
        sum("SELECT total_minor AS n FROM invoices WHERE cancelled_at IS NULL") -
        sum(
          `SELECT a.amount_minor AS n
            FROM applications a JOIN invoices i ON i.id = a.invoice_id WHERE i.cancelled_at IS NULL`,
        ),
      overdrawnPayments: sum(
        `SELECT 1 AS n
          FROM (SELECT payment_id, amount_minor FROM applications UNION ALL SELECT payment_id, amount_minor FROM refunds) used
            JOIN payments p ON p.id = used.payment_id
          GROUP BY p.id HAVING sum(used.amount_minor) > iif(p.state = 'received', p.amount_minor, 0)`,
      ),
      overpaidInvoices: sum(
        `SELECT 1 AS n
          FROM applications a JOIN invoices i ON i.id = a.invoice_id
          GROUP BY i.id HAVING sum(a.amount_minor) > i.total_minor`,
      ),
    },
    journal: {
      received: account("card") + account("cash") + account("bank"),
      held: account("held"),
      receivable: account("receivable"),
      all: [...accounts.values()].reduce((total, n) => total + n, 0),
      unbalancedEvents: sum("SELECT 1 AS n FROM journal GROUP BY event HAVING sum(amount_minor) <> 0"),
    },
  };
}
