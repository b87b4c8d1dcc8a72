import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";

/** What was promised of a visit holds no more; `confirmedAt`: when its customer had said yes to it. */
export const endPromise = ({ sql, now }: OperationContext, visitId: number, confirmedAt: number | null = null): void =>
  void sql(
    "UPDATE promises SET ended_at = ?, confirmed_at = coalesce(?, confirmed_at) WHERE visit_id = ? AND ended_at IS NULL",
  ).run(now, confirmedAt, visitId);

/** A window is promised, epoch minutes. What was ended within one moment is that promise again. */
export const promise = ({ sql, now }: OperationContext, visitId: number, { from, to }: { from: number; to: number }) =>
  insertRow(
    sql,
    "promises",
    { visit_id: visitId, made_at: now, window_from: from, window_to: to },
    "ON CONFLICT DO UPDATE SET ended_at = NULL, window_to = excluded.window_to",
  );
