import { distanceKm, type Point } from "@/core/place/points";
import { addDays, datesFrom, type LocalDate, weekdayOf } from "@/core/time/dates";
import { windowIn } from "@/core/time/local-words";
import { type Calendar, calendarRefusal, isWorkingDay } from "@/core/windows/calendar";
import { soonestArrivals } from "@/core/windows/continuous";
import { isOnOurWay, type Offer, type WindowAnswer } from "@/core/windows/offer";
import { answerWindows, explainWindows, firstOffers, type WindowExplained } from "@/core/windows/offers";
import { windowsOn, withFollowingDays } from "@/core/windows/patterns";
import { type PromiseWindow } from "@/core/windows/promise-window";
import { type AskedWindow, strictestMode, type WindowsQuestion } from "@/core/windows/question";
import type { Reason } from "@/core/windows/reasons";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import { type Names, reasonWords } from "@/core/windows/words";
import type { ViewContext } from "@/kernel/operation";
import { readPattern } from "@/modules/catalogue/window-patterns";
import type { ZoneRules } from "@/modules/place/zones";
import { readBars } from "./bars";
import { readLimits } from "./capacity";
import { readOpening } from "./opening-hours";
import { loadPlanning, type Planning, type Without } from "./planning";
import { sharedTimes } from "./shared-times";

interface ServiceRules {
  notice_minutes: number;
  capacity: "route" | "count" | "open" | "ask" | null;
}

export interface AskOptions {
  /** False leaves out notice, horizon, zone days, hours and limits, as a person in the office may. */
  strict?: boolean;
  /** Days beyond the horizon are answered for too: for whoever was asked about a day out there. */
  isBeyond?: boolean;
  /** Somebody in the office places: those count too whom customers are not offered. */
  office?: boolean;
  /** Visits left out of the plan, as if they were not there. */
  without?: Without;
  /** Only these technicians. */
  among?: readonly number[];
  /** Room that forecasts keep, where it is not what the business has set. */
  forecasts?: "full";
}

/** Everything core needs to answer for a visit: the plan, the rules, and the windows of the service's pattern on the dates. */
export function questionFor(
  context: ViewContext,
  visit: VisitToPlace,
  dates: readonly LocalDate[],
  options: AskOptions = {},
): WindowsQuestion & { planning: Planning } {
  const { business } = context;
  const calendar = calendarFor(context, visit);
  // Work of several days may go on up to two weeks later.
  const reach =
    visit.days > 1 && dates.length
      ? [...dates, ...datesFrom(addDays(dates.at(-1)!, 1), addDays(dates.at(-1)!, 14))]
      : dates;
  const planning = loadPlanning(context, reach, options.without);
  const question = questionOn(context, planning, visit, [], calendar, options);
  const soonest = soonestArrivals(question);
  const windows = windowsOn(readPattern(context, visit.serviceIds), dates, business.time_zone, soonest);
  // A time that was moved elsewhere by a person is still joined.
  for (const { date, from, to } of visit.seats
    ? sharedTimes(context, visit.serviceIds[0]!, dates, options.without)
    : [])
    if (!windows.some((w) => w.from === from && w.to === to)) windows.push({ date, from, to });
  if (visit.seats) windows.sort((a, b) => a.from - b.from);
  return {
    ...question,
    windows: windows.map((window) =>
      withFollowingDays(window, visit.days, (date) => isWorkingDay(calendar, date), business.time_zone),
    ),
    planning,
  };
}

/** Answers for all windows of the service's pattern on the dates. */
export const answersFor = (
  context: ViewContext,
  visit: VisitToPlace,
  dates: readonly LocalDate[],
  options: AskOptions = {},
): WindowAnswer[] => answerWindows(questionFor(context, visit, dates, options));

/** Answers for the windows given. */
export const answersWithin = (
  context: ViewContext,
  visit: VisitToPlace,
  windows: readonly PromiseWindow[],
  options: AskOptions = {},
): WindowAnswer[] => answerWindows(questionWithin(context, visit, windows, options));

/** The same, opened up: every technician against every window. */
export const explainWithin = (
  context: ViewContext,
  visit: VisitToPlace,
  windows: readonly PromiseWindow[],
  options: AskOptions = {},
): WindowExplained[] => explainWindows(questionWithin(context, visit, windows, options));

