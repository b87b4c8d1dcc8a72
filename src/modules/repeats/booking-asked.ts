import { offeredAround } from "@/core/repeats/asking";
import { Refusal } from "@/core/problems";
import { datesFrom } from "@/core/time/dates";
import type { Offer, WindowAnswer } from "@/core/windows/offer";
import type { ChosenWindow } from "@/core/windows/wishes";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { takeRoom } from "@/modules/booking/room";
import { tellBooked } from "@/modules/messages/tell-booked";
import { takeOut } from "@/modules/placing/days";
import { answersFor } from "@/modules/placing/windows";
import { insertRow } from "@/store/insert";
import type { AskRow } from "./asking";
import { workOn } from "./work";
import { agreeDate } from "./promising";
import { readRepeat } from "./repeats";
import { belongToRepeat, removeForecast } from "@/modules/jobs/forecasts";

/** Windows around the date that was asked about, the technician of the repeat first; its own room counts as free. `office`: as a person may promise them. */
export function answersAround(context: ViewContext, ask: AskRow, { office = false } = {}): WindowAnswer[] {
  const { from, to } = offeredAround(ask.date, context.today);
  return answersOn(context, ask, datesFrom(from, to), office);
}

function answersOn(context: ViewContext, ask: AskRow, dates: readonly string[], office: boolean): WindowAnswer[] {
  const repeat = readRepeat(context, ask.repeat_id);
  const { needs } = workOn(context, repeat, ask.date);
  const wanted = repeat.technician_id === null ? null : { technicianId: repeat.technician_id, only: false };
  return answersFor(context, { ...needs, wanted }, dates, {
    strict: !office,
    isBeyond: true,
    without: forecastsOf(context, ask),
  });
}

const forecastsOf = ({ sql }: ViewContext, { repeat_id, date }: AskRow): number[] =>
  sql<{ id: number }>("SELECT id FROM visits WHERE repeat_id = ? AND repeat_date = ? AND state = 'forecast'")
    .all(repeat_id, date)
    .map(({ id }) => id);

/** Books the date that was asked about in a window; twice is once. Answers the job's id. */
export function bookAsked(
  context: OperationContext,
  ask: AskRow,
  window: ChosenWindow,
  { office, by }: { office: boolean; by: string },
): number {
  const { sql, now } = context;
  if (ask.job_id !== null) return ask.job_id;
  const around = offeredAround(ask.date, context.today);
  // A link books around its date, and nothing else.
  const dates = window.date < around.from || window.date > around.to ? [] : [window.date];
  const offer = answersOn(context, ask, dates, office).find(
    (answer): answer is Offer => answer.offered && answer.from === window.from && answer.to === window.to,
  );
  if (!offer)
    throw office
      ? new Refusal("cannot-be-kept", { sentence: "Nobody can keep this window any more. Choose another one." })
      : new Refusal("window-gone", {
          sentence: "Somebody was faster: this window has just been taken. Choose another one.",
        });
  for (const id of forecastsOf(context, ask)) {
    takeOut(context, id);
    removeForecast(context, id);
  }
  const repeat = readRepeat(context, ask.repeat_id);
  const visitId = takeRoom(context, { visit: workOn(context, repeat, ask.date).needs }, offer, {
    key: null,
    until: now,
  });
  takesPlace(context, ask);
  belongToRepeat(context, visitId, repeat.id, ask.date);
  const jobId = agreeDate(context, visitId, repeat, by);
  sql("UPDATE repeat_asks SET state = 'booked', answered_at = ?, job_id = ? WHERE id = ?").run(now, jobId, ask.id);
  tellBooked(context, jobId);
  return jobId;
}

/** A date that was left out before is not, when somebody has thought better of it. */
export const takesPlace = ({ sql }: OperationContext, { repeat_id, date }: AskRow): void =>
  void sql("DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ? AND skip = 1").run(repeat_id, date);

/** Not this time: the date is left out. */
export function declineAsked(context: OperationContext, ask: AskRow, words: string): void {
  const { sql, now } = context;
  sql("DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ?").run(ask.repeat_id, ask.date);
  insertRow(sql, "repeat_exceptions", { repeat_id: ask.repeat_id, date: ask.date, skip: 1 });
  sql("UPDATE repeat_asks SET state = 'declined', answered_at = ?, answer = ? WHERE id = ?").run(now, words, ask.id);
}
