import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { turnsTaken } from "@/core/repeats/gaps";
import { readRule } from "@/core/repeats/recurrence";
import { minuteOn } from "@/core/time/local";
import { dayWords } from "@/core/time/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { withdrawUnsent } from "@/modules/messages/withdrawing";
import { moveByHand } from "@/modules/placing/by-hand";
import { placeVisit } from "@/modules/placing/days";
import { readVisit } from "@/modules/placing/visits";
import type { BeforeChange, StoodBefore } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { addForecast, dropForecast } from "./laying-out";
import { allTerms, replaceTerms, type RepeatRow } from "./terms";
import { workOf } from "./work";
import { setConfirmed } from "@/modules/jobs/visits";
import { nameDates } from "@/modules/jobs/forecasts";

/** Everything of a repeat that a change of its terms may touch, as it is now: its days after today. */
export function asItStands(context: ViewContext, repeat: RepeatRow): BeforeChange {
  const { sql, now, today } = context;
  return {
    at: now,
    lastMessage: sql<{ last: number | null }>("SELECT max(id) AS last FROM messages").get()!.last ?? 0,
    terms: allTerms(context, repeat),
    pauses: sql<NonNullable<BeforeChange["pauses"]>[number]>(
      "SELECT first_date, last_date FROM repeat_pauses WHERE repeat_id = ? ORDER BY id",
    ).all(repeat.id),
    review: reviewColumns(repeat),
    exceptions: sql<BeforeChange["exceptions"][number]>(
      `SELECT date, skip, to_date, from_minute, to_minute, technician_id, pattern_id
        FROM repeat_exceptions WHERE repeat_id = ? ORDER BY date`,
    ).all(repeat.id),
    visits: sql<Omit<StoodBefore, "technicianIds"> & { technicians: string }>(
      `SELECT id, repeat_date, date, window_from, window_to, meet_at, confirmed_at, state,
          (SELECT json_group_array(technician_id) FROM placements WHERE visit_id = v.id) AS technicians
        FROM visits v WHERE repeat_id = ? AND date > ? AND state IN ('forecast', 'promised') ORDER BY id`,
    )
      .all(repeat.id, today)
      .map(({ technicians, ...visit }) => ({ ...visit, technicianIds: JSON.parse(technicians) as number[] })),
  };
}

const reviewColumns = ({ review_date, review_bp, review_notice_days }: RepeatRow) => ({
  review_date,
  review_bp,
  review_notice_days,
});

/**
 * Brings a repeat back to how it stood: terms, what was agreed for single dates, and each visit of a day to come, with its day,
 * window and technicians, as far as there is still room. Whoever was told meanwhile is told again; where that message still
 * waits here, it is taken back and nobody hears of either. What was promised since stays, in place of the nearest date.
 * Refused where a promise cannot be brought back.
 */
export function bringBack(context: OperationContext, repeat: RepeatRow, before: BeforeChange): void {
  const { sql, today } = context;
  for (const { id } of sql<{ id: number }>(
    "SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date > ?",
  ).all(repeat.id, today))
    dropForecast(context, id);
  replaceTerms(context, repeat.id, before.terms, null);
  sql("DELETE FROM repeat_exceptions WHERE repeat_id = ?").run(repeat.id);
  for (const exception of before.exceptions)
    insertRow(sql, "repeat_exceptions", { repeat_id: repeat.id, ...exception });
  pausesBack(context, repeat, before);
  reviewBack(context, repeat, before);
  const ahead = before.visits.filter(({ date }) => date > today);
  const promised = ahead.filter(({ state }) => state === "promised");
  nameDates(context, repeat.id, [...promised, ...promisedSince(context, repeat, before, ahead)]);
  for (const visit of promised) promiseBack(context, visit, before);
  const again = ahead.filter(({ state }) => state === "forecast");
  const work = workOf(context, repeat, again.at(-1)?.repeat_date ?? today);
  for (const visit of again) forecastBack(context, repeat, visit, work);
}

function pausesBack({ sql }: OperationContext, { id }: RepeatRow, { pauses }: BeforeChange): void {
  if (!pauses) return;
  sql("DELETE FROM repeat_pauses WHERE repeat_id = ?").run(id);
  for (const pause of pauses) insertRow(sql, "repeat_pauses", { repeat_id: id, ...pause });
}

