import type { TickedItem } from "@/core/catalogue/checklist";
import type { PricedOrder } from "@/core/catalogue/order";
import { type KeptAnswer } from "@/core/catalogue/questions";
import { phoneKept } from "@/core/people/phones";
import { makeLink } from "@/kernel/links";
import type { OperationContext } from "@/kernel/operation";
import { type ItemRow, questionsOf, termsOf } from "@/modules/catalogue/catalogue";
import { spendPoints } from "@/modules/money/points";
import { keptAnswers } from "@/modules/catalogue/job-items";
import { checklistColumn } from "@/store/columns";
import { countForInvite } from "./invited";
import { addJob } from "@/modules/jobs/work";

export interface NewJob {
  /** Where its messages go, where that is not to the customer as we know them. */
  reach?: { name: string; mail: string; phone: string };
  /** Whether whoever books is known to us; they are where nothing is said. */
  proof?: "known" | "none" | "asked";
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
  const id = addJob(context, {
    job: {
      customer_id: job.customerId,
      site_id: job.siteId,
      service_id: job.items[0]!.service.id,
      state: job.depositMinor > 0 ? ("awaiting deposit" as const) : ("agreed" as const),
      total_minor: job.order.totalMinor,
      tax_minor: job.order.taxMinor,
      deposit_minor: job.depositMinor,
      note: job.note,
      instructions: job.items[0]!.pattern?.note ?? "",
      photos: JSON.stringify(job.photos ?? []),
      fields: JSON.stringify(job.fields ?? []),
      pays: job.atDoor ? "at the door" : "by invoice",
      approval: job.toConfirm ? "waiting" : "given",
      name: job.reach?.name.trim() ?? "",
      mail: job.reach?.mail.trim() ?? "",
      phone: job.reach ? phoneKept(job.reach.phone, context.business.phone) : "",
      reminders: agreedTo(job, "reminders"),
      offers: agreedTo(job, "offers"),
      coupon_id: job.couponId ?? null,
      source: job.source ?? "",
      proof: job.proof ?? "known",
      from_address: context.origin.address,
      from_browser: context.origin.browser,
      booked_at: context.now,
      booked_by: job.bookedBy,
    },
    items: job.items.map(({ service, quantity, answers, extras, pattern }, i) => ({
      service_id: service.id,
      pattern_id: pattern?.id ?? null,
      quantity,
      answers: JSON.stringify(keptAnswers(questionsOf(service), answers)),
      extras: JSON.stringify(extras),
      terms: JSON.stringify(termsOf(service)),
      total_minor: job.order.items[i]!.totalMinor,
    })),
    lines: job.order.lines.map((line) => ({
      description: line.description,
      quantity: line.quantity,
      unit_minor: line.unitMinor,
      tax_bp: line.taxBp,
      amount_minor: line.amountMinor,
      tax_minor: line.taxMinor,
    })),
    visitId: job.visitId,
    checklist: checklistOf(job.items),
    againMonths: againMonths(job.items),
  });
  makeLink(context, id);
  spendPoints(context, { customerId: job.customerId, jobId: id, points: job.order.pointsUsed });
  countForInvite(context, {
    jobId: id,
    customerId: job.customerId,
    serviceIds: job.items.map(({ service }) => service.id),
  });
  return id;
}

/** Whoever typed who they are has agreed to what they ticked; otherwise what the customer has agreed to counts, which is null here. */
const agreedTo = ({ agreed, reach }: NewJob, kind: "reminders" | "offers"): 0 | 1 | null =>
  agreed?.[kind] ? 1 : agreed || reach ? 0 : null;

/** What is ticked off on site, of all services and of the pattern; ids are told apart where there are several. */
const checklistOf = (items: readonly ItemRow[]): TickedItem[] => {
  const lists = [...items.map(({ service }) => service), ...items.flatMap(({ pattern }) => pattern ?? [])];
  return lists.flatMap(({ checklist }, i) =>
    checklistColumn.read(checklist).map((item) => ({ ...item, ...(i > 0 && { id: `${i}-${item.id}` }), done: false })),
  );
};

/** The soonest of the services after which it is time again. */
function againMonths(items: readonly ItemRow[]): number | null {
  const months = items.flatMap(({ service }) => service.again_months ?? []);
  return months.length ? Math.min(...months) : null;
}
