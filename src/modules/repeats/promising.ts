import { addDays } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { tellCustomer } from "@/modules/messages/messaging";
import { readVisit } from "@/modules/placing/visits";
import { improve } from "./finding-room";
import { needsOf, workOn } from "./work";
import type { RepeatRow } from "./terms";

/** How many days before its date a forecast becomes a promised visit: as agreed, or as the service or the business has it. */
export const promiseDaysOf = ({ sql, business }: ViewContext, repeat: RepeatRow): number =>
  repeat.promise_days ??
  sql<{ promise_days: number | null }>("SELECT promise_days FROM services WHERE id = ?").get(repeat.service_id)!
    .promise_days ??
  business.promise_days;

/** Forecasts whose time has come. Somebody who is asked first is promised nothing by itself; where it is counted from the last visit, one at a time. */
export function duePromises(context: ViewContext, repeat: RepeatRow): number[] {
  const { sql, today } = context;
  if (repeat.comes === "ask") return [];
  const due = sql<{ id: number }>(
    `SELECT v.id FROM visits v WHERE v.repeat_id = ? AND v.state = 'forecast' AND v.date BETWEEN ? AND ?
      AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY v.date`,
  ).all(repeat.id, today, addDays(today, promiseDaysOf(context, repeat)));
  if (repeat.counted === "calendar") return due.map(({ id }) => id);
  return isOneOpen(context, repeat.id) ? [] : due.slice(0, 1).map(({ id }) => id);
}

/** Whether a visit of it is promised or under way. */
export const isOneOpen = ({ sql }: ViewContext, repeatId: number): boolean =>
  sql(`SELECT 1 FROM visits WHERE repeat_id = ? AND state IN ${visitStates.sql("expect")}`).get(repeatId) !== undefined;

/** Makes a forecast a promised visit, and tells its customer. */
export function promiseForecast(context: OperationContext, visitId: number, repeat: RepeatRow): void {
  if (repeat.comes === "flexible")
    improve(context, repeat, readVisit(context, visitId), needsOf(context, repeat).comes);
  tellCustomer(context, {
    jobId: agreeDate(context, visitId, repeat, `repeat ${repeat.id}`),
    occasion: "coming again",
    about: `visit ${visitId}`,
  });
}

/** The booking of a date of a repeat, by what was agreed. Answers the job's id. */
export function agreeDate(context: OperationContext, visitId: number, repeat: RepeatRow, bookedBy: string): number {
  const { items, order } = workOn(context, repeat, readVisit(context, visitId).repeat_date);
  return agreeJob(context, {
    visitId,
    customerId: repeat.customer_id,
    siteId: repeat.site_id,
    items,
    order,
    note: "",
    depositMinor: 0,
    bookedBy,
  });
}
