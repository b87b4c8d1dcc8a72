import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import { epochMinute } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import { DateText, EndMinute, Id, MinuteOfDay } from "@/kernel/inputs";
import type { OperationContext } from "@/kernel/operation";
import { type Static, Type } from "@sinclair/typebox";
import { takeOut } from "./days";
import { moveTo } from "./moving";
import { openTime, togetherWith } from "./shared-times";
import { daysOfWork, placingOf, type VisitRow } from "./visits";
import { answersWithin, reasonsInWords } from "./windows";

/** Where a person puts a visit: who, on which day, in which window (minutes of the day). */
export const chosenPlace = {
  technicianIds: Type.Array(Id, { minItems: 1, maxItems: 9, uniqueItems: true }),
  date: DateText,
  fromMinute: MinuteOfDay,
  toMinute: EndMinute,
};
type ChosenPlace = { [K in keyof typeof chosenPlace]: Static<(typeof chosenPlace)[K]> };

/** A following day of work stays between those before and after it: each goes on where the last has stopped. */
function mustKeepOrder({ sql }: OperationContext, { id, first_visit_id: firstId }: VisitRow, date: LocalDate): void {
  if (firstId === null) return;
  const { before, after } = sql<{ before: LocalDate | null; after: LocalDate | null }>(
    `SELECT max(date) FILTER (WHERE id < @id) AS before, min(date) FILTER (WHERE id > @id) AS after
      FROM visits WHERE (id = @firstId OR first_visit_id = @firstId) AND state <> 'cancelled'`,
  ).get({ id, firstId })!;
  if (before !== null && date <= before)
    throw new Refusal("cannot-be-kept", {
      sentence: `The work before it is on ${dayWords(before)}. Choose a day after that, or move the first day: the others go along.`,
    });
  if (after !== null && date >= after)
    throw new Refusal("cannot-be-kept", {
      sentence: `The work after it is on ${dayWords(after)}. Choose a day before that, or move the first day: the others go along.`,
    });
}

/**
 * Moves a visit to other technicians, another window, or both; the first day of work of several days takes the following
 * ones along, and a time that several customers share takes all of them, unless one goes `alone`. What cannot work is
 * refused with the reason; a new window is told to the customer (unless that is `silent`), and the old promise stays in the history.
 */
export function moveByHand(
  context: OperationContext,
  visit: VisitRow,
  { technicianIds, date, fromMinute, toMinute }: ChosenPlace,
  { alone = false, silent = false } = {},
): { told: boolean } {
  const zone = context.business.time_zone;
  if (!visitStates.allows("move", visit.state) && !visitStates.allows("go again", visit.state))
    throw new Refusal("visit-not-open");
  if (toMinute < fromMinute)
    throw new Refusal("invalid-input", { fields: { "/toMinute": "A window ends after it begins." } });
  if (technicianIds.length !== visit.crew)
    throw new Refusal("invalid-input", {
      fields: { "/technicianIds": visit.crew === 1 ? "Choose one technician." : `Choose ${visit.crew} people.` },
    });

  const window = { date, from: epochMinute(date, fromMinute, zone), to: epochMinute(date, toMinute, zone) };
  if (window.to <= context.minute)
    throw new Refusal("cannot-be-kept", { sentence: "This window has passed. Choose one that lies ahead." });
  mustKeepOrder(context, visit, date);
  const days = visit.first_visit_id === null ? daysOfWork(context, visit) : [visit];
  const together = alone ? [visit] : togetherWith(context, visit).filter((v) => visitStates.allows("plan", v.state));
  const seats = together.reduce((sum, v) => sum + v.seats, 0);
  const [answer] = answersWithin(context, placingOf(visit, days.length, seats), [window], {
    strict: false,
    without: [...days, ...together].map((v) => v.id),
    among: technicianIds,
    ...(visit.state === "forecast" && { forecasts: "full" }),
  });
  if (!answer?.offered)
    throw new Refusal("cannot-be-kept", {
      sentence: `This cannot be kept: ${reasonsInWords(context, answer?.reasons ?? []).join("; ") || "the technician is not available"}.`,
    });

  if (visit.shared_id === null) return { told: moveTo(context, days, answer, technicianIds, { silent }) };
  for (const { id } of together) takeOut(context, id);
  // Who goes alone leaves the time to the others.
  const timeId = alone ? openTime(context, visit.service_id) : visit.shared_id;
  const told = together.map((one) => moveTo(context, [one], answer, technicianIds, { timeId }));
  return { told: told.includes(true) };
}
