import { addDays, epochMinute, localOf, type LocalDate } from "@/core/time/local";
import { datesOf, nearestDay, type RepeatRule } from "@/core/repeats/rule";
import { Refusal } from "@/core/problems";
import { MakeRepeat, OneRepeat } from "@/schemas/booking";
import { Nothing } from "@/schemas/money";
import { agreeJob } from "./booking";
import { itemsOfJob, priceItems, readItem, toPlace, type Item } from "./catalogue";
import { defineOperation, type OperationContext } from "./door";
import { tellCustomer } from "./messaging";
import { answersWithin, placeVisit, visitingDays, type ZoneRules } from "./placing";
import { placingOf, type VisitRow } from "./visits";

/** How far ahead forecasts are kept, how many of them, and when one becomes a visit that the customer is told of. */
const forecastDays = 400;
const forecastsAhead = 8;
const agreeDaysAhead = 14;

interface RepeatRow {
  id: number;
  customer_id: number;
  site_id: number;
  service_id: number;
  technician_id: number | null;
  every: number;
  unit: RepeatRule["unit"];
  start_date: string;
  until_date: string | null;
  from_minute: number;
  to_minute: number;
  /** JSON: what is done each time, the main service first. */
  items: string;
  state: "active" | "ended";
}

/** Makes a visit come back: the same service, site and window by a rule from its date on. */
export const makeRepeat = defineOperation({
  name: "make-repeat",
  access: "board.change",
  input: MakeRepeat,
  run(context, { visitId, every, unit, until }) {
    return beginRepeat(context, visitId, { every, unit, until });
  },
});

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
  const { id } = sql<{ id: number }>(
    `INSERT INTO repeats (customer_id, site_id, service_id, technician_id, every, unit, start_date, until_date, from_minute, to_minute, items, state)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'active') RETURNING id`,
  ).get(
    job.customer_id,
    job.site_id,
    job.service_id,
    technician?.technician_id ?? null,
    every,
    unit,
    visit.date,
    until,
    localOf(visit.window_from, business.time_zone).minute,
    localOf(visit.window_to, business.time_zone).minute,
    JSON.stringify(itemsOfJob(context, visit.job_id)),
  )!;
  sql("UPDATE visits SET repeat_id = ?, repeat_date = ? WHERE id = ?").run(id, visit.date, visitId);
  return { repeatId: id, forecasts: forecast(context, readRepeat(context, id)) };
}

/** Ends a repeat: its forecasts go, its promised visits stay. */
export const endRepeat = defineOperation({
  name: "end-repeat",
  access: "board.change",
  input: OneRepeat,
  run: (context, { repeatId }) => stopRepeat(context, readRepeat(context, repeatId).id),
});

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

/** Takes up a repeat that was ended. */
export const resumeRepeat = defineOperation({
  name: "resume-repeat",
  access: "board.change",
  input: OneRepeat,
  run: (context, { repeatId }) => ({ forecasts: takeUpRepeat(context, repeatId) }),
});

/** Answers how many dates lie ahead. */
export function takeUpRepeat(context: OperationContext, repeatId: number): number {
  context.sql("UPDATE repeats SET state = 'active' WHERE id = ?").run(repeatId);
  return forecast(context, readRepeat(context, repeatId));
}

/** Run daily: keeps forecasts ahead, and turns those whose time has come into visits. */
export const growRepeats = defineOperation({
  name: "grow-repeats",
  access: "system",
  input: Nothing,
  run(context) {
    const { sql, today } = context;
    for (const repeat of sql<RepeatRow>("SELECT * FROM repeats WHERE state = 'active'").all())
      forecast(context, repeat);
    const due = sql<{ id: number; repeat_id: number }>(
      `SELECT v.id, v.repeat_id FROM visits v WHERE v.state = 'forecast' AND v.date BETWEEN ? AND ?
       AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY v.date`,
    ).all(today, addDays(today, agreeDaysAhead));
    for (const { id, repeat_id } of due) agreeForecast(context, id, readRepeat(context, repeat_id));
    // A forecast that found no room until its day had passed is history.
    sql(
      "DELETE FROM visits WHERE state = 'forecast' AND date < ? AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = visits.id)",
    ).run(today);
    return { agreed: due.length };
  },
});

