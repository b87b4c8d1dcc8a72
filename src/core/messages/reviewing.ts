/** When customers are asked how it was, as the owner has it. */
export interface ReviewRules {
  when: "never" | "done" | "paid";
  /** So long after the work is done or paid (milliseconds). */
  afterMs: number;
  /** A customer who was asked is not asked again for so long (milliseconds). */
  restMs: number;
  /** What was done before is not asked about (epoch milliseconds). */
  since: number;
}

/** A job as it stands: when its last visit ended, when it was paid in full, and when its customer was asked last. Null: not yet. */
export interface ReviewableJob {
  doneAt: number | null;
  paidAt: number | null;
  askedAt: number | null;
}

/** From when on a job is asked about (epoch milliseconds); null: not at all, as it stands. */
export function asksFrom({ when, afterMs, restMs, since }: ReviewRules, job: ReviewableJob): number | null {
  if (when === "never" || job.doneAt === null || job.doneAt < since) return null;
  const base = when === "done" ? job.doneAt : job.paidAt;
  if (base === null) return null;
  const at = Math.max(base, job.doneAt) + afterMs;
  return job.askedAt !== null && at < job.askedAt + restMs ? null : at;
}

/** The mean of ratings by their sum, one place after the point, half up; null of none. */
export const meanRating = (sum: number, count: number): number | null =>
  count ? Math.round((10 * sum) / count) / 10 : null;

/** A rating in words: "4 of 5 stars". */
export const starsWords = (rating: number): string => `${rating} of 5 stars`;
