import { Refusal } from "@/core/problems";
import type { OnClosed } from "@/core/repeats/coming";
import { canCountFromVisits, type Counted, countedFromVisitsWords } from "@/core/repeats/counted";
import type { Comes, Leeway } from "@/core/repeats/flexible";
import { isDateOf, type Recurrence } from "@/core/repeats/recurrence";
import type { LocalDate } from "@/core/time/dates";
import { localOf, minuteOn } from "@/core/time/local";
import { dayWords } from "@/core/time/words";
import type { Hogar } from "@/kernel/hogar";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import { repeatsRules } from "@/store/plan-changes";
import { roomMayBeThere } from "./finding-room";
import { forecast } from "./laying-out";
import { storeRepeat } from "./storing";
import type { RepeatRow } from "./terms";
import { belongToRepeat, lookAnewForAll, removeForecasts } from "@/modules/jobs/forecasts";
import { takeOutForecasts } from "@/modules/placing/days";

/** How it comes back: a rule, given the day of the visit, and what becomes of a date on which nobody comes. */
export interface HowOften {
  rule: (start: LocalDate) => Recurrence;
  onClosed?: OnClosed;
  /** As the service has it, where nothing is said. */
  comes?: Comes;
  leewayDays?: Leeway;
  counted?: Counted;
}

/** The rule begins on the visit's own date, with its window and its technician. */
export function beginRepeat(
  context: OperationContext,
  visitId: number,
  { rule: ruleFor, onClosed = "nearest", comes, leewayDays = null, counted = "calendar" }: HowOften,
): { repeatId: number; forecasts: number } {
  const { sql, business } = context;
  const visit = sql<{
    job_id: number;
    date: string;
    window_from: number;
    window_to: number;
    repeat_id: number | null;
    state: string;
    seats: number;
  }>("SELECT * FROM visits WHERE id = ?").get(visitId);
  if (!visit?.job_id || visit.state === "cancelled") throw new Refusal("visit-not-open");
  if (visit.seats > 0)
    throw new Refusal("visit-not-open", { sentence: "A seat is booked once: it does not come back by itself." });
  const active = visit.repeat_id && sql("SELECT 1 FROM repeats WHERE id = ? AND state = 'active'").get(visit.repeat_id);
  if (active) throw new Refusal("repeat-exists");
  const rule = ruleFor(visit.date);
  refuseOddStart(rule, visit.date);
  if (counted === "done" && !canCountFromVisits(rule))
    throw new Refusal("invalid-input", { fields: { "/rule": countedFromVisitsWords } });
  const job = sql<{ customer_id: number; site_id: number; service_id: number; days: number; comes: Comes }>(
    "SELECT j.*, s.days, s.comes FROM jobs j JOIN services s ON s.id = j.service_id WHERE j.id = ?",
  ).get(visit.job_id)!;
  if (job.days > 1) throw new Refusal("repeat-of-several-days");
  const technician = sql<{ technician_id: number }>(
    "SELECT technician_id FROM placements WHERE visit_id = ? ORDER BY technician_id LIMIT 1",
  ).get(visitId);
  const id = storeRepeat(context, {
    customerId: job.customer_id,
    siteId: job.site_id,
    items: itemsOfJob(context, visit.job_id),
    rule,
    start: visit.date,
    fromMinute: localOf(visit.window_from, business.time_zone).minute,
    toMinute: minuteOn(visit.date, visit.window_to, business.time_zone),
    technicianId: technician?.technician_id ?? null,
    onClosed,
    comes: comes ?? job.comes,
    leewayDays,
    counted,
  });
  belongToRepeat(context, visitId, id, visit.date);
  return { repeatId: id, forecasts: forecast(context, readRepeat(context, id)).forecasts };
}

/** Refuses a rule that does not have its first date, or no other one. */
function refuseOddStart(rule: Recurrence, start: LocalDate): void {
  const refuse = (sentence: string) => {
    throw new Refusal("invalid-input", { fields: { "/rule": sentence } });
  };
  if (rule.until && rule.until <= start) refuse("Choose a day after the visit.");
  if (!isDateOf({ ...rule, count: null, until: null }, start, start))
    refuse(`${dayWords(start)}, on which it begins, is not one of these dates. Choose a rule that has it.`);
}

export function stopRepeat(context: OperationContext, repeatId: number, reason = ""): void {
  const { sql, actor } = context;
  takeOutForecasts(context, repeatId);
  removeForecasts(context, repeatId);
  sql("UPDATE repeats SET state = 'ended', ended_by_customer = ?, end_reason = ? WHERE id = ?").run(
    actor.kind === "link" ? 1 : 0,
    reason.trim(),
    repeatId,
  );
  sql("UPDATE repeat_asks SET state = 'closed' WHERE repeat_id = ? AND state IN ('asked', 'for us')").run(repeatId);
}

