import { Refusal } from "@/core/problems";
import { isOnOurWay, type Offer } from "@/core/windows/offer";
import type { ChosenWindow } from "@/core/windows/wishes";
import { hashed } from "@/kernel/keys";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { placeVisit, takeOut } from "@/modules/placing/days";
import { openTime } from "@/modules/placing/shared-times";
import { answersFor, type AskOptions, bookableDates, nearestOffers } from "@/modules/placing/windows";
import type { VisitRow } from "@/modules/placing/visits";
import type { Wanted } from "./wanted";
import { addVisit, setVisitState, shareTime } from "@/modules/jobs/visits";

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
  { visit }: Pick<Wanted, "visit">,
  offer: Offer,
  hold: { key: string | null; until: number },
): number {
  const crew = offer.technicians.slice(0, visit.crew).map((t) => Number(t.id));
  let first: number | null = null;
  for (const day of [offer, ...offer.followingDays]) {
    const id: number = addVisit(context, {
      state: "held",
      first_visit_id: first,
      service_id: visit.serviceIds[0]!,
      also: JSON.stringify(visit.serviceIds.slice(1)),
      title: visit.title,
      zone_id: visit.zoneId,
      date: day.date,
      window_from: day.from,
      window_to: day.to,
      minutes: visit.minutes,
      before_minutes: visit.before,
      after_minutes: visit.after,
      crew: visit.crew,
      meet_at: day.meetAt,
      work_place: visit.workPlace,
      seats: visit.seats,
      lng: visit.point.lng,
      lat: visit.point.lat,
      skills: JSON.stringify(visit.skills),
      on_our_way: isOnOurWay(offer, visit.workPlace) ? 1 : 0,
      held_until: hold.until,
      hold_key: first === null && hold.key !== null ? hashed(context.hogar.keys, "holds", hold.key) : null,
      from_address: context.origin.address,
      from_browser: context.origin.browser,
    });
    if (visit.seats > 0) shareTime(context, id, offer.seats?.joins ?? openTime(context, visit.serviceIds[0]!));
    placeVisit(context, id, crew);
    first ??= id;
  }
  return first!;
}

/** The visit of a hold by the key that was given out for it: only a hash of that is kept. */
export const visitOfHold = <Row = VisitRow>({ sql, hogar }: ViewContext, key: string): Row | undefined =>
  sql<Row>("SELECT * FROM visits WHERE hold_key = ?").get(hashed(hogar.keys, "holds", key));

/** Gives back the room of a hold, on all its days. */
export function releaseHold(context: OperationContext, visitId: number): void {
  for (const { id } of context
    .sql<{ id: number }>("SELECT id FROM visits WHERE (id = @visitId OR first_visit_id = @visitId) AND state = 'held'")
    .all({ visitId })) {
    takeOut(context, id);
    setVisitState(context, id, "cancelled");
  }
}
