import { nextPaymentReminder } from "@/core/messages/moments";
import { totalOf } from "@/core/money/amounts";
import { lateFeeDay, type LateFeeRule } from "@/core/money/late-fees";
import { dueDateOf } from "@/core/money/due";
import { invoiceIssued } from "@/core/money/ledger";
import { nextNumber, type PaperNumber } from "@/core/money/numbers";
import { type PaperLine, reverseChargeWords, withoutTax } from "@/core/money/papers";
import type { LocalDate } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import { serviceIdsOf, wordsOf } from "@/modules/catalogue/text-blocks";
import { reminderDays } from "@/modules/messages/reminders";
import { invoiceFields, tellAboutInvoice } from "@/modules/messages/messaging";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { nanoid } from "nanoid";
import { applyToInvoice } from "./charging";
import { allocate, creditOf, post } from "./ledger";
import { dueNow, splitByMonth } from "./parts";
import { keepSeller } from "./sellers";
import { setToBill } from "@/modules/jobs/work";

/** What an invoice is to say; the rest is the customer's and the business's. */
export interface InvoiceDraft {
  customerId: number;
  lines: readonly (PaperLine & { jobId: number | null })[];
  before?: string;
  after?: string;
  dueDate?: LocalDate;
  formKey?: string;
  /** In so many monthly parts, where that was agreed. */
  parts?: number;
  /** The invoice for whose lateness it is. */
  feeOfId?: number;
}

/** What it costs to pay late, as the owner has set it. */
export const lateFeeRuleOf = ({ business }: ViewContext): LateFeeRule => ({
  days: business.late_fee_days,
  minor: business.late_fee_minor,
  bp: business.late_fee_bp,
});

/** Issues the invoice of a job that is done, or of the fee that stands in place of the work, applies the deposit, and tells the customer what is left. A job has one invoice; where its customer is billed by the month or by hand it waits for that. */
export function issueInvoice(context: OperationContext, jobId: number): void {
  const { sql } = context;
  if (sql("SELECT 1 FROM job_bills WHERE job_id = ?").get(jobId) || isPaidByPeriod(context, jobId)) return;
  const { customerId } = sql<{ customerId: number }>("SELECT customer_id AS customerId FROM jobs WHERE id = ?").get(
    jobId,
  )!;
  if (billingOf(context, customerId) === "job") invoiceJobs(context, customerId, [jobId]);
  else setToBill(context, jobId, context.today);
}

/** How a customer is billed: by job, by the month, or when somebody makes the invoice. */
export const billingOf = ({ sql, business }: ViewContext, customerId: number) =>
  sql<Pick<Rows["customers"], "billing">>("SELECT billing FROM customers WHERE id = ?").get(customerId)!.billing ??
  business.billing;

/** One invoice for all of these jobs of a customer. Answers its id. */
const invoiceJobs = (context: OperationContext, customerId: number, jobIds: readonly number[]): number =>
  storeInvoice(context, {
    customerId,
    lines: jobIds.flatMap((jobId) => linesOfJob(context, jobId)),
    parts: context
      .sql<{ parts: number }>("SELECT max(parts) AS parts FROM jobs WHERE id IN (SELECT value FROM json_each(?))")
      .get(JSON.stringify(jobIds))!.parts,
  });

/** Numbers an invoice, posts it, pays it with what there is, and tells the customer. Answers its id. */
export function storeInvoice(context: OperationContext, draft: InvoiceDraft): number {
  const { sql, business } = context;
  const id = writeInvoice(context, draft);
  const jobIds = [...new Set(draft.lines.flatMap(({ jobId }) => (jobId === null ? [] : [jobId])))];
  for (const jobId of jobIds) {
    setToBill(context, jobId, null);
    applyToInvoice(context, jobId);
  }
  payFromCredit(context, id);
  if (draft.parts && draft.parts > 1) splitByMonth(context, id, draft.parts);
  const invoice = sql<{
    label: string;
    total_minor: number;
    due_date: string;
    openMinor: number;
    job_id: number | null;
  }>(
    `SELECT i.*, b.open_minor AS openMinor
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = ?`,
  ).get(id)!;
  const isPaid = invoice.openMinor === 0;
  const fields = isPaid
    ? { amount: { minor: invoice.total_minor, currency: business.currency } }
    : invoiceFields(business.currency, { ...invoice, openMinor: dueNow(context, id, invoice.openMinor) });
  tellAboutInvoice(context, id, {
    occasion: isPaid ? "receipt" : "invoice",
    about: isPaid ? `invoice ${id}` : `${id}`,
    fields,
  });
  return id;
}

