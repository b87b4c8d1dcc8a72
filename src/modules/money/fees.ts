import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { taxWithin } from "@/modules/jobs/work";
import { issueInvoice } from "./invoicing";

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
