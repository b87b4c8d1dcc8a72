import { localDate, localOf } from "@/core/time/local";
import type { Said } from "@/core/messages/languages";
import { visitStates } from "@/core/visits/states";
import type { Offer } from "@/core/windows/offer";
import type { OperationContext } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { insertRow } from "@/store/insert";
import { placeVisit, takeOut } from "./days";
import { openTime } from "./shared-times";
import type { VisitRow } from "./visits";

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
  const { sql, now, business } = context;
  for (const day of days) takeOut(context, day.id);
  const timeOf = (day: VisitRow) =>
    day.shared_id === null ? null : (offer.seats?.joins ?? timeId ?? openTime(context, day.service_id));
  let told = false;
  for (const [i, to] of [offer, ...offer.followingDays].entries()) {
    const day = days[i]!;
    // Nobody was there: what becomes of it is promised anew.
    const again = visitStates.allows("go again", day.state);
    const moved = again || day.window_from !== to.from || day.window_to !== to.to;
    sql(
      `UPDATE visits
        SET date = ?, window_from = ?, window_to = ?, meet_at = ?, confirmed_at = iif(?, NULL, confirmed_at),
          shared_id = CAST(? AS INTEGER), state = iif(@again, 'promised', state),
          started_at = iif(@again, NULL, started_at), ended_at = iif(@again, NULL, ended_at)
        WHERE id = ?`,
    ).run(to.date, to.from, to.to, to.meetAt, moved ? 1 : 0, timeOf(day), day.id, { again: again ? 1 : 0 });
    placeVisit(context, day.id, technicianIds);
    if (!moved || (day.state !== "promised" && !again)) continue;
    sql("UPDATE promises SET ended_at = ? WHERE visit_id = ? AND ended_at IS NULL").run(now, day.id);
    insertRow(sql, "promises", { visit_id: day.id, made_at: now, window_from: to.from, window_to: to.to });
    if (silent) continue;
    tellCustomer(context, {
      jobId: day.job_id!,
      visitId: day.id,
      occasion: "moved",
      about: `visit ${day.id} at ${now}`,
      fields: { old: promisedTime(day, business.time_zone) },
      answer,
    });
    told = true;
  }
  return told;
}

/** The day and the window of a promise, for a message. */
const promisedTime = ({ window_from, window_to }: VisitRow, zone: string): Said => ({
  dated: localDate(window_from, zone),
  window: [localOf(window_from, zone).minute, localOf(window_to, zone).minute],
});
