import { localDate, localOf } from "@/core/time/local";
import type { Said } from "@/core/messages/languages";
import { visitStates } from "@/core/visits/states";
import type { Offer } from "@/core/windows/offer";
import type { OperationContext } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { withdrawUnsent } from "@/modules/messages/withdrawing";
import { placeVisit, takeOut } from "./days";
import { openTime } from "./shared-times";
import type { VisitRow } from "./visits";
import { endPromise, promise } from "@/modules/jobs/promises";
import { goAgain, setConfirmed, setVisitTime, shareTime } from "@/modules/jobs/visits";

/**
 * Puts the days of a work into the windows of an offer. The old promise stays in the history, and the
 * customer is told where a promised window is another, unless that is done in other words (`silent`);
 * answers whether they were. A seat goes into the time that is there, into `timeId`, or opens one.
 */
export function moveTo(
  context: OperationContext,
  days: readonly VisitRow[],
  offer: Offer,
  technicianIds: readonly number[],
  { answer = false, silent = false, timeId = null as number | null } = {},
): boolean {
  const { now, business } = context;
  for (const day of days) takeOut(context, day.id);
  const timeOf = (day: VisitRow) =>
    day.shared_id === null ? null : (offer.seats?.joins ?? timeId ?? openTime(context, day.service_id));
  let told = false;
  for (const [i, to] of [offer, ...offer.followingDays].entries()) {
    const day = days[i]!;
    // Nobody was there: what becomes of it is promised anew.
    const again = visitStates.allows("go again", day.state);
    const moved = again || day.window_from !== to.from || day.window_to !== to.to;
    setVisitTime(context, day.id, to);
    shareTime(context, day.id, timeOf(day));
    if (moved) setConfirmed(context, day.id, null);
    if (again) goAgain(context, day.id);
    placeVisit(context, day.id, technicianIds);
    if (!moved || (day.state !== "promised" && !again)) continue;
    endPromise(context, day.id, day.confirmed_at);
    promise(context, day.id, to);
    if (silent) continue;
    const heard = lastHeard(context, day);
    if (heard.window_from === to.from && heard.window_to === to.to) {
      // As if nothing had been: what they have said of it holds.
      setConfirmed(context, day.id, heard.confirmed_at);
      continue;
    }
    tellCustomer(context, {
      jobId: day.job_id!,
      visitId: day.id,
      occasion: "moved",
      about: `visit ${day.id} at ${now}`,
      fields: { old: promisedTime(heard, business.time_zone) },
      answer,
      // Whoever moves it for a customer may take it back at once, and nobody has heard of it.
      ...(!answer && { afterMs: undoMs }),
    });
    told = true;
  }
  return told;
}

/** So long a move by the office waits before its customer is told: the time in which it is taken back with one press. */
const undoMs = 60_000;

type Heard = Pick<VisitRow, "window_from" | "window_to" | "confirmed_at">;

/** The window that the customer has heard of last. What was to be told of moves since, and has not left yet, is told no more. */
function lastHeard(context: OperationContext, day: VisitRow): Heard {
  const { sql } = context;
  const { id, since } = sql<{ id: number | null; since: number | null }>(
    "SELECT min(id) AS id, min(written_at) AS since FROM messages WHERE visit_id = ? AND kind = 'moved' AND state = 'waiting'",
  ).get(day.id)!;
  if (id === null || !withdrawUnsent(context, { visitId: day.id, kind: "moved", after: id - 1 })) return day;
  return (
    sql<Heard>("SELECT window_from, window_to, confirmed_at FROM promises WHERE visit_id = ? AND ended_at = ?").get(
      day.id,
      since,
    ) ?? day
  );
}

/** The day and the window of a promise, for a message. */
const promisedTime = ({ window_from, window_to }: Heard, zone: string): Said => ({
  dated: localDate(window_from, zone),
  window: [localOf(window_from, zone).minute, localOf(window_to, zone).minute],
});
