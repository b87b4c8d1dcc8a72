import { paymentStates } from "@/core/money/states";
import { counted } from "@/core/words";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";

/** What is still going on with a customer, in words: visits to come, repeats, and money on its way or open. */
export function openBusinessWith({ sql }: ViewContext, customerId: number): { coming: string[]; money: string[] } {
  const n = (query: string) => sql<{ n: number }>(query).get({ customerId })!.n;
  const said = (found: number, one: string, several: string) => (found ? [counted(found, one, several)] : []);
  return {
    coming: [
      ...said(
        n(
          `SELECT count(*) AS n FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = @customerId AND v.state IN ${visitStates.sql("expect")}`,
        ),
        "visit to come",
        "visits to come",
      ),
      ...said(
        n("SELECT count(*) AS n FROM repeats WHERE customer_id = @customerId AND state = 'active'"),
        "repeat",
        "repeats",
      ),
    ],
    money: [
      ...said(
        n("SELECT count(*) AS n FROM invoice_balances WHERE customer_id = @customerId AND open_minor > 0"),
        "open invoice",
        "open invoices",
      ),
      ...said(
        n(
          `SELECT count(*) AS n FROM payments p WHERE p.customer_id = @customerId AND (p.state IN ${paymentStates.sql("under way")}
              OR EXISTS (SELECT 1 FROM refunds r WHERE r.payment_id = p.id AND r.state = 'asked'))`,
        ),
        "payment under way",
        "payments under way",
      ),
    ],
  };
}
