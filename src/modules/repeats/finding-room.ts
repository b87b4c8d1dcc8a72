import { groupBy } from "@/core/group";
import { daysLookedAtOnce } from "@/core/horizons";
import { daysInstead } from "@/core/repeats/coming";
import { bestFit, daysNear, type Fit, isClearlyBetter } from "@/core/repeats/flexible";
import type { LocalDate } from "@/core/time/dates";
import type { Offer, WindowAnswer } from "@/core/windows/offer";
import { localOf } from "@/core/time/local";
import { windowWords } from "@/core/time/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { placeVisit, takeOut } from "@/modules/placing/days";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersFor, answersWithin, reasonsInWords } from "@/modules/placing/windows";
import { type DatedForecast, type WishOfDate, windowOn } from "./dates";
import type { RepeatRow } from "./terms";
import { needsOf } from "./work";
import { noteDaysLookedAt, noteRoomAsked } from "@/modules/jobs/forecasts";
import { setVisitTime } from "@/modules/jobs/visits";

/** Forecasts keep all of their room from one another, whatever bookings may take of it. */
const asForecast = { strict: false, forecasts: "full" } as const;

/** Whether a forecast `v` that has no room has not been looked at since its day changed, or not at all. */
export const roomMayBeThere = `(v.room_asked IS NULL
  OR EXISTS (SELECT 1 FROM plan_changes p WHERE p.version > v.room_asked AND p.date IN (v.date, '')))`;

/**
 * Finds room for the forecasts of a repeat that have none: on their date, or near it where that day is full and the
 * agreement lets it move; for flexible ones where they fit best. Looks at some of them, so that nobody waits for it, and
 * answers whether that were all.
 */
export function findRoom(
  context: OperationContext,
  repeat: RepeatRow,
  wishes: ReadonlyMap<LocalDate, DatedForecast>,
  comes: (day: LocalDate) => boolean,
): boolean {
  const { sql } = context;
  const unplaced = sql<VisitRow>(
    `SELECT *
      FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date >= ?
        AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) AND ${roomMayBeThere}
      ORDER BY date`,
  ).all(repeat.id, context.today);
  const wishOf = (visit: VisitRow) => wishes.get(visit.repeat_date!);
  const isFlexible = (visit: VisitRow) => repeat.comes === "flexible" && !wishOf(visit)?.isFixed;
  const daysFor = daysNearFor(context, repeat, comes);
  let daysLeft = daysAtOnce(context);
  const looked = unplaced.filter((visit, i) => {
    const days = isFlexible(visit) ? daysFor(visit).length : visit.room_days > 0 ? 0 : 1;
    const isWithin = i === 0 || days <= daysLeft;
    if (isWithin) daysLeft -= days;
    return isWithin;
  });
  for (const alike of alikeBy(looked.filter(isFlexible), wishOf)) placeNear(context, alike, daysFor);
  const set = looked.filter((visit) => !isFlexible(visit));
  const full = alikeBy(
    set.filter(({ room_days }) => room_days === 0),
    wishOf,
  ).flatMap((alike) => placeOnTheirDates(context, alike));
  const mayMove = set.filter(
    (visit) =>
      (visit.room_days > 0 || full.includes(visit)) && wishOf(visit)?.isFixed === false && repeat.comes === "set",
  );
  const waiting = mayMove.filter((visit) => {
    const days = daysInsteadOf(context, repeat, visit, wishOf(visit)!, comes);
    const next = days.slice(Math.max(0, visit.room_days - 1)).slice(0, Math.max(0, daysLeft));
    daysLeft -= next.length;
    if (placeOnOneOf(context, visit, next, wishOf(visit)!)) return false;
    const seen = Math.max(1, visit.room_days) + next.length;
    noteDaysLookedAt(context, visit.id, seen);
    return seen <= days.length;
  });
  noteLookedFor(
    context,
    looked.filter((visit) => !waiting.includes(visit)),
  );
  return looked.length === unplaced.length && waiting.length === 0;
}

