import { asksFrom, type ReviewRules } from "@/core/messages/reviewing";
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

/** When a job was done and paid in full, and when its customer was asked last. What is nothing to pay is paid when it is done. */
const facts = `SELECT j.id, max(v.ended_at) AS doneAt,
    iif(coalesce((SELECT sum(b.open_minor) FROM job_bills o JOIN invoice_balances b ON b.invoice_id = o.invoice_id WHERE o.job_id = j.id), 0) > 0, NULL,
      coalesce((SELECT max(l.at) FROM job_bills o JOIN ledger_entries e ON e.invoice_id = o.invoice_id AND e.account = 'receivable' AND e.payment_id IS NOT NULL
        JOIN ledger_events l ON l.id = e.event_id WHERE o.job_id = j.id), max(v.ended_at))) AS paidAt,
    (SELECT max(asked_at) FROM reviews WHERE customer_id = j.customer_id) AS askedAt
  FROM visits v JOIN jobs j ON j.id = v.job_id
  WHERE v.state = 'done' AND v.date >= date(@today, '-${askedWithinDays} days') AND j.state = 'done'
    AND NOT EXISTS (SELECT 1 FROM reviews WHERE job_id = j.id)`;

/** Jobs whose customers are to be asked now, once each; of one job alone where it is named. */
export function jobsToReview(context: ViewContext, jobId: number | null = null): number[] {
  const rules = rulesOf(context);
  if (rules.when === "never" || !settingsOf(context, "please review").on) return [];
  return context
    .sql<{ id: number; doneAt: number | null; paidAt: number | null; askedAt: number | null }>(
      `${facts} AND coalesce(@jobId, j.id) = j.id GROUP BY j.id ORDER BY doneAt`,
    )
    .all({ today: context.today, jobId })
    .filter((job) => {
      const from = asksFrom(rules, job);
      return from !== null && from <= context.now;
    })
    .map(({ id }) => id);
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
