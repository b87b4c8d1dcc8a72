import { Refusal } from "@/core/problems";
import type { ViewContext } from "@/kernel/operation";
import type { Tip } from "./charging";

/** A tip is for whoever came last; where nobody did, or several jobs are paid at once, it is shared by the owner. */
export function tipOf({ sql, business }: ViewContext, minor: number, jobId: number | null): Tip {
  if (minor > 0 && business.tips === 0) throw new Refusal("not-allowed", { sentence: "Tips are not taken here." });
  const came =
    jobId === null
      ? undefined
      : sql<{ id: number }>(
          `SELECT p.technician_id AS id FROM visits v JOIN placements p ON p.visit_id = v.id
            WHERE v.job_id = ? AND v.state = 'done' ORDER BY v.date DESC, p.technician_id LIMIT 1`,
        ).get(jobId);
  return { minor, technicianId: came?.id ?? null };
}
