import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { moveByHand } from "@/modules/placing/by-hand";
import type { VisitRow } from "@/modules/placing/visits";
import { datesOfRepeat } from "./dates";
import { dropForecast } from "./laying-out";
import { readRepeat } from "./repeats";
import type { RepeatRow } from "./terms";
import { onDay } from "./undoing";
import { needsOf } from "./work";
import { nameDates } from "@/modules/jobs/forecasts";

/** The visits of a repeat that are promised for its dates from one on, in the order of these. */
export const promisedFrom = ({ sql }: ViewContext, repeatId: number, from: LocalDate): VisitRow[] =>
  sql<VisitRow>(
    `SELECT * FROM visits
      WHERE repeat_id = ? AND repeat_date >= ? AND state IN ${visitStates.sql("expect")} ORDER BY repeat_date`,
  ).all(repeatId, from);

/**
 * Moves promised visits to dates of the terms that count by now, one for each, in their order; their customer is told. With
 * whoever the terms name, or else with those who come now. Refused, with the day, where one cannot be kept.
 */
export function takeAlong(
  context: OperationContext,
  repeatId: number,
  visits: readonly VisitRow[],
  dates: readonly LocalDate[],
): boolean {
  if (!visits.length) return false;
  const { sql } = context;
  const repeat = readRepeat(context, repeatId);
  const places = placesOn(context, repeat, dates);
  for (const date of dates) {
    const there = sql<{ id: number }>(
      "SELECT id FROM visits WHERE repeat_id = ? AND repeat_date = ? AND state = 'forecast'",
    ).get(repeatId, date);
    if (there) dropForecast(context, there.id);
  }
  nameDates(
    context,
    repeatId,
    visits.map(({ id }, i) => ({ id, repeat_date: dates[i]! })),
  );
  // Whoever goes to a later day makes room for those before it.
  const later = dates[0]! > visits[0]!.repeat_date!;
  const inTurn = visits.map((visit, i) => ({ visit, date: dates[i]! }));
  let told = false;
  for (const { visit, date } of later ? inTurn.reverse() : inTurn) {
    const place = places.get(date);
    if (!place)
      throw new Refusal("cannot-be-kept", {
        sentence: `Nobody comes on ${dayWords(date)}: move that visit by itself, or let what is promised stay.`,
      });
    const now = sql<{ id: number }>("SELECT technician_id AS id FROM placements WHERE visit_id = ?")
      .all(visit.id)
      .map(({ id }) => id);
    const technicianIds = visit.crew === 1 && place.technicianId !== null ? [place.technicianId] : now;
    const moved = onDay(date, () =>
      moveByHand(context, visit, {
        technicianIds,
        date: place.day,
        fromMinute: place.window[0],
        toMinute: place.window[1],
      }),
    );
    told = told || moved.told;
  }
  return told;
}

/** Where each of some dates is to stand by all that was agreed. */
function placesOn(context: ViewContext, repeat: RepeatRow, dates: readonly LocalDate[]) {
  const { comes } = needsOf(context, repeat);
  return new Map(
    datesOfRepeat(context, repeat, comes, dates[0]!, dates.at(-1)!).flatMap((date) =>
      "day" in date ? [[date.date, date] as const] : [],
    ),
  );
}
