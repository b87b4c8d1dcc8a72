import type { Collectable } from "@/core/money/collecting";
import { type DueTerms, dueDateOf } from "@/core/money/due";
import { addDays, type LocalDate } from "@/core/time/dates";
import type { ViewContext } from "@/kernel/operation";

/** What a visit to come will ask for, of somebody whose card is charged by itself. */
export interface Expected extends Collectable {
  jobId: number;
  customer: string;
  visitOn: LocalDate;
}

/** As if each were done on its day, and billed and due by its customer's terms: when a visit moves, this moves along. */
export function expectedDue({ sql, business, today }: ViewContext, days: number): Expected[] {
  return sql<{
    jobId: number;
    customer: string;
    date: LocalDate;
    until: number;
    minor: number;
    paymentDays: number | null;
    paymentFrom: DueTerms["from"];
  }>(
    `SELECT j.id AS jobId, c.name AS customer, max(v.date) AS date, max(v.window_to) AS until, b.due_minor AS minor,
        c.payment_days AS paymentDays, c.payment_from AS paymentFrom
      FROM (SELECT DISTINCT customer_id FROM cards WHERE collects = 1 AND removed_at IS NULL) k
        CROSS JOIN customers c ON c.id = k.customer_id CROSS JOIN jobs j ON j.customer_id = c.id
        JOIN visits v ON v.job_id = j.id JOIN job_balances b ON b.job_id = j.id
      WHERE j.state = 'agreed' AND v.state = 'promised' AND v.date BETWEEN @from AND @to AND b.due_minor > 0
        AND c.collect_never = 0 AND coalesce(c.billing, @billing) = 'job'
        AND NOT EXISTS (SELECT 1 FROM billed_lines WHERE job_id = j.id)
      GROUP BY j.id ORDER BY date, j.id`,
  )
    .all({ from: today, to: addDays(today, days), billing: business.billing })
    .map(({ jobId, customer, date, until, minor, paymentDays, paymentFrom }) => ({
      id: `job ${jobId}`,
      jobId,
      customer,
      visitOn: date,
      openMinor: minor,
      due: dueDateOf(
        date,
        paymentDays === null
          ? { days: business.payment_days, from: business.payment_from }
          : { days: paymentDays, from: paymentFrom },
      ),
      known: until,
    }));
}
