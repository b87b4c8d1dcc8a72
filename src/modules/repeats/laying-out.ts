import { forecastsAtOnce } from "@/core/horizons";
import { daysInstead, furthestDays } from "@/core/repeats/coming";
import { countedFrom } from "@/core/repeats/counted";
import { daysNear } from "@/core/repeats/flexible";
import { readRule, ruleText } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { takeOut } from "@/modules/placing/days";
import type { VisitRow } from "@/modules/placing/visits";
import { visitingDays } from "@/modules/placing/windows";
import { type NewRow } from "@/store/insert";
import { settleAsks } from "./asking";
import { type DatedForecast, type DateOfRepeat, datesOfRepeat, horizonOf, windowOn } from "./dates";
import { findRoom } from "./finding-room";
import { noteNextLook } from "./next-look";
import type { RepeatRow } from "./terms";
import { type Work, workOf } from "./work";
import { lookAnew, removeForecast } from "@/modules/jobs/forecasts";
import { addVisit, changeForecast, type VisitWork } from "@/modules/jobs/visits";

/**
 * Brings the forecasts of a repeat in line with what was agreed: adds what is missing, so many at once, moves what stands
 * on another day by now, takes away what does not take place; finds room for some of those that have none, and notes when to
 * look again. What is promised stays as it is. Answers how many dates lie ahead, and whether there is more to do at once.
 */
export function forecast(context: OperationContext, agreed: RepeatRow): { forecasts: number; more: boolean } {
  const { sql, today } = context;
  const repeat = countedAnew(context, agreed);
  const work = workOf(context, repeat, addDays(horizonOf(context), furthestDays));
  const comes = visitingDays(context, work(null).needs);
  const within = (day: LocalDate) => day > today && comes(day);
  const ahead = datesToStand(context, repeat, within, comes);
  const wanted = new Map(ahead.map((date) => [date.date, date]));
  const stored = storedDates(context, repeat.id);
  for (const visit of stored.values())
    if (visit.state === "forecast" && visit.date > today) {
      const date = wanted.get(visit.repeat_date!);
      if (!date) dropForecast(context, visit.id);
      else bringInLine(context, repeat, visit, date, work(date.date), within);
    }
  const missing = ahead.filter(({ date }) => !stored.has(date));
  for (const date of missing.slice(0, forecastsAtOnce)) {
    const [window_from, window_to] = windowOn(context, date.day, date.window);
    addForecast(context, repeat, work(date.date), { repeat_date: date.date, date: date.day, window_from, window_to });
  }
  const isLookedFor = findRoom(context, repeat, wanted, comes);
  settleAsks(context, repeat);
  const value = work(null).order.totalMinor;
  if (value !== repeat.value_minor) sql("UPDATE repeats SET value_minor = ? WHERE id = ?").run(value, repeat.id);
  const more = missing.length > forecastsAtOnce || !isLookedFor;
  noteNextLook(context, repeat, { next: ahead[0]?.day ?? null, isUnfinished: more });
  return { forecasts: ahead.length, more };
}

/** The dates that are to stand on the board. Where nobody comes near one, it stands there without room, until somebody does. */
function datesToStand(
  context: ViewContext,
  repeat: RepeatRow,
  within: (day: LocalDate) => boolean,
  comes: (day: LocalDate) => boolean,
): DatedForecast[] {
  const { today } = context;
  const dayOf = (date: DateOfRepeat) => ("day" in date ? date.day : date.state === "no day" ? date.date : null);
  return [
    // A date that is past stands where it has been moved to, and does not move on from day to day.
    ...datesOfRepeat(context, repeat, comes, addDays(today, -furthestDays), today),
    ...datesOfRepeat(context, repeat, within, addDays(today, 1), horizonOf(context)),
  ].flatMap((date) => {
    const day = dayOf(date);
    return day !== null && day > today ? [{ ...date, day }] : [];
  });
}

/**
 * A repeat that is counted from its last visit begins anew with each that was done, and with each that is promised: what
 * is expected after it moves along.
 */
