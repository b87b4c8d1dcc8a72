import type { LocalDate } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";

/** Dates of repeats, as the visits that they are; whoever was to come is taken out before. */

/** A date that is no more. */
export const removeForecast = ({ sql }: OperationContext, id: number): void =>
  void sql("DELETE FROM visits WHERE id = ?").run(id);

/** All dates of a repeat that are not promised. */
export const removeForecasts = ({ sql }: OperationContext, repeatId: number): void =>
  void sql("DELETE FROM visits WHERE repeat_id = ? AND state = 'forecast'").run(repeatId);

/** A visit is that of a repeat for a date of its rule. */
export const belongToRepeat = ({ sql }: OperationContext, id: number, repeatId: number, date: LocalDate): void =>
  void sql("UPDATE visits SET repeat_id = ?, repeat_date = ? WHERE id = ?").run(repeatId, date, id);

/** Gives visits of a repeat the dates of its rule for which they are; two of them may change theirs with each other. */
export function nameDates(
  { sql }: OperationContext,
  repeatId: number,
  visits: readonly { id: number; repeat_date: LocalDate | null }[],
): void {
  sql("UPDATE visits SET repeat_date = NULL WHERE repeat_id = ? AND id IN (SELECT value FROM json_each(?))").run(
    repeatId,
    JSON.stringify(visits.map(({ id }) => id)),
  );
  for (const { id, repeat_date } of visits) sql("UPDATE visits SET repeat_date = ? WHERE id = ?").run(repeat_date, id);
}

/** So many days have been looked at for room instead of its own. */
export const noteDaysLookedAt = ({ sql }: OperationContext, id: number, days: number): void =>
  void sql("UPDATE visits SET room_days = CAST(? AS INTEGER) WHERE id = ?").run(days, id);

/** Room was looked for, as the plan stood then; it is looked for again when its day changes. */
export const noteRoomAsked = ({ sql }: OperationContext, id: number, version: number): void =>
  void sql("UPDATE visits SET room_asked = CAST(? AS INTEGER), room_days = 0 WHERE id = ?").run(version, id);

/** Room is looked for anew, from its own day on. */
export const lookAnew = ({ sql }: OperationContext, id: number): void =>
  void sql("UPDATE visits SET meet_at = NULL, room_asked = NULL, room_days = 0 WHERE id = ?").run(id);

/** Room is looked for anew for all dates of a repeat. */
export const lookAnewForAll = ({ sql }: OperationContext, repeatId: number): void =>
  void sql("UPDATE visits SET room_asked = NULL, room_days = 0 WHERE repeat_id = ? AND state = 'forecast'").run(
    repeatId,
  );