/** What has been looked for is looked for again when its day changes. */
function noteLookedFor(context: OperationContext, visits: readonly VisitRow[]): void {
  const { version } = context
    .sql<{ version: number }>("SELECT coalesce(max(version), 0) AS version FROM plan_changes")
    .get()!;
  for (const { id } of visits) noteRoomAsked(context, id, version);
}

/** How many days may be looked at within one transaction: of many technicians, fewer. */
function daysAtOnce({ sql }: OperationContext): number {
  const { n } = sql<{ n: number }>("SELECT count(*) AS n FROM technicians WHERE active").get()!;
  return Math.max(1, Math.floor(daysLookedAtOnce / Math.max(1, n)));
}

interface Alike {
  visits: VisitRow[];
  wanted: { technicianId: number; only: boolean } | null;
}

/** Those that ask for the same, so that all are asked for at once. */
const alikeBy = (visits: readonly VisitRow[], wishOf: (visit: VisitRow) => WishOfDate | undefined): Alike[] => {
  const wantedOf = (visit: VisitRow) => wantedBy(wishOf(visit));
  return [...groupBy(visits, (visit) => JSON.stringify([placingOf(visit), wantedOf(visit)])).values()].map((some) => ({
    visits: some,
    wanted: wantedOf(some[0]!),
  }));
};

const wantedBy = (wish: WishOfDate | undefined): Alike["wanted"] =>
  wish?.technicianId == null ? null : { technicianId: wish.technicianId, only: false };

/** They lie on days of their own; where they do not, the answers do not know of one another, and one waits for the next turn. Answers those whose day is full. */
function placeOnTheirDates(context: OperationContext, { visits, wanted }: Alike): VisitRow[] {
  const answers = answersWithin(
    context,
    { ...placingOf(visits[0]!), wanted },
    visits.map((visit) => ({ date: visit.date, from: visit.window_from, to: visit.window_to })),
    asForecast,
  );
  const taken = new Set<LocalDate>();
  for (const [i, visit] of visits.entries()) {
    const answer = answers[i]!;
    if (!answer.offered || taken.has(visit.date)) continue;
    taken.add(visit.date);
    putInto(context, visit, answer);
  }
  return visits.filter((_, i) => !answers[i]!.offered);
}

/** The days to which one whose day is full may move, the nearest first, between the dates before and after it. */
function daysInsteadOf(
  { sql, today }: OperationContext,
  repeat: RepeatRow,
  visit: VisitRow,
  wish: DatedForecast,
  comes: (day: LocalDate) => boolean,
): LocalDate[] {
  const { before, after } = sql<{ before: LocalDate | null; after: LocalDate | null }>(
    `SELECT max(date) FILTER (WHERE date < @day) AS before, min(date) FILTER (WHERE date > @day) AS after
      FROM visits WHERE repeat_id = @repeatId AND id <> @visitId`,
  ).get({ day: wish.day, repeatId: repeat.id, visitId: visit.id })!;
  return daysInstead(wish.day, wish.onClosed).filter(
    (day) => day > (before ?? today) && day > today && (after === null || day < after) && comes(day),
  );
}

/** Takes the first of these days that has room, in the same window. Answers whether one has. */
function placeOnOneOf(context: OperationContext, visit: VisitRow, days: readonly LocalDate[], wish: DatedForecast) {
  const asked = { ...placingOf(visit), wanted: wantedBy(wish) };
  return days.some((date) => {
    const [from, to] = windowOn(context, date, wish.window);
    const [answer] = answersWithin(context, asked, [{ date, from, to }], asForecast);
    if (answer?.offered) putInto(context, visit, answer);
    return answer?.offered ?? false;
  });
}

