import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import { addDays, addMonths, type LocalDate } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { nextAskLook } from "./asking";
import { horizonOf } from "./dates";
import { duePromises, isOneOpen, promiseDaysOf } from "./promising";
import { nextReviewLook } from "./reviewing";
import { farthest, type RepeatRow } from "./terms";

/** Notes the day on which a repeat has something to do again, and by what changes of the days it was laid out. */
export function noteNextLook(
  context: OperationContext,
  repeat: RepeatRow,
  { next, isUnfinished }: { next: LocalDate | null; isUnfinished: boolean },
): void {
  const { today } = context;
  const days = [
    isUnfinished || duePromises(context, repeat).length ? today : null,
    next,
    repeat.comes === "ask" ? nextAskLook(context, repeat) : nextPromise(context, repeat),
    nextWithoutRoom(context, repeat),
    intoView(context, repeat),
    nextReviewLook(repeat, today),
    farthest,
  ].filter((day) => day !== null);
  const soonest = days.sort()[0]!;
  context
    .sql(
      `UPDATE repeats SET grow_on = ?, grow_seen = (SELECT coalesce(max(version), 0) FROM plan_changes)
        WHERE id = ? AND (grow_on IS NOT ? OR grow_seen < (SELECT coalesce(max(version), 0) FROM plan_changes))`,
    )
    .run(soonest, repeat.id, soonest);
}

/** When the next forecast becomes a promise; one that is counted from the visit before waits for that. */
function nextPromise(context: ViewContext, repeat: RepeatRow): LocalDate | null {
  if (repeat.counted === "done" && isOneOpen(context, repeat.id)) return null;
  const ahead = promiseDaysOf(context, repeat);
  const { date } = context
    .sql<{ date: string | null }>(
      `SELECT min(date) AS date
        FROM visits v WHERE repeat_id = ? AND state = 'forecast' AND date > ?
          AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
    )
    .get(repeat.id, addDays(context.today, ahead))!;
  return date === null ? null : addDays(date, -ahead);
}

/** A forecast that has found no room until its day had passed is to be taken away. */
function nextWithoutRoom({ sql }: ViewContext, { id }: RepeatRow): LocalDate | null {
  const { date } = sql<{ date: string | null }>(
    `SELECT min(date) AS date
      FROM visits v
      WHERE repeat_id = ? AND state = 'forecast' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
  ).get(id)!;
  return date === null ? null : addDays(date, 1);
}

/** When the first date beyond the horizon comes into view. */
function intoView(context: ViewContext, { rule, start_date }: RepeatRow): LocalDate | null {
  const after = addDays(horizonOf(context), 1);
  const [beyond] = datesOfRule(readRule(rule), start_date, after, addDays(after, 3660), 1);
  if (!beyond) return null;
  const day = addMonths(beyond, -context.business.repeat_months);
  return day > context.today ? day : addDays(context.today, 1);
}