function questionWithin(
  context: ViewContext,
  visit: VisitToPlace,
  windows: readonly PromiseWindow[],
  options: AskOptions,
): WindowsQuestion {
  const { time_zone: zone } = context.business;
  const calendar = calendarFor(context, visit);
  const asked = windows.map((window) =>
    withFollowingDays(window, visit.days, (date) => isWorkingDay(calendar, date), zone),
  );
  const dates = [...new Set(asked.flatMap((w) => [w.date, ...(w.followingDays ?? []).map((d) => d.date)]))].sort();
  const planning = loadPlanning(context, dates, options.without);
  return questionOn(context, planning, visit, asked, calendar, options);
}

function questionOn(
  context: ViewContext,
  planning: Planning,
  visit: VisitToPlace,
  windows: readonly AskedWindow[],
  calendar: Calendar,
  { strict = true, office = !strict, isBeyond = !strict, among, forecasts, without = [] }: AskOptions,
): WindowsQuestion {
  const { sql, business } = context;
  const zone = visit.zoneId === null ? undefined : sql<ZoneRules>("SELECT * FROM zones WHERE id = ?").get(visit.zoneId);
  const services = visit.serviceIds.map((id) =>
    sql<ServiceRules>("SELECT notice_minutes, capacity FROM services WHERE id = ?").get(id)!,
  );
  const bars = readBars(context, visit.zoneId, office);
  const limits = strict
    ? readLimits(context, visit, strictestMode(services.map((s) => s.capacity ?? business.capacity)), without)
    : null;
  const technicians = planning
    .candidates(forecasts ?? business.forecast_room)
    .filter((t) => !among || among.includes(Number(t.id)));
  return {
    now: context.minute,
    today: context.today,
    rules: {
      notice: strict
        ? Math.max(business.notice_minutes, zone?.notice_minutes ?? 0, ...services.map((s) => s.notice_minutes))
        : -1e9,
      furthestDays: isBeyond ? 1e9 : business.horizon_days,
      capacity: limits?.capacity ?? { mode: "route" },
      limits: limits?.limits ?? [],
    },
    visit: {
      place: visit.workPlace === "afar" ? null : planning.place(visit.point, visit.zoneId),
      minutes: visit.minutes,
      before: visit.before,
      after: visit.after,
      crew: visit.crew,
      skills: visit.skills,
    },
    wanted: visit.wanted ? { technician: String(visit.wanted.technicianId), only: visit.wanted.only } : null,
    windows,
    refusal: strict ? calendarRefusal(calendar) : () => [],
    technicians: technicians.map((t) => ({
      ...t,
      bar: bars.of(Number(t.id), visit.serviceIds),
      limits: limits?.ofTechnician(t.id) ?? [],
      mostMinutes: strict ? bars.mostMinutes(Number(t.id)) : null,
    })),
    travel: planning.travel,
    ...(visit.seats > 0 && { seats: seatsOf(context, visit, without) }),
  };
}

/** The times of a service with seats that are there already, by their window. */
function seatsOf(context: ViewContext, visit: VisitToPlace, without: Without): WindowsQuestion["seats"] {
  const { sql } = context;
  const [serviceId] = visit.serviceIds as [number];
  const { seats } = sql<{ seats: number }>("SELECT seats FROM services WHERE id = ?").get(serviceId)!;
  const onDate = memo((date: LocalDate) => sharedTimes(context, serviceId, [date], without));
  return {
    asked: visit.seats,
    of: seats,
    at: ({ date, from, to }) => onDate(date).find((time) => time.from === from && time.to === to) ?? null,
  };
}

function memo<R>(compute: (date: LocalDate) => R): (date: LocalDate) => R {
  const known = new Map<LocalDate, R>();
  return (date) => {
    let value = known.get(date);
    if (value === undefined) known.set(date, (value = compute(date)));
    return value;
  };
}

/** The days on which visits like this one are made at all: the business is open, the zone is served, and somebody works. */
export function visitingDays(context: ViewContext, visit: VisitToPlace): (date: LocalDate) => boolean {
  const calendar = calendarFor(context, visit);
  const worked = new Set(
    context
      .sql<{ weekday: number }>(
        "SELECT DISTINCT s.weekday FROM working_spans s JOIN technicians t ON t.id = s.technician_id WHERE t.active = 1",
      )
      .all()
      .map((s) => s.weekday),
  );
  return (date) => isWorkingDay(calendar, date) && worked.has(weekdayOf(date));
}

