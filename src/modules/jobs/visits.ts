import type { LocalDate } from "@/core/time/dates";
import { Refusal } from "@/core/problems";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { insertRow, type NewRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { endPromise } from "./promises";

/** A visit that is not promised: room that is held, or a date of a repeat. Answers its id. */
export const addVisit = (
  { sql }: OperationContext,
  visit: NewRow<"visits"> & { id?: number; state: "held" | "forecast" },
): number => insertRow(sql, "visits", visit);

/** A visit stands so from now on, as the table of states allows it. */
export function setVisitState({ sql }: OperationContext, id: number, to: VisitState): void {
  const { state } = sql<{ state: VisitState }>("SELECT state FROM visits WHERE id = ?").get(id)!;
  if (state === to) return;
  if (!visitStates.follows(to, state)) throw new Refusal("visit-not-open");
  sql("UPDATE visits SET state = ?, held_until = NULL WHERE id = ?").run(to, id);
}

/** A visit is called off, and so is what was promised of it. Whoever was to come is taken out before. */
export function cancelVisits(context: OperationContext, ids: readonly number[]): void {
  for (const id of ids) {
    setVisitState(context, id, "cancelled");
    endPromise(context, id);
  }
}

/** When work on it began and ended, in epoch milliseconds; null where it did not. */
export const noteWork = (
  { sql }: OperationContext,
  id: number,
  { startedAt, endedAt }: { startedAt: number | null; endedAt: number | null },
): void => void sql("UPDATE visits SET started_at = ?, ended_at = ? WHERE id = ?").run(startedAt, endedAt, id);

/** A visit that found nobody home is to take place after all. */
export function goAgain(context: OperationContext, id: number): void {
  setVisitState(context, id, "promised");
  noteWork(context, id, { startedAt: null, endedAt: null });
}

/** Where in time a visit is to be, epoch minutes. */
interface When {
  date: LocalDate;
  from: number;
  to: number;
  meetAt: number | null;
}

/** A visit is to be at another time. What its customer has said of the other one stays, unless that is forgotten. */
export const setVisitTime = ({ sql }: OperationContext, id: number, { date, from, to, meetAt }: When): void =>
  void sql("UPDATE visits SET date = ?, window_from = ?, window_to = ?, meet_at = ? WHERE id = ?").run(
    date,
    from,
    to,
    meetAt,
    id,
  );

/** Which time it shares with others; null: none. */
export const shareTime = ({ sql }: OperationContext, id: number, timeId: number | string | null): void =>
  void sql("UPDATE visits SET shared_id = CAST(? AS INTEGER) WHERE id = ?").run(timeId, id);

/** When the customer has said yes to the time; null: not yet. */
export const setConfirmed = ({ sql }: OperationContext, id: number, at: number | null): void =>
  void sql("UPDATE visits SET confirmed_at = ? WHERE id = ?").run(at, id);

/** The customer says yes to all of these works that are still to come, as far as they have not said so before. */
export const confirmJobs = ({ sql, now }: OperationContext, jobIds: readonly (number | null)[]): void =>
  void sql(
    `UPDATE visits SET confirmed_at = ? WHERE job_id IN (SELECT value FROM json_each(?)) AND confirmed_at IS NULL
      AND state IN ${visitStates.sql("expect")}`,
  ).run(now, JSON.stringify(jobIds));

/** What is ticked of its checklist. */
export const keepChecklist = ({ sql }: OperationContext, id: number, list: readonly object[]): void =>
  void sql("UPDATE visits SET checklist = ? WHERE id = ?").run(JSON.stringify(list), id);

/** In how many months its customer is asked whether it is time again; null: not at all. */
export const setAgainMonths = ({ sql }: OperationContext, id: number, months: number | null): void =>
  void sql("UPDATE visits SET again_months = ? WHERE id = ?").run(months, id);

/** The key with which it was held opens nothing any more. */
export const forgetHoldKey = ({ sql }: OperationContext, id: number): void =>
  void sql("UPDATE visits SET hold_key = NULL WHERE id = ?").run(id);

/** Visits to come at a site are in the zone in which that is now. */
export const rezoneVisits = ({ sql, today }: OperationContext, siteId: number, zoneId: number): void =>
  void sql(
    `UPDATE visits SET zone_id = @zoneId
      WHERE date >= @today AND state IN ('promised', 'forecast') AND work_place = 'site'
        AND (job_id IN (SELECT id FROM jobs WHERE site_id = @siteId) OR repeat_id IN (SELECT id FROM repeats WHERE site_id = @siteId))`,
  ).run({ zoneId, today, siteId });

/** What of a visit follows the repeat that it is of, or the work. */
export type VisitWork = Partial<
  Omit<Rows["visits"], "id" | "state" | "job_id" | "held_until" | "confirmed_at" | "started_at" | "ended_at">
>;

/** A forecast needs something else than before. */
export function changeForecast({ sql }: OperationContext, id: number, work: VisitWork): void {
  const sets = Object.keys(work).map((column) => `${column} = @${column}`);
  sql(`UPDATE visits SET ${sets.join(", ")} WHERE id = @id`).run({ ...work, id });
}
