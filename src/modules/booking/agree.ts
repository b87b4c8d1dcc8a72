import type { ChecklistItem, TickedItem } from "@/core/catalogue/checklist";
import type { PricedOrder } from "@/core/catalogue/order";
import { phoneKept } from "@/core/people/phones";
import { makeLink } from "@/kernel/links";
import type { OperationContext } from "@/kernel/operation";
import { type ItemRow, questionsOf, termsOf } from "@/modules/catalogue/catalogue";
import { type KeptAnswer, keptAnswers } from "@/modules/catalogue/job-items";

export interface NewJob {
  /** Where its messages go, where that is not to the customer as we know them. */
  reach?: { mail: string; phone: string };
  /** What was agreed to while booking, where that was asked. */
  agreed?: { reminders: boolean; offers?: boolean };
  visitId: number;
  customerId: number;
  siteId: number;
  items: readonly ItemRow[];
  order: PricedOrder;
  note: string;
  /** Pictures beside those that answer a question. */
  photos?: readonly string[];
  /** Answers to the owner's own fields. */
  fields?: readonly KeptAnswer[];
  atDoor?: boolean;
  /** A person has still to confirm it. */
  toConfirm?: boolean;
  depositMinor: number;
  bookedBy: string;
  couponId?: number | null;
  /** Where the customer came from, as core/people/sources.ts keeps it. */
  source?: string;
}

/** Turns a hold or a forecast into a promised visit with a job, its lines and the customer's link. Answers the job's id. */
export function agreeJob(context: OperationContext, job: NewJob): number {
  const { sql, now } = context;
  const { id } = sql<{ id: number }>(
    `INSERT INTO jobs (customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, photos, fields, pays, approval, mail, phone, reminders, offers, coupon_id, source, booked_at, booked_by)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
  ).get(
    job.customerId,
    job.siteId,
    job.items[0]!.service.id,
    job.depositMinor > 0 ? "awaiting deposit" : "agreed",
    job.order.totalMinor,
    job.order.taxMinor,
    job.depositMinor,
    job.note,
    JSON.stringify(job.photos ?? []),
    JSON.stringify(job.fields ?? []),
    job.atDoor ? "at the door" : "by invoice",
    job.toConfirm ? "waiting" : "given",
    job.reach?.mail.trim() ?? "",
    job.reach ? phoneKept(job.reach.phone, context.business.phone) : "",
    agreedTo(job, "reminders"),
    agreedTo(job, "offers"),
    job.couponId ?? null,
    job.source ?? "",
    now,
    job.bookedBy,
  )!;
  for (const [i, { service, quantity, answers, extras }] of job.items.entries())
    sql("INSERT INTO job_items VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
      id,
      i,
      service.id,
      quantity,
      JSON.stringify(keptAnswers(questionsOf(service), answers)),
      JSON.stringify(extras),
      JSON.stringify(termsOf(service)),
      job.order.items[i]!.totalMinor,
    );
  for (const [i, line] of job.order.lines.entries())
    sql("INSERT INTO job_lines VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
      id,
      i,
      line.description,
      line.quantity,
      line.unitMinor,
      line.taxBp,
      line.amountMinor,
      line.taxMinor,
    );
  sql(
    "UPDATE visits SET state = 'promised', job_id = ?, held_until = NULL, checklist = ? WHERE id = ? OR first_visit_id = ?",
  ).run(id, JSON.stringify(checklistOf(job.items)), job.visitId, job.visitId);
  sql(
    "INSERT INTO promises (visit_id, made_at, window_from, window_to) SELECT id, ?, window_from, window_to FROM visits WHERE id = ? OR first_visit_id = ?",
  ).run(now, job.visitId, job.visitId);
  makeLink(context, id);
  return id;
}

/** Whoever typed who they are has agreed to what they ticked; otherwise what the customer has agreed to counts, which is null here. */
const agreedTo = ({ agreed, reach }: NewJob, kind: "reminders" | "offers"): 0 | 1 | null =>
  agreed?.[kind] ? 1 : agreed || reach ? 0 : null;

/** What is ticked off on site, of all services; ids are told apart where there are several. */
const checklistOf = (items: readonly ItemRow[]): TickedItem[] =>
  items.flatMap(({ service }, i) =>
    (JSON.parse(service.checklist) as ChecklistItem[]).map((item) => ({
      ...item,
      ...(i > 0 && { id: `${i}-${item.id}` }),
      done: false,
    })),
  );
