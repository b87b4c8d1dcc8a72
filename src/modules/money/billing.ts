import { type PaperLine, priceOf } from "@/core/money/papers";
import { daysOfMonth, endOfPeriod, nextPeriod, type Per, periodsUntil, periodWords } from "@/core/money/periods";
import { roundHalfAway, sum } from "@/core/money/amounts";
import { priceOn } from "@/core/repeats/price";
import { readRule } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { linesOfJob, storeInvoice } from "./invoicing";

/** What a customer is to be billed: work that is done and waits for it, and the months and years of flat prices that have begun. */
export interface ToBill {
  jobIds: number[];
  periods: { repeatId: number; start: LocalDate; per: Per }[];
  lines: (PaperLine & { jobId: number | null })[];
  totalMinor: number;
}

interface Until {
  /** Work that was done until this day. */
  work: LocalDate;
  /** Flat prices whose month or year begins until this day. */
  flat: LocalDate;
}

/** So many jobs stand on one invoice, at most: what is more stands on the next. */
const mostJobs = 100;

export function toBill(context: ViewContext, customerId: number, until: Until): ToBill {
  const jobIds = context
    .sql<{ id: number }>(
      `SELECT id FROM jobs WHERE customer_id = ? AND to_bill <= ? ORDER BY to_bill, id LIMIT ${mostJobs}`,
    )
    .all(customerId, until.work)
    .map(({ id }) => id);
  const flat = flatPrices(context, customerId, until.flat);
  const lines = [
    ...flat.map(({ line }) => ({ ...line, jobId: null })),
    ...jobIds.flatMap((jobId) => placed(context, jobId, linesOfJob(context, jobId))),
  ];
  return {
    jobIds,
    periods: flat.map(({ repeatId, start, per }) => ({ repeatId, start, per })),
    lines,
    totalMinor: sum(lines.map(({ amountMinor }) => amountMinor)),
  };
}

/** Makes one invoice of all that a customer is to be billed; none where that is nothing. Answers its id. */
export function billCustomer(context: OperationContext, customerId: number, until: Until): number | null {
  const { sql } = context;
  const due = toBill(context, customerId, until);
  const invoiceId = due.lines.length > 0 ? storeInvoice(context, { customerId, lines: due.lines }) : null;
  for (const { repeatId, start } of due.periods)
    insertRow(sql, "repeat_bills", { repeat_id: repeatId, period: start, invoice_id: invoiceId! });
  // Months that were paused from end to end are passed over.
  for (const { id, bill_from, per } of flatRepeats(context, customerId, until.flat)) {
    const next = periodsUntil(bill_from, per, until.flat).at(-1)!;
    sql("UPDATE repeats SET bill_from = ? WHERE id = ?").run(nextPeriod(next, per), id);
  }
  return invoiceId;
}

/** Where each was, by what its customer calls the place: lines are never changed, so no address stands in them that is to be erased one day. */
function placed<L extends PaperLine>({ sql }: ViewContext, jobId: number, lines: readonly L[]): L[] {
  const { name } = sql<{ name: string }>(
    "SELECT t.name FROM jobs j JOIN sites t ON t.id = j.site_id WHERE j.id = ?",
  ).get(jobId)!;
  return name === "" ? [...lines] : lines.map((one) => ({ ...one, description: `${one.description}, ${name}` }));
}

interface FlatRepeat {
  id: number;
  bill_from: LocalDate;
  per: Per;
  minor: number;
  review_date: LocalDate | null;
  review_bp: number | null;
  bill_since: LocalDate | null;
  rule: string;
  taxBp: number;
  service: string;
  site: string;
}

const flatRepeats = ({ sql }: ViewContext, customerId: number, until: LocalDate): FlatRepeat[] =>
  sql<FlatRepeat>(
    `SELECT r.id, r.bill_from, r.price_per AS per, r.price_minor AS minor, r.review_date, r.review_bp, r.bill_since, r.rule,
        s.tax_bp AS taxBp, s.name AS service, t.name AS site
      FROM repeats r JOIN services s ON s.id = r.service_id JOIN sites t ON t.id = r.site_id
      WHERE r.customer_id = ? AND r.state = 'active' AND r.bill_from <= ? AND r.price_per IN ('month', 'year') ORDER BY r.id`,
  ).all(customerId, until);

/** A line for each month or year of a flat price that has begun and was not paused from end to end. */
function flatPrices(context: ViewContext, customerId: number, until: LocalDate) {
  return flatRepeats(context, customerId, until).flatMap(
    ({ id, bill_from, per, minor, taxBp, service, site, ...agreed }) =>
      periodsUntil(bill_from, per, until)
        .filter((start) => !isPaused(context, id, start, endOfPeriod(start, per)))
        .flatMap((start) => {
          const { days, of } = partOf(context, per, start, agreed);
          if (days === 0) return [];
          const words = [service, site, periodWords(start, per), days < of && `${days} of ${of} days`];
          const unitMinor = roundHalfAway((priceOn(minor, reviewIn(agreed), start) * days) / of);
          const line = { description: words.filter(Boolean).join(", "), quantity: 1, unitMinor, taxBp };
          return [{ repeatId: id, start, per, line: priceOf(line, context.business.prices_include_tax === 1) }];
        }),
  );
}

/** What of a month is billed: by its days where the owner has it so, else whole. A year is always whole. */
const partOf = (
  { business }: ViewContext,
  per: Per,
  start: LocalDate,
  { bill_since, rule }: Pick<FlatRepeat, "bill_since" | "rule">,
): { days: number; of: number } =>
  per === "month" && business.part_months === "days"
    ? daysOfMonth(start, { since: bill_since, until: readRule(rule).until })
    : { days: 1, of: 1 };

/** A review that was agreed and has not been taken yet. */
const reviewIn = ({ review_date, review_bp }: Pick<FlatRepeat, "review_date" | "review_bp">) =>
  review_date === null || review_bp === null ? null : { date: review_date, byBp: review_bp };

const isPaused = ({ sql }: ViewContext, repeatId: number, first: LocalDate, last: LocalDate): boolean =>
  sql("SELECT 1 FROM repeat_pauses WHERE repeat_id = ? AND first_date <= ? AND last_date >= ?").get(
    repeatId,
    first,
    last,
  ) !== undefined;

/** Who is billed by itself today: months that are over, and flat prices whose month or year has begun. */
export const customersToBill = ({ sql, business, today }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT j.customer_id AS id FROM jobs j JOIN customers c ON c.id = j.customer_id
        WHERE j.to_bill <= @over AND coalesce(c.billing, @usual) = 'month'
      UNION SELECT customer_id FROM repeats
        WHERE state = 'active' AND bill_from <= @today AND price_per IN ('month', 'year')
      ORDER BY id`,
  )
    .all({ over: lastOfMonthBefore(today), usual: business.billing, today })
    .map(({ id }) => id);

export const lastOfMonthBefore = (today: LocalDate): LocalDate => addDays(`${today.slice(0, 7)}-01`, -1);
