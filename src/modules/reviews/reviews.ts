import { asksFrom, type ReviewableJob, type ReviewRules } from "@/core/messages/reviewing";
import { dayMs, hourMs } from "@/core/horizons";
import { Refusal } from "@/core/problems";
import { openedBy } from "@/kernel/links";
import type { ViewContext } from "@/kernel/operation";
import { settingsOf } from "@/modules/messages/settings";
import type { Rows } from "@/store/rows";

export type ReviewRow = Rows["reviews"];
export type ReviewPlace = Pick<Rows["review_places"], "id" | "name" | "address">;

export const reviewPlaces = ({ sql }: Pick<ViewContext, "sql">): ReviewPlace[] =>
  sql<ReviewPlace>("SELECT id, name, address FROM review_places ORDER BY position, id").all();

const rulesOf = ({ business }: ViewContext): ReviewRules => ({
  when: business.review_when,
  afterMs: business.review_hours * hourMs,
  restMs: business.review_rest_days * dayMs,
  since: business.review_since ?? Infinity,
});

/** Work that was done longer ago is not asked about any more, paid or not. */
const askedWithinDays = 45;

/** When jobs were done whose customers have not been asked about them, and when these were asked last about anything. */
const done = `SELECT j.id, max(v.ended_at) AS doneAt, (SELECT max(asked_at) FROM reviews WHERE customer_id = j.customer_id) AS askedAt
  FROM visits v JOIN jobs j ON j.id = v.job_id
  WHERE v.state = 'done' AND v.date >= date(@today, '-${askedWithinDays} days') AND j.state = 'done'
    AND NOT EXISTS (SELECT 1 FROM reviews WHERE job_id = j.id)`;

/** When everything that a job is billed on was paid: null while something is open. What is nothing to pay is paid when it is done. */
const paid = `SELECT CASE WHEN coalesce(sum(b.open_minor), 0) > 0 THEN NULL ELSE coalesce(max((SELECT max(e.at) FROM ledger_entries n
    JOIN ledger_events e ON e.id = n.event_id WHERE n.invoice_id = b.invoice_id AND n.account = 'receivable' AND n.payment_id IS NOT NULL)), @doneAt) END AS at
  FROM invoice_balances b WHERE b.invoice_id IN (SELECT invoice_id FROM billed_lines WHERE job_id = @jobId)`;

/** Jobs whose customers are to be asked now, once each; of one job alone where it is named. */
export function jobsToReview(context: ViewContext, jobId: number | null = null): number[] {
  const rules = rulesOf(context);
  if (rules.when === "never" || !settingsOf(context, "please review").on) return [];
  const isDue = (job: ReviewableJob) => (asksFrom(rules, job) ?? Infinity) <= context.now;
  const paidAt = context.sql<{ at: number | null }>(paid);
  return (
    context
      .sql<{ id: number; doneAt: number; askedAt: number | null }>(
        `${done} AND coalesce(@jobId, j.id) = j.id GROUP BY j.id ORDER BY doneAt`,
      )
      .all({ today: context.today, jobId })
      // Whose time has not come anyway is not asked about its money.
      .filter((job) => isDue({ ...job, paidAt: job.doneAt }))
      .filter(
        (job) =>
          rules.when === "done" || isDue({ ...job, paidAt: paidAt.get({ jobId: job.id, doneAt: job.doneAt })!.at }),
      )
      .map(({ id }) => id)
  );
}

/** The review of a sealed link; refused where it opens nothing. */
export function openReview(context: ViewContext, token: string): ReviewRow {
  const id = openedBy(context.hogar, "review", token);
  const review = id === null ? undefined : context.sql<ReviewRow>("SELECT * FROM reviews WHERE id = ?").get(id);
  if (!review) throw new Refusal("link-ended");
  return review;
}

export function readReview({ sql }: ViewContext, id: number): ReviewRow {
  const review = sql<ReviewRow>("SELECT * FROM reviews WHERE id = ? AND rating IS NOT NULL").get(id);
  if (!review) throw new Refusal("not-found");
  return review;
}

/** What a review is about: the work, the day, and who came. */
export function workOfReview({ sql }: ViewContext, jobId: number) {
  const visit = sql<{ title: string; date: string }>(
    "SELECT title, date FROM visits WHERE job_id = ? AND state = 'done' ORDER BY window_from DESC LIMIT 1",
  ).get(jobId);
  const technicians = sql<{ name: string }>(
    `SELECT DISTINCT t.name FROM visits v JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id
      WHERE v.job_id = ? AND v.state = 'done' ORDER BY t.position`,
  )
    .all(jobId)
    .map(({ name }) => name);
  return { what: visit?.title ?? "", date: visit?.date ?? null, technicians };
}

/** Reviews that tell of trouble and that nobody has dealt with, the oldest first. */
export const openTroubles = ({
  sql,
}: ViewContext): { id: number; name: string; trouble: string; answered_at: number }[] =>
  sql<{ id: number; name: string; trouble: string; answered_at: number }>(
    `SELECT r.id, c.name, r.trouble, r.answered_at FROM reviews r JOIN customers c ON c.id = r.customer_id
      WHERE r.trouble <> '' AND r.settled_at IS NULL AND r.answered_at IS NOT NULL ORDER BY r.answered_at LIMIT 12`,
  ).all();
