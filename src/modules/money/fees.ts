import { roundHalfAway } from "@/core/money/amounts";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { issueInvoice } from "./invoicing";

/** A fee beside the work: it is billed with that. */
export function addFee(
  { sql, business }: OperationContext,
  jobId: number,
  description: string,
  amountMinor: number,
): void {
  const { taxBp, position } = sql<{ taxBp: number; position: number }>(
    `SELECT max(position) + 1 AS position, (SELECT tax_bp FROM job_lines WHERE job_id = @jobId ORDER BY position LIMIT 1) AS taxBp
      FROM job_lines WHERE job_id = @jobId`,
  ).get({ jobId })!;
  const taxMinor = taxWithin(amountMinor, taxBp);
  insertRow(sql, "job_lines", {
    job_id: jobId,
    position,
    description,
    quantity: 1,
    unit_minor: business.prices_include_tax === 1 ? amountMinor : amountMinor - taxMinor,
    tax_bp: taxBp,
    amount_minor: amountMinor,
    tax_minor: taxMinor,
  });
  sql("UPDATE jobs SET total_minor = total_minor + ?, tax_minor = tax_minor + ? WHERE id = ?").run(
    amountMinor,
    taxMinor,
    jobId,
  );
}

const taxWithin = (amountMinor: number, taxBp: number): number =>
  roundHalfAway((amountMinor * taxBp) / (10_000 + taxBp));

/** A fee in place of the work: it has an invoice of its own, and takes what was received. */
export function chargeFee(context: OperationContext, jobId: number, description: string, amountMinor: number): void {
  const { sql, now } = context;
  const { tax_bp: taxBp } = sql<{ tax_bp: number }>(
    "SELECT tax_bp FROM job_lines WHERE job_id = ? ORDER BY position LIMIT 1",
  ).get(jobId)!;
  insertRow(sql, "fees", {
    job_id: jobId,
    description,
    amount_minor: amountMinor,
    tax_bp: taxBp,
    tax_minor: taxWithin(amountMinor, taxBp),
    made_at: now,
  });
  issueInvoice(context, jobId);
}