function countedAnew({ sql }: OperationContext, repeat: RepeatRow): RepeatRow {
  if (repeat.counted === "calendar") return repeat;
  const came = `FROM visits WHERE repeat_id = ? AND (state = 'done' OR state IN ${visitStates.sql("expect")})`;
  const last = sql<{ date: string | null }>(`SELECT max(date) AS date ${came}`).get(repeat.id)!.date;
  if (last === null || last === repeat.start_date) return repeat;
  const { n, before } = sql<{ n: number; before: number }>(
    `SELECT count(*) FILTER (WHERE date > ?) AS n, count(*) - 1 AS before ${came} AND date <= ?`,
  ).get(repeat.start_date, repeat.id, last)!;
  const anew = { start_date: last, rule: ruleText(countedFrom(readRule(repeat.rule), last, n)), dates_before: before };
  sql("UPDATE repeats SET start_date = @start_date, rule = @rule, dates_before = @dates_before WHERE id = @id").run({
    ...anew,
    id: repeat.id,
  });
  return { ...repeat, ...anew };
}

type StoredDate = VisitRow & { placed: number };

/** The visits of a repeat by the date they are for. */
const storedDates = ({ sql }: ViewContext, repeatId: number): Map<LocalDate, StoredDate> =>
  new Map(
    sql<StoredDate>(
      "SELECT v.*, EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) AS placed FROM visits v WHERE repeat_id = ?",
    )
      .all(repeatId)
      .map((visit) => [visit.repeat_date!, visit]),
  );

export function dropForecast(context: OperationContext, visitId: number): void {
  takeOut(context, visitId);
  removeForecast(context, visitId);
}

/** A forecast that stands elsewhere by now, or needs something else, is changed, and looks for room anew. */
function bringInLine(
  context: OperationContext,
  repeat: RepeatRow,
  visit: StoredDate,
  date: DatedForecast,
  work: Work,
  within: (day: LocalDate) => boolean,
): void {
  const stays = mayStandThere(context, repeat, visit, date, within);
  const [from, to] = stays ? [visit.window_from, visit.window_to] : windowOn(context, date.day, date.window);
  const is: VisitWork = {
    date: stays ? visit.date : date.day,
    window_from: from,
    window_to: to,
    ...needed(work),
  };
  const changed = Object.entries(is).filter(([column, value]) => visit[column as keyof VisitRow] !== value);
  if (changed.length === 0) return;
  const columns = changed.map(([column]) => column);
  // What it will cost takes no room.
  if (columns.some((column) => column !== "forecast_minor" && column !== "title")) {
    takeOut(context, visit.id);
    lookAnew(context, visit.id);
  }
  changeForecast(context, visit.id, Object.fromEntries(changed));
}

/** Whether a forecast that has found a day near its own may stay there: a flexible one, and one whose day was full, as long as somebody comes then. */
function mayStandThere(
  context: ViewContext,
  { comes, leeway_days }: RepeatRow,
  visit: StoredDate,
  { date, day, isFixed, onClosed, window }: DatedForecast,
  within: (day: LocalDate) => boolean,
): boolean {
  if (isFixed || visit.placed === 0 || !within(visit.date)) return false;
  if (comes === "flexible") return daysNear(date, leeway_days).includes(visit.date);
  const [from, to] = windowOn(context, visit.date, window);
  return daysInstead(day, onClosed).includes(visit.date) && visit.window_from === from && visit.window_to === to;
}

/** A forecast where it is to stand, without room yet; answers its id. */
export const addForecast = (
  context: OperationContext,
  repeat: RepeatRow,
  work: Work,
  {
    id,
    repeat_date,
    date,
    window_from,
    window_to,
    meet_at = null,
  }: Pick<NewRow<"visits">, "date" | "window_from" | "window_to" | "meet_at"> & { id?: number; repeat_date: LocalDate },
): number =>
  addVisit(context, {
    ...(id !== undefined && { id }),
    state: "forecast",
    repeat_id: repeat.id,
    repeat_date,
    date,
    window_from,
    window_to,
    meet_at,
    ...needed(work),
  });

/** What a visit needs, as its row keeps it. */
const needed = ({ needs, order }: Work) => ({
  service_id: needs.serviceIds[0]!,
  also: JSON.stringify(needs.serviceIds.slice(1)),
  title: needs.title,
  zone_id: needs.zoneId,
  minutes: needs.minutes,
  before_minutes: needs.before,
  after_minutes: needs.after,
  crew: needs.crew,
  work_place: needs.workPlace,
  lng: needs.point.lng,
  lat: needs.point.lat,
  skills: JSON.stringify(needs.skills),
  forecast_minor: order.totalMinor,
});
