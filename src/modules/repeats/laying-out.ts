import { forecastsAtOnce } from "@/core/horizons";
import { type ComingDate, comingDates, type Exception, furthestDays } from "@/core/repeats/coming";
import { countedFrom } from "@/core/repeats/counted";
import { daysNear } from "@/core/repeats/flexible";
import { datesOfRule, readRule, ruleText } from "@/core/repeats/recurrence";
import { addDays, addMonths, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { takeOut } from "@/modules/placing/days";
import type { VisitRow } from "@/modules/placing/visits";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { nextAskLook, settleAsks } from "./asking";
import { findRoom, type WishOfDate } from "./finding-room";
import { needsOf } from "./needs";
import { orderOfRepeat } from "./pricing";
import { duePromises, isOneOpen, promiseDaysOf } from "./promising";
import { nextReviewLook } from "./reviewing";
import { allTerms, farthest, type RepeatRow } from "./terms";

/** A date of a repeat, and what becomes of it, with the window and the technician of its terms; `isFixed`: day or window were agreed for it alone. */
export type DateOfRepeat = ComingDate & WishOfDate & { window: readonly [number, number] };

/** The same with the day on which it is to stand. */
type DatedForecast = Pick<DateOfRepeat, "date" | "window" | "technicianId" | "isFixed"> & { day: LocalDate };

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
  const fixed = new Set(exceptions.filter(({ to, window }) => to ?? window).map(({ date }) => date));
  const pauses = sql<Rows["repeat_pauses"]>("SELECT * FROM repeat_pauses WHERE repeat_id = ?")
    .all(repeat.id)
    .map(({ first_date, last_date }) => [first_date, last_date] as const);
  const terms = allTerms(context, repeat);
  return terms.flatMap(({ rule, start_date: start, until_date: until, on_closed: onClosed, ...term }, i) => {
    // Counted from a visit, its dates begin after it.
    const after = repeat.counted === "done" && until === farthest ? latest(from, addDays(start, 1)) : from;
    const opens = i === 0 ? after : latest(after, addDays(terms[i - 1]!.until_date, 1));
    const ends = earliest(to, until);
    const coming = { rule: readRule(rule), start, exceptions, pauses, comes, onClosed };
    return opens > ends
      ? []
      : comingDates(coming, opens, ends).map((date) => ({
          ...date,
          window: ("window" in date && date.window) || ([term.from_minute, term.to_minute] as const),
          technicianId: term.technician_id,
          isFixed: fixed.has(date.date),
        }));
  });
}

const latest = (a: LocalDate, b: LocalDate): LocalDate => (a > b ? a : b);
const earliest = (a: LocalDate, b: LocalDate): LocalDate => (a < b ? a : b);

/** The last day up to which a repeat is laid out. */
export const horizonOf = ({ today, business }: ViewContext): LocalDate => addMonths(today, business.repeat_months);

/**
 * Brings the forecasts of a repeat in line with what was agreed: adds what is missing, so many at once, moves what stands
 * on another day by now, takes away what does not take place; finds room for those that have none, and notes when to look
 * again. What is promised stays as it is. Answers how many dates lie ahead.
 */
export function forecast(context: OperationContext, agreed: RepeatRow): number {
  const { sql, today } = context;
  const repeat = countedAnew(context, agreed);
  const { needs, comes } = needsOf(context, repeat);
  const horizon = horizonOf(context);
  const within = (day: LocalDate) => day > today && comes(day);
  // A date that is past stands where it has been moved to, and does not move on from day to day.
  const dates = [
    ...datesOfRepeat(context, repeat, comes, addDays(today, -furthestDays), today),
    ...datesOfRepeat(context, repeat, within, addDays(today, 1), horizon),
  ];
  const stored = new Map(
    sql<StoredDate>(
      `SELECT id, state, repeat_date, date, window_from, window_to,
          EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) AS placed
        FROM visits v WHERE repeat_id = ?`,
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
      else if (!mayStandThere(repeat, visit, date, within)) standOn(context, visit, date);
    }
  const missing = ahead.filter(({ date }) => !stored.has(date));
  for (const date of missing.slice(0, forecastsAtOnce)) addForecast(context, repeat, needs, date);
  findRoom(context, repeat, wanted, comes);
  settleAsks(context, repeat);

  const dueFirst = isOneOpen(context, repeat.id) && repeat.counted === "done";
  const promiseDays = promiseDaysOf(context, repeat);
  const placed = sql<{ date: string | null }>(
    `SELECT min(date) AS date
      FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date > ?
        AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
  ).get(repeat.id, addDays(today, promiseDays))!.date;
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
  const soonest = (date: LocalDate) => latest(date, addDays(today, 1));
  const next = [
    missing.length > forecastsAtOnce || duePromises(context, repeat).length ? today : null,
    ahead[0]?.day,
    repeat.comes === "ask" ? nextAskLook(context, repeat) : placed && !dueFirst && addDays(placed, -promiseDays),
    unplaced && addDays(unplaced, 1),
    beyond && soonest(addMonths(beyond, -context.business.repeat_months)),
    nextReviewLook(repeat, today),
    farthest,
  ]
    .filter((date) => typeof date === "string")
    .sort()[0]!;
  const value = orderOfRepeat(context, repeat).order.totalMinor;
  if (value !== repeat.value_minor) sql("UPDATE repeats SET value_minor = ? WHERE id = ?").run(value, repeat.id);
  sql(
    `UPDATE repeats SET grow_on = ?, grow_seen = (SELECT coalesce(max(version), 0) FROM plan_changes)
      WHERE id = ? AND (grow_on IS NOT ? OR grow_seen < (SELECT coalesce(max(version), 0) FROM plan_changes))`,
  ).run(next, repeat.id, next);
  return ahead.length;
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
  const { n } = sql<{ n: number }>(`SELECT count(*) AS n ${came} AND date > ? AND date <= ?`).get(
    repeat.id,
    repeat.start_date,
    last,
  )!;
  const rule = ruleText(countedFrom(readRule(repeat.rule), last, n));
  sql("UPDATE repeats SET start_date = ?, rule = ? WHERE id = ?").run(last, rule, repeat.id);
  return { ...repeat, start_date: last, rule };
}

type StoredDate = Pick<VisitRow, "id" | "state" | "repeat_date" | "date" | "window_from" | "window_to"> & {
  placed: number;
};

function dropForecast(context: OperationContext, visitId: number): void {
  takeOut(context, visitId);
  context.sql("DELETE FROM visits WHERE id = ?").run(visitId);
}

/** Whether a forecast that has found a day and a window near its date may stay there: a flexible one, as long as somebody comes then. */
const mayStandThere = (
  { comes, leeway_days }: RepeatRow,
  { placed, date }: StoredDate,
  { day, isFixed }: DatedForecast,
  within: (day: LocalDate) => boolean,
): boolean =>
  comes === "flexible" && !isFixed && placed === 1 && within(date) && daysNear(day, leeway_days).includes(date);

/** A forecast that stands elsewhere by now is moved there, and looks for room anew. */
function standOn(context: OperationContext, visit: StoredDate, { day, window }: DatedForecast): void {
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
