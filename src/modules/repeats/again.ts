import { plainRule } from "@/core/repeats/rule";
import { addMonths } from "@/core/time/dates";
import { localOf, minuteOn } from "@/core/time/local";
import type { OperationContext } from "@/kernel/operation";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import type { VisitRow } from "@/modules/placing/visits";
import { forecast } from "./laying-out";
import { readRepeat, stopRepeat } from "./repeats";
import { storeRepeat } from "./storing";

const once = { ...plainRule({ every: 1, unit: "day" }), count: 1 };

/** A visit that was done and is to come again in so many months brings one date about which its customer is asked; none any more where that was taken back. */
export function comeAgain(context: OperationContext, visit: VisitRow): void {
  const { sql, business } = context;
  const known = sql<{ id: number; state: string }>("SELECT id, state FROM repeats WHERE after_visit_id = ?").get(
    visit.id,
  );
  if (visit.again_months === null || visit.repeat_id !== null || visit.seats > 0) {
    if (known) stopRepeat(context, known.id);
    return;
  }
  const start = addMonths(visit.date, visit.again_months);
  if (known) {
    sql("UPDATE repeats SET start_date = ?, state = 'active', end_reason = '' WHERE id = ?").run(start, known.id);
    return void forecast(context, readRepeat(context, known.id));
  }
  const job = sql<{ customer_id: number; site_id: number }>("SELECT customer_id, site_id FROM jobs WHERE id = ?").get(
    visit.job_id,
  )!;
  const id = storeRepeat(context, {
    customerId: job.customer_id,
    siteId: job.site_id,
    items: itemsOfJob(context, visit.job_id!),
    rule: once,
    start,
    comes: "ask",
    fromMinute: localOf(visit.window_from, business.time_zone).minute,
    toMinute: minuteOn(visit.date, visit.window_to, business.time_zone),
    technicianId: null,
    afterVisitId: visit.id,
  });
  forecast(context, readRepeat(context, id));
}
