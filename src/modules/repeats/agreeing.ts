import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { askAbout } from "./asking";
import { datesOfRepeat } from "./dates";
import { laidOut } from "./repeats";
import type { RepeatRow } from "./terms";

/**
 * What is agreed for one date: left out, on another day, in another window (minutes of the day), or both; nothing: as the
 * rule says. Who comes and what is done stay as they were agreed for it where nothing is said of them; null is as usual.
 */
export interface AgreedDate {
  skip?: boolean;
  to?: LocalDate;
  window?: { fromMinute: number; toMinute: number };
  technicianId?: number | null;
  patternId?: number | null;
}

/** Agrees something for one date that is not promised yet. Answers how many dates lie ahead. */
export function agreeDateOf(
  context: OperationContext,
  repeat: RepeatRow,
  date: LocalDate,
  { skip = false, to, window, technicianId, patternId }: AgreedDate,
): { forecasts: number } {
  const { sql, today, now } = context;
  if (date <= today) throw new Refusal("invalid-input", { fields: { "/date": "What has been, stays." } });
  if (skip && to)
    throw new Refusal("invalid-input", { fields: { "/to": "It is left out, or on another day: not both." } });
  if (to && to <= today) throw new Refusal("invalid-input", { fields: { "/to": "Choose a day after today." } });
  if (window && window.toMinute < window.fromMinute)
    throw new Refusal("invalid-input", { fields: { "/window": "A window ends after it begins." } });
  const visit = sql<{ state: string }>("SELECT state FROM visits WHERE repeat_id = ? AND repeat_date = ?").get(
    repeat.id,
    date,
  );
  if (visit && visit.state !== "forecast")
    throw new Refusal("visit-not-open", {
      sentence: "This one is promised already. Move or cancel the visit itself: its customer is told then.",
    });
  if (!visit && datesOfRepeat(context, repeat, () => true, date, date).length === 0)
    throw new Refusal("not-found", { sentence: "This is not a date of this repeat." });
  const before = sql<Rows["repeat_exceptions"]>(
    "DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ? RETURNING *",
  ).get(repeat.id, date);
  const agreed = {
    skip: skip ? (1 as const) : (0 as const),
    to_date: to ?? null,
    from_minute: window?.fromMinute ?? null,
    to_minute: window?.toMinute ?? null,
    technician_id: technicianId === undefined ? (before?.technician_id ?? null) : technicianId,
    pattern_id: patternId === undefined ? (before?.pattern_id ?? null) : patternId,
  };
  if (Object.values(agreed).some((value) => value !== null && value !== 0))
    insertRow(sql, "repeat_exceptions", { repeat_id: repeat.id, date, ...agreed });
  if (skip && askAbout(context, repeat.id, date))
    sql("UPDATE repeat_asks SET state = 'declined', answered_at = ? WHERE repeat_id = ? AND date = ?").run(
      now,
      repeat.id,
      date,
    );
  return laidOut(context, repeat.id);
}

/** Nobody comes from one day to another; what is promised then stays. */
export function pauseOf(
  context: OperationContext,
  repeatId: number,
  first: LocalDate,
  last: LocalDate,
): { pauseId: number; promised: number; forecasts: number } {
  const { sql, today } = context;
  if (last < first || last <= today)
    throw new Refusal("invalid-input", {
      fields: { "/last": last < first ? "A pause ends after it begins." : "This has passed already." },
    });
  const pauseId = insertRow(sql, "repeat_pauses", { repeat_id: repeatId, first_date: first, last_date: last });
  const { n } = sql<{ n: number }>(
    "SELECT count(*) AS n FROM visits WHERE repeat_id = ? AND state = 'promised' AND repeat_date BETWEEN ? AND ?",
  ).get(repeatId, first, last)!;
  return { pauseId, promised: n, ...laidOut(context, repeatId) };
}

export function endPauseOf({ sql }: OperationContext, repeatId: number, pauseId: number): void {
  if (sql("DELETE FROM repeat_pauses WHERE id = ? AND repeat_id = ?").run(pauseId, repeatId).changes === 0)
    throw new Refusal("not-found");
}
