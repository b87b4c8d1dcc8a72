import { Refusal } from "@/core/problems";
import { offeredAround } from "@/core/repeats/asking";
import { datesFrom, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import type { WindowAnswer } from "@/core/windows/offer";
import type { ViewContext } from "@/kernel/operation";
import { answersFor } from "@/modules/placing/windows";
import { workOn } from "@/modules/repeats/work";
import type { RepeatRow } from "@/modules/repeats/terms";

/** Windows around a date of a repeat that is not promised yet, as if it were not there. */
export function offersForDate(context: ViewContext, repeat: RepeatRow, date: LocalDate): WindowAnswer[] {
  const own = context
    .sql<{ id: number }>("SELECT id FROM visits WHERE repeat_id = ? AND repeat_date = ? AND state = 'forecast'")
    .all(repeat.id, date)
    .map(({ id }) => id);
  const { needs } = workOn(context, repeat, date);
  const wanted = repeat.technician_id === null ? null : { technicianId: repeat.technician_id, only: false };
  const { from, to } = offeredAround(date, context.today);
  return answersFor(context, { ...needs, wanted }, datesFrom(from, to), { without: own, isBeyond: true });
}

/** A date is changed by its customer as long as a promised visit on it could be moved. */
export function refuseLateChange({ sql, business, minute }: ViewContext, repeat: RepeatRow, date: LocalDate): void {
  const stands = sql<{ from: number }>(
    `SELECT window_from AS "from" FROM visits WHERE repeat_id = ? AND repeat_date = ?`,
  ).get(repeat.id, date);
  const from = stands?.from ?? epochMinute(date, repeat.from_minute, business.time_zone);
  if (from - business.move_hours * 60 <= minute)
    throw new Refusal("too-late-to-change", {
      sentence: `It is too late to change this here. Call us on ${business.phone}.`,
    });
}