/** Refused once the customer has been told of the other price. */
function reviewBack({ sql }: OperationContext, repeat: RepeatRow, { review }: BeforeChange): void {
  if (!review || review.review_date === repeat.review_date) return;
  if (repeat.review_told_at !== null || repeat.review_date === null)
    throw new Refusal("cannot-be-kept", {
      sentence: "The customer has been told of the new price, or pays it already: agree another price instead.",
    });
  sql("UPDATE repeats SET review_date = ?, review_bp = ?, review_notice_days = ? WHERE id = ?").run(
    review.review_date,
    review.review_bp,
    review.review_notice_days,
    repeat.id,
  );
}

/** Visits by the terms in between that are no forecast any more, each with the date for which it stands from now on. */
function promisedSince(
  context: OperationContext,
  repeat: RepeatRow,
  before: BeforeChange,
  ahead: readonly StoodBefore[],
): { id: number; repeat_date: LocalDate | null }[] {
  const promised = ahead.filter(({ state }) => state === "promised");
  const since = context
    .sql<{ id: number; repeat_date: LocalDate }>(
      `SELECT id, repeat_date FROM visits
        WHERE repeat_id = ? AND repeat_date > ? AND state <> 'forecast' AND id NOT IN (SELECT value FROM json_each(?))
        ORDER BY repeat_date`,
    )
    .all(repeat.id, context.today, JSON.stringify(promised.map(({ id }) => id)));
  if (!since.length) return [];
  const { rule, start_date: start } = before.terms.at(-1)!;
  const own = new Set(promised.map(({ repeat_date }) => repeat_date));
  const turns = turnsTaken(
    { rule: readRule(rule), start },
    ahead.flatMap(({ state, repeat_date }) =>
      state === "forecast" && repeat_date && !own.has(repeat_date) ? [repeat_date] : [],
    ),
    since.map(({ repeat_date }) => repeat_date),
  );
  const taken = new Set([...own, ...turns.values()]);
  return since.map(({ id, repeat_date }) => ({
    id,
    repeat_date: turns.get(repeat_date) ?? (taken.has(repeat_date) ? null : repeat_date),
  }));
}

function promiseBack(context: OperationContext, stood: StoodBefore, { lastMessage }: BeforeChange): void {
  const { sql, business } = context;
  const visit = readVisit(context, stood.id);
  if (visit.state !== "promised" || !stood.technicianIds.length) return;
  const here = sql<{ id: number }>("SELECT technician_id AS id FROM placements WHERE visit_id = ?").all(visit.id);
  const isTheSame =
    visit.window_from === stood.window_from &&
    visit.window_to === stood.window_to &&
    here.length === stood.technicianIds.length &&
    here.every(({ id }) => stood.technicianIds.includes(id));
  if (isTheSame) return;
  const silent = withdrawUnsent(context, { visitId: visit.id, kind: "moved", after: lastMessage });
  const minute = (epoch: number) => minuteOn(stood.date, epoch, business.time_zone);
  const place = {
    technicianIds: stood.technicianIds,
    date: stood.date,
    fromMinute: minute(stood.window_from),
    toMinute: minute(stood.window_to),
  };
  onDay(stood.date, () => moveByHand(context, visit, place, { silent }));
  if (silent) setConfirmed(context, visit.id, stood.confirmed_at);
}

/** Has a refusal say of which day it speaks. */
export function onDay<T>(day: LocalDate, act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    throw new Refusal(error.problem.code, { sentence: `${dayWords(day)}: ${error.problem.sentence}` });
  }
}

function forecastBack(
  context: OperationContext,
  repeat: RepeatRow,
  stood: StoodBefore,
  work: ReturnType<typeof workOf>,
): void {
  const { sql } = context;
  const date = stood.repeat_date!;
  const there = sql("SELECT 1 FROM visits WHERE repeat_id = ? AND repeat_date = ?").get(repeat.id, date);
  if (there) return;
  const isFree = sql("SELECT 1 FROM visits WHERE id = ?").get(stood.id) === undefined;
  const id = addForecast(context, repeat, work(date), {
    ...stood,
    repeat_date: date,
    ...(!isFree && { id: undefined }),
  });
  if (!stood.technicianIds.length) return;
  try {
    placeVisit(context, id, stood.technicianIds);
  } catch (error) {
    // Somebody else has its room by now: it looks for another like any that has none.
    if (!(error instanceof Refusal)) throw error;
  }
}
