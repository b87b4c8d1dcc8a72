import { groupBy } from "@/core/group";
import { bestFit, daysNear, type Fit, isClearlyBetter } from "@/core/repeats/flexible";
import type { LocalDate } from "@/core/time/dates";
import type { Offer, WindowAnswer } from "@/core/windows/offer";
import type { OperationContext } from "@/kernel/operation";
import { placeVisit, takeOut } from "@/modules/placing/days";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersFor, answersWithin } from "@/modules/placing/windows";
import type { RepeatRow } from "./terms";

/** What is agreed for a date beside its day: the technician where there is one, and whether its day and window are fixed. */
export interface WishOfDate {
  technicianId: number | null;
  isFixed: boolean;
}

/** Forecasts keep all of their room from one another, whatever bookings may take of it. */
const asForecast = { strict: false, forecasts: "full" } as const;

/** Finds room for the forecasts of a repeat that have none: on their date, or for flexible ones where they fit best near it. */
export function findRoom(
  context: OperationContext,
  repeat: RepeatRow,
  wishes: ReadonlyMap<LocalDate, WishOfDate>,
  comes: (day: LocalDate) => boolean,
): void {
  const unplaced = context
    .sql<VisitRow>(
      `SELECT *
        FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date >= ?
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
        ORDER BY date`,
    )
    .all(repeat.id, context.today);
  const wishOf = (visit: VisitRow) => wishes.get(visit.repeat_date!) ?? { technicianId: null, isFixed: false };
  const [near, set] = [true, false].map((flexible) =>
    unplaced.filter((visit) => (repeat.comes === "flexible" && !wishOf(visit).isFixed) === flexible),
  ) as [VisitRow[], VisitRow[]];
  for (const alike of alikeBy(set, wishOf)) placeOnTheirDates(context, alike);
  for (const alike of alikeBy(near, wishOf)) placeNear(context, repeat, alike, comes);
}

interface Alike {
  visits: VisitRow[];
  wanted: { technicianId: number; only: boolean } | null;
}

/** Those that ask for the same, so that all are asked for at once. */
const alikeBy = (visits: readonly VisitRow[], wishOf: (visit: VisitRow) => WishOfDate): Alike[] => {
  const wantedOf = (visit: VisitRow) => {
    const { technicianId } = wishOf(visit);
    return technicianId === null ? null : { technicianId, only: false };
  };
  return [...groupBy(visits, (visit) => JSON.stringify([placingOf(visit), wantedOf(visit)])).values()].map((some) => ({
    visits: some,
    wanted: wantedOf(some[0]!),
  }));
};

/** They lie on days of their own; where they do not, the answers do not know of one another, and one waits for the next turn. */
function placeOnTheirDates(context: OperationContext, { visits, wanted }: Alike): void {
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
}

function placeNear(
  context: OperationContext,
  repeat: RepeatRow,
  { visits, wanted }: Alike,
  comes: (day: LocalDate) => boolean,
): void {
  const days = daysFor(context, repeat, comes);
  const near = visits.map((visit) => ({ visit, days: days(visit) }));
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

const daysFor =
  ({ today }: OperationContext, { leeway_days }: RepeatRow, comes: (day: LocalDate) => boolean) =>
  ({ repeat_date }: VisitRow): LocalDate[] =>
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
  const dates = daysFor(context, repeat, comes)(visit).sort();
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
  context
    .sql("UPDATE visits SET date = ?, window_from = ?, window_to = ?, meet_at = ? WHERE id = ?")
    .run(offer.date, offer.from, offer.to, offer.meetAt, visit.id);
  placeVisit(
    context,
    visit.id,
    offer.technicians.slice(0, visit.crew).map((t) => Number(t.id)),
  );
}