function writeInvoice(
  context: OperationContext,
  { customerId, lines, before = "", after, dueDate, formKey, feeOfId }: InvoiceDraft,
): number {
  const { sql, now, today, business } = context;
  const customer = sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(customerId)!;
  const jobs = [...new Set(lines.map(({ jobId }) => jobId))];
  const jobId = jobs.length === 1 ? jobs[0]! : null;
  const asked = customer.tax_kind === "standard" ? lines : withoutTax(lines);
  const { totalMinor, taxMinor } = totalOf(asked);
  const due =
    dueDate ??
    dueDateOf(
      today,
      customer.payment_days === null
        ? { days: business.payment_days, from: business.payment_from }
        : { days: customer.payment_days, from: customer.payment_from },
    );
  const services = servicesOf(context, jobs);
  const zero = asked.some(({ taxBp }) => taxBp === 0) ? rateOfNothing(context) : null;
  const id = insertRow(sql, "invoices", {
    ...numberOf(context, "invoices", business.invoice_prefix),
    nonce: nanoid(32),
    seller_id: keepSeller(context),
    job_id: jobId,
    customer_id: customerId,
    issued_at: now,
    due_date: due,
    total_minor: totalMinor,
    tax_minor: taxMinor,
    remind_on: nextPaymentReminder(due, reminderDays(context), today),
    bill_name: customer.bill_name,
    bill_mail: customer.bill_mail,
    bill_address: customer.bill_address,
    buyer_name: customer.bill_name || customer.name,
    buyer_address: customer.bill_name ? customer.bill_address : siteOf(context, customerId, jobId),
    buyer_tax_number: customer.tax_number,
    tax_kind: customer.tax_kind,
    zero_kind: zero?.zero_kind ?? "zero rated",
    tax_words: {
      standard: zero?.words ?? "",
      "reverse charge": reverseChargeWords,
      exempt: business.exempt_words,
    }[customer.tax_kind],
    before_text: inParagraphs(before, ...wordsOf(context, "invoice", "before", services)),
    after_text: inParagraphs(after ?? business.invoice_text, ...wordsOf(context, "invoice", "after", services)),
    form_key: formKey ?? null,
    late_fee_on: feeOfId === undefined ? lateFeeDay(due, lateFeeRuleOf(context)) : null,
    fee_of_id: feeOfId ?? null,
    collect_known: now,
  });
  for (const [position, line] of asked.entries())
    insertRow(sql, "invoice_lines", {
      invoice_id: id,
      position,
      job_id: line.jobId,
      description: line.description,
      quantity: line.quantity,
      unit_minor: line.unitMinor,
      tax_bp: line.taxBp,
      amount_minor: line.amountMinor,
      tax_minor: line.taxMinor,
      discount_bp: line.discountBp,
      date: line.date,
    });
  post(context, { kind: "invoice", key: `invoice ${id}` }, invoiceIssued(id, asked));
  return id;
}

/** What 0% is here, where the owner has such a rate. */
const rateOfNothing = ({ sql }: ViewContext) =>
  sql<Pick<Rows["tax_rates"], "zero_kind" | "words">>(
    "SELECT zero_kind, words FROM tax_rates WHERE rate_bp = 0",
  ).get() ?? null;

const inParagraphs = (...words: string[]): string => words.filter(Boolean).join("\n\n");

/** What kinds of work jobs are made of. */
const servicesOf = (context: ViewContext, jobIds: readonly (number | null)[]): number[] =>
  serviceIdsOf(jobIds.flatMap((jobId) => (jobId === null ? [] : itemsOfJob(context, jobId))));

/** The next number of this year. */
export function numberOf(
  { sql, today }: OperationContext,
  table: "invoices" | "credit_notes",
  prefix: string,
): PaperNumber {
  const year = Number(today.slice(0, 4));
  const { last } = sql<{ last: number | null }>(`SELECT max(number) AS last FROM ${table} WHERE year = ?`).get(year)!;
  return nextNumber(prefix, year, last);
}

/** A visit that a month or a year pays for costs nothing itself: there is nothing to bill. */
const isPaidByPeriod = ({ sql }: ViewContext, jobId: number): boolean =>
  sql(
    `SELECT 1 FROM jobs j JOIN visits v ON v.job_id = j.id JOIN repeats r ON r.id = v.repeat_id
      WHERE j.id = ? AND j.total_minor = 0 AND r.price_per IN ('month', 'year')
        AND NOT EXISTS (SELECT 1 FROM fees WHERE job_id = j.id)`,
  ).get(jobId) !== undefined;

/** Where the work was done, or else where the customer is. */
const siteOf = ({ sql }: ViewContext, customerId: number, jobId: number | null): string =>
  sql<{ line: string }>(
    `SELECT line || ', ' || postcode AS line FROM sites
      WHERE id = (SELECT site_id FROM jobs WHERE id = @jobId) OR (@jobId IS NULL AND customer_id = @customerId) ORDER BY id LIMIT 1`,
  ).get({ customerId, jobId })?.line ?? "";

/** What its customer has with us pays an invoice before anything is asked for. */
export function payFromCredit(context: OperationContext, invoiceId: number): void {
  const invoice = context
    .sql<{ customer_id: number; open: number }>(
      "SELECT customer_id, open_minor AS open FROM invoice_balances WHERE invoice_id = ?",
    )
    .get(invoiceId)!;
  if (invoice.open > 0)
    allocate(context, creditOf(context, invoice.customer_id), [{ id: invoiceId, openMinor: invoice.open }]);
}

/** What a job's invoice asks: the fee that stands in place of the work, or the work as it was agreed. */
export const linesOfJob = ({ sql }: ViewContext, jobId: number): (PaperLine & { jobId: number })[] =>
  sql<PaperLine & { jobId: number }>(
    `SELECT *, @jobId AS jobId, 0 AS discountBp, (SELECT max(date) FROM visits WHERE job_id = @jobId AND state <> 'cancelled') AS date
      FROM (
        SELECT description, 1.0 AS quantity, amount_minor AS unitMinor, tax_bp AS taxBp, amount_minor AS amountMinor, tax_minor AS taxMinor, 0 AS position
          FROM fees WHERE job_id = @jobId
        UNION ALL SELECT description, quantity, unit_minor, tax_bp, amount_minor, tax_minor, position
          FROM job_lines WHERE job_id = @jobId AND NOT EXISTS (SELECT 1 FROM fees WHERE job_id = @jobId)
      ) ORDER BY position`,
  ).all({ jobId });
