import { groupBy } from "@/core/group";
import { agreeDaysAhead, forecastDays, forecastsAhead } from "@/core/horizons";
import { Refusal } from "@/core/problems";
import { datesOf, nearestDay, type RepeatRule } from "@/core/repeats/rule";
import { addDays, type LocalDate } from "@/core/time/dates";
import { epochMinute, localOf } from "@/core/time/local";
import type { Hogar } from "@/kernel/hogar";
import type { OperationContext } from "@/kernel/operation";
import { priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import { placeVisit } from "@/modules/placing/days";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersWithin, visitingDays } from "@/modules/placing/windows";
import { itemsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";

export type RepeatRow = Rows["repeats"];

/** The rule begins on the visit's own date, with its window and its technician. */
export function beginRepeat(
  context: OperationContext,
  visitId: number,
  { every, unit, until = null }: Pick<RepeatRule, "every" | "unit" | "until">,
): { repeatId: number; forecasts: number } {
  const { sql, business } = context;
  const visit = sql<{
    job_id: number;
    date: string;
    window_from: number;
    window_to: number;
    repeat_id: number | null;
    state: string;
  }>("SELECT * FROM visits WHERE id = ?").get(visitId);
  if (!visit?.job_id || visit.state === "cancelled") throw new Refusal("visit-not-open");
  const active = visit.repeat_id && sql("SELECT 1 FROM repeats WHERE id = ? AND state = 'active'").get(visit.repeat_id);
  if (active) throw new Refusal("repeat-exists");
  if (until && until <= visit.date)
    throw new Refusal("invalid-input", { fields: { "/until": "Choose a day after the visit." } });
  const job = sql<{ customer_id: number; site_id: number; service_id: number; days: number }>(
    "SELECT j.*, s.days FROM jobs j JOIN services s ON s.id = j.service_id WHERE j.id = ?",
  ).get(visit.job_id)!;
  if (job.days > 1) throw new Refusal("repeat-of-several-days");
  const technician = sql<{ technician_id: number }>(
    "SELECT technician_id FROM placements WHERE visit_id = ? ORDER BY technician_id LIMIT 1",
  ).get(visitId);
  const id = insertRow(sql, "repeats", {
    customer_id: job.customer_id,
    site_id: job.site_id,
    service_id: job.service_id,
    technician_id: technician?.technician_id ?? null,
    every,
    unit,
    start_date: visit.date,
    until_date: until,
    from_minute: localOf(visit.window_from, business.time_zone).minute,
    to_minute: localOf(visit.window_to, business.time_zone).minute,
    items: JSON.stringify(itemsOfJob(context, visit.job_id)),
    state: "active",
  });
  sql("UPDATE visits SET repeat_id = ?, repeat_date = ? WHERE id = ?").run(id, visit.date, visitId);
  return { repeatId: id, forecasts: forecast(context, readRepeat(context, id)) };
}

export function stopRepeat({ sql, actor }: OperationContext, repeatId: number): void {
  sql(
    "DELETE FROM placements WHERE visit_id IN (SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast')",
  ).run(repeatId);
  sql("DELETE FROM visits WHERE repeat_id = ? AND state = 'forecast'").run(repeatId);
  sql("UPDATE repeats SET state = 'ended', ended_by_customer = ? WHERE id = ?").run(
    actor.kind === "link" ? 1 : 0,
    repeatId,
  );
}

/** What was to come again with a booking that never stood has not begun. */
export function stopRepeatsOf(context: OperationContext, jobId: number): void {
  for (const { repeat_id } of context
    .sql<{ repeat_id: number }>("SELECT repeat_id FROM visits WHERE job_id = ? AND repeat_id IS NOT NULL")
    .all(jobId))
    stopRepeat(context, repeat_id);
}

/** Answers how many dates lie ahead. */
export function takeUpRepeat(context: OperationContext, repeatId: number): number {
  context.sql("UPDATE repeats SET state = 'active', grow_on = NULL WHERE id = ?").run(repeatId);
  return forecast(context, readRepeat(context, repeatId));
}

/** Repeats that have something to do: a date of theirs comes into view, or falls due. */
export const repeatsToGrow = (hogar: Hogar, today: LocalDate): number[] =>
  hogar.store
    .sql<{ id: number }>(
      "SELECT id FROM repeats WHERE state = 'active' AND (grow_on IS NULL OR grow_on <= ?) ORDER BY id",
    )
    .all(today)
    .map(({ id }) => id);

/** Repeats with a forecast that has no room, on a day that has changed since room was looked for. */
export const repeatsWithoutRoom = (hogar: Hogar, today: LocalDate): number[] =>
  hogar.store
    .sql<{ id: number }>(
      `SELECT DISTINCT r.id
        FROM visits v JOIN repeats r ON r.id = v.repeat_id
        WHERE v.state = 'forecast' AND v.date >= @today AND r.state = 'active'
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
          AND EXISTS (SELECT 1 FROM plan_changes p WHERE p.version > r.grow_seen AND p.date IN (v.date, ''))
        ORDER BY r.id`,
    )
    .all({ today })
    .map(({ id }) => id);

export function readRepeat({ sql }: OperationContext, id: number): RepeatRow {
  const repeat = sql<RepeatRow>("SELECT * FROM repeats WHERE id = ?").get(id);
  if (!repeat) throw new Refusal("not-found");
  return repeat;
}

/** Adds the forecasts that are missing, finds room for those that have none, and notes when to look again. Answers how many dates lie ahead. */
export function forecast(context: OperationContext, repeat: RepeatRow): number {
  const { sql, today } = context;
  const rule: RepeatRule = {
    every: repeat.every,
    unit: repeat.unit,
    start: repeat.start_date,
    until: repeat.until_date,
  };
  const all = datesOf(rule, today, addDays(today, forecastDays));
  const dates = all.slice(0, forecastsAhead);
  const known = new Set(
    sql<{ repeat_date: string }>("SELECT repeat_date FROM visits WHERE repeat_id = ?")
      .all(repeat.id)
      .map((v) => v.repeat_date),
  );
  const missing = dates.filter((date) => !known.has(date));
  if (missing.length) addForecasts(context, repeat, missing, all);
  placeForecasts(context, repeat);
  const beyond =
    dates.length < forecastsAhead ? datesOf(rule, addDays(today, forecastDays), farthest, 1)[0] : undefined;
  const placed = sql<{ date: string | null }>(
    `SELECT min(date) AS date
      FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date > ?
        AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
  ).get(repeat.id, addDays(today, agreeDaysAhead))!.date;
  const unplaced = sql<{ date: string | null }>(
    `SELECT min(date) AS date
      FROM visits v
      WHERE repeat_id = ? AND state = 'forecast' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
  ).get(repeat.id)!.date;
  const next = [
    dates[0],
    placed && addDays(placed, -agreeDaysAhead),
    unplaced && addDays(unplaced, 1),
    beyond && addDays(beyond, -forecastDays),
    farthest,
  ]
    .filter((date) => date != null)
    .sort()[0]!;
  sql(
    `UPDATE repeats SET grow_on = ?, grow_seen = (SELECT coalesce(max(version), 0) FROM plan_changes)
      WHERE id = ? AND (grow_on IS NOT ? OR grow_seen < (SELECT coalesce(max(version), 0) FROM plan_changes))`,
  ).run(next, repeat.id, next);
  return dates.length;
}
const farthest = "9999-12-31";

function addForecasts(
  context: OperationContext,
  repeat: RepeatRow,
  dates: readonly LocalDate[],
  all: readonly LocalDate[],
): void {
  const { sql, today, business } = context;
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const site = sql<{ lng: number; lat: number; zone_id: number | null }>(
    "SELECT lng, lat, zone_id FROM sites WHERE id = ?",
  ).get(repeat.site_id)!;
  const needs = toPlace(context, items, site, site.zone_id, priceItems(context, items, null));
  const comes = visitingDays(context, needs);
  const within = (day: LocalDate) =>
    day > today && (repeat.until_date === null || day <= repeat.until_date) && comes(day);
  for (const date of dates) {
    // A date on which nobody comes at all moves to a day nearby; its place in the rule stays its own.
    const day = nearestDay(date, within) ?? date;
    // Where the rule comes on that day anyway, once is enough.
    if (day !== date && all.includes(day)) continue;
    insertRow(sql, "visits", {
      state: "forecast",
      repeat_id: repeat.id,
      repeat_date: date,
      service_id: repeat.service_id,
      also: JSON.stringify(needs.serviceIds.slice(1)),
      title: needs.title,
      zone_id: needs.zoneId,
      date: day,
      window_from: epochMinute(day, repeat.from_minute, business.time_zone),
      window_to: epochMinute(day, repeat.to_minute, business.time_zone),
      minutes: needs.minutes,
      before_minutes: needs.before,
      after_minutes: needs.after,
      crew: needs.crew,
      work_place: needs.workPlace,
      lng: needs.point.lng,
      lat: needs.point.lat,
      skills: JSON.stringify(needs.skills),
    });
  }
}

/** Finds room for the forecasts of a repeat that have none: with the same technician where that works. They lie on days of their own, so all are asked for at once. */
function placeForecasts(context: OperationContext, repeat: RepeatRow): void {
  const { sql, today } = context;
  const wanted = repeat.technician_id === null ? null : { technicianId: repeat.technician_id, only: false };
  const unplaced = sql<VisitRow>(
    `SELECT *
      FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date >= ?
        AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
      ORDER BY date`,
  ).all(repeat.id, today);
  for (const alike of groupBy(unplaced, (visit) => JSON.stringify(placingOf(visit))).values()) {
    const answers = answersWithin(
      context,
      { ...placingOf(alike[0]!), wanted },
      alike.map((visit) => ({ date: visit.date, from: visit.window_from, to: visit.window_to })),
      { strict: false, forecasts: "full" },
    );
    const taken = new Set<LocalDate>();
    for (const [i, visit] of alike.entries()) {
      const answer = answers[i]!;
      // The answers know of one another only on different days.
      if (!answer.offered || taken.has(visit.date)) continue;
      taken.add(visit.date);
      sql("UPDATE visits SET meet_at = ? WHERE id = ?").run(answer.meetAt, visit.id);
      placeVisit(
        context,
        visit.id,
        answer.technicians.slice(0, visit.crew).map((t) => Number(t.id)),
      );
    }
  }
}