function placeNear(context: OperationContext, { visits, wanted }: Alike, daysFor: DaysFor): void {
  const near = visits.map((visit) => ({ visit, days: daysFor(visit) }));
  const dates = [...new Set(near.flatMap(({ days }) => days))].sort();
  if (!dates.length) return;
  const answers = answersFor(context, { ...placingOf(visits[0]!), wanted }, dates, asForecast);
  const onDay = groupBy(answers, ({ date }) => date);
  const taken = new Set<LocalDate>();
  for (const { visit, days } of near) {
    const best = bestFit(days.filter((day) => !taken.has(day)).flatMap((day) => fitsOf(onDay.get(day) ?? [])));
    if (!best) continue;
    taken.add(best.offer.date);
    putInto(context, visit, best.offer);
  }
}

/** Where a forecast without room would find some by now: looked for as `findRoom` does, save the days to which a full one moves; or else why not, in words. */
export function roomNow(
  context: ViewContext,
  repeat: RepeatRow,
  visit: VisitRow,
  isFixed: boolean,
): { roomOn: LocalDate } | { why: string } {
  const asked = placingOf(visit);
  const own = { date: visit.date, from: visit.window_from, to: visit.window_to };
  const onItsDay = () => answersWithin(context, asked, [own], asForecast)[0];
  if (repeat.comes !== "flexible" || isFixed) {
    const answer = onItsDay();
    if (answer?.offered) return { roomOn: answer.date };
    return { why: reasonsInWords(context, answer?.reasons ?? []).join("; ") };
  }
  const days = daysNearFor(context, repeat, needsOf(context, repeat).comes)(visit);
  const best = bestFit(fitsOf(answersFor(context, { ...asked, wanted: null }, days.sort(), asForecast)));
  if (best) return { roomOn: best.offer.date };
  const answer = onItsDay();
  return {
    why: answer?.offered
      ? `no window that is offered has room within ${repeat.leeway_days} ${repeat.leeway_days === 1 ? "day" : "days"}; ${windowOfVisit(context, visit)} on that day would have`
      : reasonsInWords(context, answer?.reasons ?? []).join("; "),
  };
}

const windowOfVisit = ({ business }: ViewContext, { window_from, window_to }: VisitRow): string =>
  windowWords(localOf(window_from, business.time_zone).minute, localOf(window_to, business.time_zone).minute);

type DaysFor = (visit: VisitRow) => LocalDate[];

const daysNearFor =
  ({ today }: ViewContext, { leeway_days }: RepeatRow, comes: (day: LocalDate) => boolean): DaysFor =>
  ({ repeat_date }) =>
    daysNear(repeat_date!, leeway_days).filter((day) => day > today && comes(day));

const fitsOf = (answers: readonly WindowAnswer[]): (Fit & { offer: Offer })[] =>
  answers.flatMap((answer) =>
    answer.offered
      ? [{ offer: answer, extraDriving: answer.extraDriving, load: answer.technicians[0]?.load ?? 0 }]
      : [],
  );

/** Before a flexible date is promised it is looked at once more: what was booked since may have made another day or window clearly better. */
export function improve(
  context: OperationContext,
  repeat: RepeatRow,
  visit: VisitRow,
  comes: (day: LocalDate) => boolean,
): void {
  const dates = daysNearFor(context, repeat, comes)(visit).sort();
  if (!dates.length) return;
  const fits = fitsOf(
    answersFor(context, { ...placingOf(visit), wanted: null }, dates, { ...asForecast, without: [visit.id] }),
  );
  const now = fits.find(({ offer }) => offer.from === visit.window_from && offer.to === visit.window_to);
  const best = bestFit(fits);
  if (!best || (now && !isClearlyBetter(best, now))) return;
  takeOut(context, visit.id);
  putInto(context, visit, best.offer);
}

function putInto(context: OperationContext, visit: VisitRow, offer: Offer): void {
  setVisitTime(context, visit.id, offer);
  placeVisit(
    context,
    visit.id,
    offer.technicians.slice(0, visit.crew).map((t) => Number(t.id)),
  );
}
