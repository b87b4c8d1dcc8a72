import type { OperationContext } from "@/kernel/operation";

/** Whoever signs in as this technician only can do so again. */
export const letTechnicianIn = ({ sql }: OperationContext, technicianId: number): void =>
  void sql("UPDATE people SET active = 1 WHERE technician_id = ? AND role = 'technician'").run(technicianId);

/** Whoever signs in as this technician only cannot do so any more, and is signed out everywhere. */
export function shutTechnicianOut({ sql, now }: OperationContext, technicianId: number): void {
  sql(
    `UPDATE sessions SET ended_at = ? WHERE ended_at IS NULL
        AND person_id IN (SELECT id FROM people WHERE technician_id = ? AND role = 'technician')`,
  ).run(now, technicianId);
  sql("UPDATE people SET active = 0 WHERE technician_id = ? AND role = 'technician'").run(technicianId);
}
