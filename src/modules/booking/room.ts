import { Refusal } from "@/core/problems";
import { isOnOurWay, type Offer } from "@/core/windows/offers";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { placeVisit, takeOut } from "@/modules/placing/days";
import { answersFor, type AskOptions, bookableDates, nearestOffers } from "@/modules/placing/windows";
import type { Wanted } from "./wanted";

export interface ChosenWindow {
  date: string;
  from: number;
  to: number;
}

/** The answer for the chosen window as things stand now, or a refusal that brings the nearest offers. */
export function stillOffered(
  context: ViewContext,
  wanted: Wanted,
  window: ChosenWindow,
  options: Pick<AskOptions, "office"> = {},
): Offer {
  const answer = answersFor(context, wanted.visit, [window.date], options).find(
    (a) => a.from === window.from && a.to === window.to,
  );
  if (answer?.offered) return answer;
  const answers = answersFor(context, wanted.visit, bookableDates(context), options);
  throw new Refusal("window-gone", {
    details: { offers: nearestOffers(answers, window.from).map(({ date, from, to }) => ({ date, from, to })) },
  });
}

/** Keeps room for a visit that is not promised yet: a hold, on each of its days. Answers the id of the first. */
export function takeRoom(
  context: OperationContext,
  wanted: Wanted,
  offer: Offer,
  hold: { key: string | null; until: number },
): number {
  const { visit } = wanted;
  const crew = offer.technicians.slice(0, visit.crew).map((t) => Number(t.id));
  let first: number | null = null;
  for (const day of [offer, ...offer.then]) {
    const { id }: { id: number } = context
      .sql<{ id: number }>(
        `INSERT INTO visits (state, first_visit_id, service_id, also, title, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, meet_at, lng, lat, skills, on_our_way, held_until, hold_key)
       VALUES ('held', ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
      )
      .get(
        first,
        visit.serviceIds[0],
        JSON.stringify(visit.serviceIds.slice(1)),
        visit.title,
        wanted.zone?.id ?? null,
        day.date,
        day.from,
        day.to,
        visit.minutes,
        visit.before,
        visit.after,
        visit.crew,
        day.meetAt,
        visit.point.lng,
        visit.point.lat,
        JSON.stringify(visit.skills),
        isOnOurWay(offer) ? 1 : 0,
        hold.until,
        first === null ? hold.key : null,
      )!;
    placeVisit(context, id, crew);
    first ??= id;
  }
  return first!;
}

/** Gives back the room of a hold, on all its days. */
export function releaseHold(context: OperationContext, visitId: number): void {
  for (const { id } of context
    .sql<{ id: number }>("SELECT id FROM visits WHERE (id = @visitId OR first_visit_id = @visitId) AND state = 'held'")
    .all({ visitId })) {
    takeOut(context, id);
    context.sql("UPDATE visits SET state = 'cancelled', held_until = NULL WHERE id = ?").run(id);
  }
}