/** What the calendar says of a visit: opening hours, its zone, the hours of its services. */
export function calendarFor(context: ViewContext, { zoneId, serviceIds, point, workPlace }: VisitToPlace): Calendar {
  const { sql, business } = context;
  const zone =
    zoneId === null ? undefined : sql<ZoneRules>("SELECT * FROM zones WHERE id = ? AND active = 1").get(zoneId);
  return {
    timeZone: business.time_zone,
    opening: readOpening(context),
    zone:
      workPlace !== "site"
        ? "anywhere"
        : zone
          ? { weekdays: zone.weekdays, from: zone.serve_from, to: zone.serve_to + zone.serve_past }
          : null,
    nearest:
      zone || workPlace !== "site"
        ? null
        : nearestZone(
            sql<Point & { name: string }>(
              "SELECT DISTINCT z.name, s.lng, s.lat FROM sites s JOIN zones z ON z.id = s.zone_id WHERE z.active = 1",
            ).all(),
            point,
          ),
    serviceHours: serviceIds.map((id) =>
      sql<{ weekday: number; opens: number; closes: number }>(
        "SELECT weekday, opens, closes FROM service_hours WHERE service_id = ?",
      ).all(id),
    ),
  };
}

/** The zone of the nearest customer: how far outside an address lies. */
function nearestZone(sites: readonly (Point & { name: string })[], point: Point): Calendar["nearest"] {
  let nearest: { name: string; km: number } | null = null;
  for (const site of sites) {
    const km = distanceKm(site, point);
    if (!nearest || km < nearest.km) nearest = { name: site.name, km };
  }
  return nearest && { ...nearest, km: Math.round(nearest.km * 10) / 10 };
}

/** The dates on which bookings are taken. */
export const bookableDates = ({ today, business }: ViewContext): LocalDate[] =>
  datesFrom(today, addDays(today, business.horizon_days));

/** Days with offers that somebody looks at before asking for later ones, and dates whose plan is read at once for them. */
const [daysLookedAt, datesAtOnce] = [9, 14];

/**
 * The soonest offers, from a date on where one is given: of as many days as somebody looks at first, whole
 * days each. `next` is the date to go on with; null where nothing lies beyond.
 */
export function soonestOffers(
  context: ViewContext,
  visit: VisitToPlace,
  from?: LocalDate,
): { offers: Offer[]; next: LocalDate | null } {
  const dates = bookableDates(context).filter((date) => from === undefined || date >= from);
  const offers: Offer[] = [];
  let days = 0;
  for (let at = 0; at < dates.length; at += datesAtOnce) {
    const found = firstOffers(questionFor(context, visit, dates.slice(at, at + datesAtOnce)), daysLookedAt - days);
    offers.push(...found);
    days += new Set(found.map(({ date }) => date)).size;
    if (days >= daysLookedAt) return { offers, next: dates.find((date) => date > offers.at(-1)!.date) ?? null };
  }
  return { offers, next: null };
}

/** An offer as customers choose it: its window in epoch minutes and as they read it, and the days on which the work goes on. */
export const pickable = ({ business }: ViewContext, { workPlace }: Pick<VisitToPlace, "workPlace">, offer: Offer) => ({
  date: offer.date,
  from: offer.from,
  to: offer.to,
  words: windowIn(offer.from, offer.to, business.time_zone),
  followingDays: offer.followingDays.map((day) => day.date),
  onOurWay: isOnOurWay(offer, workPlace),
  seatsLeft: offer.seats?.left ?? null,
});

/** The nearest offers to a window, for somebody who has just lost it. */
export function nearestOffers(answers: readonly WindowAnswer[], from: number, count = 6): WindowAnswer[] {
  return answers
    .filter((a) => a.offered)
    .sort((a, b) => Math.abs(a.from - from) - Math.abs(b.from - from) || a.from - b.from)
    .slice(0, count);
}

/** Names of technicians and skills, for sentences. */
export function namesOf({ sql }: ViewContext): Names {
  const technicians = new Map(
    sql<{ id: number; name: string }>("SELECT id, name FROM technicians")
      .all()
      .map((t) => [String(t.id), t.name]),
  );
  const skills = new Map(
    sql<{ id: number; name: string }>("SELECT id, name FROM skills")
      .all()
      .map((s) => [String(s.id), s.name]),
  );
  return { technician: (id) => technicians.get(id) ?? "Somebody", skill: (id) => skills.get(id) ?? "a skill" };
}

/** Sentences for why a window is refused. */
export function reasonsInWords(context: ViewContext, reasons: readonly Reason[]): string[] {
  const names = namesOf(context);
  return reasons.map((reason) => reasonWords(reason, names));
}
