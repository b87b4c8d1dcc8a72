import { onClosedWays } from "@/core/repeats/coming";
import { waysToCount } from "@/core/repeats/counted";
import { waysToCome } from "@/core/repeats/flexible";
import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import { DateText, Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { lookAfterAsks } from "../asking";
import { Leeway, Rule, ruleIn } from "../inputs";
import { forecast } from "../laying-out";
import { duePromises, promiseForecast } from "../promising";
import { beginRepeat, goesOn, laidOut, openDate, readRepeat, stopRepeat, takeUpRepeat } from "../repeats";
import { lookAfterReview } from "../reviewing";
import type { RepeatRow } from "../terms";
import { agreedTogether } from "../together";

const MakeRepeat = input({
  visitId: Id,
  rule: Rule,
  onClosed: Type.Optional(OneOf(onClosedWays)),
  /** As the service has it, where nothing is said. */
  comes: Type.Optional(OneOf(waysToCome)),
  leewayDays: Type.Optional(Leeway),
  counted: Type.Optional(OneOf(waysToCount)),
});
const OneRepeat = input({ repeatId: Id });
const EndRepeat = input({
  repeatId: Id,
  reason: Type.Optional(Type.String({ maxLength: 300 })),
  /** Those that were agreed together with it too. */
  together: Type.Optional(Type.Boolean()),
});
const PromiseDate = input({ repeatId: Id, date: DateText });

/** Makes a visit come back: the same service, site and window by a rule from its date on. */
export const makeRepeat = defineOperation({
  name: "make-repeat",
  access: "board.change",
  about: { visitId: "visit" },
  input: MakeRepeat,
  run: (context, { visitId, rule, ...ways }) => {
    const read = ruleIn(rule);
    return beginRepeat(context, visitId, { rule: () => read, ...ways });
  },
});

/** Looks again for room for the dates of a repeat that have none. Answers how many lie ahead. */
export const lookForRoom = defineOperation({
  name: "look-for-room",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => laidOut(context, goesOn(context, repeatId).id),
});

/** Ends a repeat: its forecasts go, its promised visits stay. */
export const endRepeat = defineOperation({
  name: "end-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: EndRepeat,
  run(context, { repeatId, reason = "", together }) {
    const repeat = readRepeat(context, repeatId);
    for (const { id } of together ? agreedTogether(context, repeat) : []) stopRepeat(context, id, reason);
    stopRepeat(context, repeat.id, reason);
  },
});

/** Takes up a repeat that was ended. */
export const resumeRepeat = defineOperation({
  name: "resume-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => ({ forecasts: takeUpRepeat(context, repeatId) }),
});

/** Promises a date by hand, before it would be by itself; its customer is told. */
export const promiseDate = defineOperation({
  name: "promise-date",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: PromiseDate,
  run(context, { repeatId, date }) {
    const repeat = goesOn(context, repeatId);
    promiseForecast(context, openDate(context, repeatId, date), repeat);
    return laidOut(context, repeatId);
  },
});

/** Looks after one repeat: keeps its forecasts ahead, turns those whose time has come into visits, asks whoever is asked first, and takes prices that were reviewed. Answers whether there is more to do at once: that is another transaction’s. */
export const growRepeat = defineOperation({
  name: "grow-repeat",
  access: "system",
  input: OneRepeat,
  run(context, { repeatId }) {
    const { sql, today } = context;
    const repeat = readRepeat(context, repeatId);
    if (repeat.state !== "active") return { agreed: 0, more: false };
    // A forecast that found no room until its day had passed is history.
    sql(
      `DELETE
        FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date < ?
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = visits.id)`,
    ).run(repeatId, today);
    lookAfterReview(context, repeat);
    if (repeat.comes === "ask") lookAfterAsks(context, repeat);
    const { more } = forecast(context, readRepeat(context, repeatId));
    const due = duePromises(context, repeat);
    for (const id of due) promiseForecast(context, id, readRepeat(context, repeatId));
    if (hasRunOut(context, readRepeat(context, repeatId))) stopRepeat(context, repeatId, "Its last date has passed");
    return { agreed: due.length, more: more || due.length > 0 };
  },
});

/** Whether a rule that ends has no date any more, nothing of it is open, and nobody waits for an answer. */
function hasRunOut({ sql, today }: OperationContext, { id, rule, start_date }: RepeatRow): boolean {
  const read = readRule(rule);
  if (read.count === null && read.until === null) return false;
  const isOpen = `SELECT 1 FROM visits WHERE repeat_id = ? AND (state = 'forecast' OR state IN ${visitStates.sql("expect")})`;
  return (
    datesOfRule(read, start_date, addDays(today, 1), addDays(today, 3660), 1).length === 0 &&
    !sql(isOpen).get(id) &&
    !sql("SELECT 1 FROM repeat_asks WHERE repeat_id = ? AND state IN ('asked', 'for us')").get(id)
  );
}
