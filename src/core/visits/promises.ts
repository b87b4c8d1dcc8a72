/**
 * Whether a promise was only pencilled in: the job waits for somebody's yes, or the promise had ended when that yes was
 * given. Epoch milliseconds; null where it has not ended, or nobody had to say yes.
 */
export const isPencilled = (
  promise: { endedAt: number | null },
  job: { approval: "given" | "waiting" | "proposed"; givenAt: number | null },
): boolean =>
  job.approval !== "given" || (promise.endedAt !== null && job.givenAt !== null && promise.endedAt <= job.givenAt);