function readRepeat({ sql }: OperationContext, id: number): RepeatRow {
  const repeat = sql<RepeatRow>("SELECT * FROM repeats WHERE id = ?").get(id);
  if (!repeat) throw new Refusal("not-found");
  return repeat;
}

/** Adds the forecasts that are missing and finds room for those that have none. Answers how many dates lie ahead. */
function forecast(context: OperationContext, repeat: RepeatRow): number {
  const { sql, today, business } = context;
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
  const items = (JSON.parse(repeat.items) as Item[]).map((item) => readItem(context, item));
  const site = sql<{ lng: number; lat: number; zone_id: number | null }>(
    "SELECT lng, lat, zone_id FROM sites WHERE id = ?",
  ).get(repeat.site_id)!;
  const needs = toPlace(items, site, site.zone_id, priceItems(context, items, null));
  const comes = visitingDays(context, needs);
  const within = (day: LocalDate) =>
    day > today && (repeat.until_date === null || day <= repeat.until_date) && comes(day);
  for (const date of dates.filter((d) => !known.has(d))) {
    // A date on which nobody comes at all moves to a day nearby; its place in the rule stays its own.
    const day = nearestDay(date, within) ?? date;
    // Where the rule comes on that day anyway, once is enough.
    if (day !== date && all.includes(day)) continue;
    sql(
      `INSERT INTO visits (state, repeat_id, repeat_date, service_id, also, title, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, lng, lat, skills)
       VALUES ('forecast', ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    ).run(
      repeat.id,
      date,
      repeat.service_id,
      JSON.stringify(needs.serviceIds.slice(1)),
      needs.title,
      site.zone_id,
      day,
      epochMinute(day, repeat.from_minute, business.time_zone),
      epochMinute(day, repeat.to_minute, business.time_zone),
      needs.minutes,
      needs.before,
      needs.after,
      needs.crew,
      site.lng,
      site.lat,
      JSON.stringify(needs.skills),
    );
  }
  placeForecasts(context, repeat);
  return dates.length;
}

/** Finds room for the forecasts of a repeat that have none: with the same technician where that works. */
function placeForecasts(context: OperationContext, repeat: RepeatRow): void {
  const { sql, today } = context;
  const wanted = repeat.technician_id === null ? null : { technicianId: repeat.technician_id, only: false };
  const unplaced = sql<VisitRow>(
    "SELECT * FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date >= ? AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY date",
  ).all(repeat.id, today);
  for (const visit of unplaced) {
    const [answer] = answersWithin(
      context,
      { ...placingOf(visit), wanted },
      [{ date: visit.date, from: visit.window_from, to: visit.window_to }],
      { strict: false, forecasts: "full" },
    );
    if (!answer?.offered) continue;
    sql("UPDATE visits SET meet_at = ? WHERE id = ?").run(answer.meetAt, visit.id);
    placeVisit(
      context,
      visit.id,
      answer.technicians.slice(0, visit.crew).map((t) => Number(t.id)),
    );
  }
}

function agreeForecast(context: OperationContext, visitId: number, repeat: RepeatRow): void {
  const { sql } = context;
  const items = (JSON.parse(repeat.items) as Item[]).map((item) => readItem(context, item));
  const zone =
    sql<ZoneRules>("SELECT z.* FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.id = ?").get(repeat.site_id) ??
    null;
  const jobId = agreeJob(context, {
    visitId,
    customerId: repeat.customer_id,
    siteId: repeat.site_id,
    items,
    order: priceItems(context, items, zone),
    note: "",
    depositMinor: 0,
    bookedBy: `repeat ${repeat.id}`,
  });
  tellCustomer(context, { jobId, occasion: "coming again", about: `visit ${visitId}` });
}
