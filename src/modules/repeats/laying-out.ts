import { groupBy } from "@/core/group";
import { agreeDaysAhead, forecastDays, forecastsAtOnce } from "@/core/horizons";
import { type ComingDate, comingDates, type Exception, furthestDays } from "@/core/repeats/coming";
import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { placeVisit, takeOut } from "@/modules/placing/days";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersWithin, visitingDays } from "@/modules/placing/windows";
import { itemsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { allTerms, farthest, type RepeatRow } from "./terms";

/** A date of a repeat, and what becomes of it, with the window and the technician of its terms. */
export type DateOfRepeat = ComingDate & { window: readonly [number, number]; technicianId: number | null };

/** The same with the day on which it is to stand. */
type DatedForecast = Pick<DateOfRepeat, "date" | "window" | "technicianId"> & { day: LocalDate };

/** The dates of a repeat from `from` to `to` and what becomes of each, by all that was agreed; `comes`: whether somebody comes on a day at all. */
export function datesOfRepeat(
  context: ViewContext,
  repeat: RepeatRow,
  comes: (day: LocalDate) => boolean,
  from: LocalDate,
  to: LocalDate,
): DateOfRepeat[] {
  const { sql } = context;
  const exceptions = sql<Rows["repeat_exceptions"]>("SELECT * FROM repeat_exceptions WHERE repeat_id = ?")
    .all(repeat.id)
    .map(({ date, skip, to_date, from_minute, to_minute }): Exception => ({
      date,
      skip: skip === 1,
      ...(to_date !== null && { to: to_date }),
      ...(from_minute !== null && { window: [from_minute, to_minute!] as const }),
    }));
  const pauses = sql<Rows["repeat_pauses"]>("SELECT * FROM repeat_pauses WHERE repeat_id = ?")
    .all(repeat.id)
    .map(({ first_date, last_date }) => [first_date, last_date] as const);
  const terms = allTerms(context, repeat);
  return terms.flatMap(({ rule, start_date: start, until_date: until, on_closed: onClosed, ...term }, i) => {
    const opens = i === 0 ? from : latest(from, addDays(terms[i - 1]!.until_date, 1));
    const ends = earliest(to, until);
    const coming = { rule: readRule(rule), start, exceptions, pauses, comes, onClosed };
    return opens > ends
      ? []
      : comingDates(coming, opens, ends).map((date) => ({
          ...date,
          window: ("window" in date && date.window) || ([term.from_minute, term.to_minute] as const),
          technicianId: term.technician_id,
        }));
  });
}

const latest = (a: LocalDate, b: LocalDate): LocalDate => (a > b ? a : b);
const earliest = (a: LocalDate, b: LocalDate): LocalDate => (a < b ? a : b);

/** What a visit of a repeat needs, and the days on which somebody could come for it. */
export function needsOf(context: ViewContext, repeat: RepeatRow) {
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const site = context
    .sql<{ lng: number; lat: number; zone_id: number | null }>("SELECT lng, lat, zone_id FROM sites WHERE id = ?")
    .get(repeat.site_id)!;
  const needs = toPlace(context, items, site, site.zone_id, priceItems(context, items, null));
  return { needs, comes: visitingDays(context, needs) };
}

/**
 * Brings the forecasts of a repeat in line with what was agreed: adds what is missing, so many at once, moves what stands
 * on another day by now, takes away what does not take place; finds room for those that have none, and notes when to look
 * again. What is promised stays as it is. Answers how many dates lie ahead.
 */
export function forecast(context: OperationContext, repeat: RepeatRow): number {
  const { sql, today } = context;
  const { needs, comes } = needsOf(context, repeat);
  const horizon = addDays(today, forecastDays);
  const within = (day: LocalDate) => day > today && comes(day);
  const dates = datesOfRepeat(context, repeat, within, addDays(today, -furthestDays), horizon);
  const stored = new Map(
    sql<Pick<VisitRow, "id" | "state" | "repeat_date" | "date" | "window_from" | "window_to">>(
      "SELECT id, state, repeat_date, date, window_from, window_to FROM visits WHERE repeat_id = ?",
    )
      .all(repeat.id)
      .map((visit) => [visit.repeat_date!, visit]),
  );
  // Where nobody comes near a date, it stands on the board without room, until somebody does.
  const ahead = dates.flatMap((date): DatedForecast[] => {
    const day = "day" in date ? date.day : date.state === "no day" ? date.date : null;
    return day !== null && day > today ? [{ ...date, day }] : [];
  });
  const wanted = new Map(ahead.map((date) => [date.date, date]));
  for (const visit of stored.values())
    if (visit.state === "forecast" && visit.date > today) {
      const date = wanted.get(visit.repeat_date!);
      if (!date) dropForecast(context, visit.id);
      else standsOn(context, visit, date);
    }
  const missing = ahead.filter(({ date }) => !stored.has(date));
  for (const date of missing.slice(0, forecastsAtOnce)) addForecast(context, repeat, needs, date);
  placeForecasts(context, repeat, new Map(ahead.map((date) => [date.date, date.technicianId])));

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
  const beyond = datesOfRule(
    readRule(repeat.rule),
    repeat.start_date,
    addDays(horizon, 1),
    addDays(horizon, 3660),
    1,
  )[0];
  const next = [
    missing.length > forecastsAtOnce ? today : null,
    ahead[0]?.day,
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
  return ahead.length;
}
function dropForecast(context: OperationContext, visitId: number): void {
  takeOut(context, visitId);
  context.sql("DELETE FROM visits WHERE id = ?").run(visitId);
}

/** A forecast that stands elsewhere by now is moved there, and looks for room anew. */
function standsOn(
  context: OperationContext,
  visit: Pick<VisitRow, "id" | "date" | "window_from" | "window_to">,
  { day, window }: DatedForecast,
): void {
  const [from, to] = windowOn(context, day, window);
  if (visit.date === day && visit.window_from === from && visit.window_to === to) return;
  takeOut(context, visit.id);
  context
    .sql("UPDATE visits SET date = ?, window_from = ?, window_to = ?, meet_at = NULL WHERE id = ?")
    .run(day, from, to, visit.id);
}

const windowOn = ({ business }: ViewContext, day: LocalDate, [from, to]: readonly [number, number]) =>
  [epochMinute(day, from, business.time_zone), epochMinute(day, to, business.time_zone)] as const;

function addForecast(
  context: OperationContext,
  repeat: RepeatRow,
  needs: VisitToPlace,
  { date, day, window }: DatedForecast,
): void {
  const [from, to] = windowOn(context, day, window);
  insertRow(context.sql, "visits", {
    state: "forecast",
    repeat_id: repeat.id,
    repeat_date: date,
    service_id: repeat.service_id,
    also: JSON.stringify(needs.serviceIds.slice(1)),
    title: needs.title,
    zone_id: needs.zoneId,
    date: day,
    window_from: from,
    window_to: to,
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

/** Finds room for the forecasts of a repeat that have none: with the same technician where that works. They lie on days of their own, so all are asked for at once. */
function placeForecasts(
  context: OperationContext,
  repeat: RepeatRow,
  usually: ReadonlyMap<LocalDate, number | null>,
): void {
  const { sql, today } = context;
  const wantedOf = (visit: VisitRow) => {
    const technicianId = usually.get(visit.repeat_date!) ?? null;
    return technicianId === null ? null : { technicianId, only: false };
  };
  const unplaced = sql<VisitRow>(
    `SELECT *
      FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date >= ?
        AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
      ORDER BY date`,
  ).all(repeat.id, today);
  for (const alike of groupBy(unplaced, (visit) => JSON.stringify([placingOf(visit), wantedOf(visit)])).values()) {
    const answers = answersWithin(
      context,
      { ...placingOf(alike[0]!), wanted: wantedOf(alike[0]!) },
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
