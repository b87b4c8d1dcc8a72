import { roundHalfAway } from "@/core/money/amounts";
import type { OperationContext } from "@/kernel/operation";
import { issueInvoice } from "./invoicing";

/** A fee in place of the work: it has an invoice of its own, and takes what was received. */
export function chargeFee(context: OperationContext, jobId: number, description: string, amountMinor: number): void {
  const { sql, now } = context;
  const { tax_bp: taxBp } = sql<{ tax_bp: number }>(
    "SELECT tax_bp FROM job_lines WHERE job_id = ? ORDER BY position LIMIT 1",
  ).get(jobId)!;
  sql("INSERT INTO fees (job_id, description, amount_minor, tax_bp, tax_minor, made_at) VALUES (?, ?, ?, ?, ?, ?)").run(
    jobId,
    description,
    amountMinor,
    taxBp,
    roundHalfAway((amountMinor * taxBp) / (10_000 + taxBp)),
    now,
  );
  issueInvoice(context, jobId);
}