/** A repeat of which nothing was ever promised goes again, with its dates. */
export function removeRepeat(context: OperationContext, repeatId: number): void {
  takeOutForecasts(context, repeatId);
  removeForecasts(context, repeatId);
  for (const table of ["repeat_exceptions", "repeat_pauses"])
    context.sql(`DELETE FROM ${table} WHERE repeat_id = ?`).run(repeatId);
  context.sql("DELETE FROM repeats WHERE id = ?").run(repeatId);
}

/** Every visit of it costs so much, minor units, whatever its work does elsewhere. */
export const agreeVisitPrice = ({ sql }: OperationContext, repeatId: number, minor: number): void =>
  void sql("UPDATE repeats SET price_per = 'visit', price_minor = ? WHERE id = ?").run(minor, repeatId);

/** What was to come again with a booking that never stood has not begun. */
export function stopRepeatsOf(context: OperationContext, jobId: number): void {
  for (const { repeat_id } of context
    .sql<{ repeat_id: number }>("SELECT repeat_id FROM visits WHERE job_id = ? AND repeat_id IS NOT NULL")
    .all(jobId))
    stopRepeat(context, repeat_id);
}

/** Answers how many dates lie ahead. */
export function takeUpRepeat(context: OperationContext, repeatId: number): number {
  context.sql("UPDATE repeats SET state = 'active', end_reason = '', grow_on = NULL WHERE id = ?").run(repeatId);
  return forecast(context, readRepeat(context, repeatId)).forecasts;
}

/** Repeats that have something to do: a date of theirs comes into view, or falls due, or what all are laid out by has changed. */
export const repeatsToGrow = (hogar: Hogar, today: LocalDate): number[] =>
  hogar.store
    .sql<{ id: number }>(
      `SELECT id
        FROM repeats
        WHERE state = 'active' AND (grow_on IS NULL OR grow_on <= @today
          OR grow_seen < (SELECT version FROM plan_changes WHERE technician_id = ${repeatsRules} AND date = ''))
        ORDER BY id`,
    )
    .all({ today })
    .map(({ id }) => id);

/** Repeats with a forecast that has no room, on a day that has changed since room was looked for. */
export const repeatsWithoutRoom = (hogar: Hogar, today: LocalDate): number[] =>
  hogar.store
    .sql<{ id: number }>(
      `SELECT DISTINCT r.id
        FROM visits v JOIN repeats r ON r.id = v.repeat_id
        WHERE v.state = 'forecast' AND v.date >= @today AND r.state = 'active'
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
          AND ${roomMayBeThere}
        ORDER BY r.id`,
    )
    .all({ today })
    .map(({ id }) => id);

export function readRepeat({ sql }: ViewContext, id: number): RepeatRow {
  const repeat = sql<RepeatRow>("SELECT * FROM repeats WHERE id = ?").get(id);
  if (!repeat) throw new Refusal("not-found");
  return repeat;
}

/** A repeat that has not ended. */
export function goesOn(context: OperationContext, repeatId: number): RepeatRow {
  const repeat = readRepeat(context, repeatId);
  if (repeat.state !== "active")
    throw new Refusal("visit-not-open", { sentence: "This repeat has ended. Resume it first." });
  return repeat;
}

/** The visit of a date that is not promised yet, and has room; refused where there is none. */
export function openDate(
  { sql }: OperationContext,
  repeatId: number,
  date: LocalDate,
  { withoutRoom = false } = {},
): number {
  const visit = sql<{ id: number; state: string; placed: number }>(
    `SELECT id, state, EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) AS placed
      FROM visits v WHERE repeat_id = ? AND repeat_date = ?`,
  ).get(repeatId, date);
  if (visit?.state !== "forecast")
    throw new Refusal("visit-not-open", { sentence: "This date is promised already, or does not take place." });
  if (!visit.placed && !withoutRoom)
    throw new Refusal("cannot-be-kept", { sentence: "Nobody can come then yet. Move it, or make room on the board." });
  return visit.id;
}

/** Lays a repeat out anew after a change of it: what has found no room may find some by the new terms. */
export function laidOut(context: OperationContext, repeatId: number): { forecasts: number } {
  lookAnewForAll(context, repeatId);
  return { forecasts: forecast(context, readRepeat(context, repeatId)).forecasts };
}
