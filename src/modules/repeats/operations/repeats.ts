import { agreeDaysAhead } from "@/core/horizons";
import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { datesOfRule, OddRule, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { priceItems, readItem } from "@/modules/catalogue/catalogue";
import { tellCustomer } from "@/modules/messages/messaging";
import type { ZoneRules } from "@/modules/place/zones";
import { itemsColumn, repeatTermsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { datesOfRepeat, forecast } from "../laying-out";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "../terms";
import { beginRepeat, readRepeat, stopRepeat, takeUpRepeat } from "../repeats";

/** A recurrence rule of RFC 5545. */
const Rule = Type.String({ minLength: 1, maxLength: 300 });
const MakeRepeat = input({ visitId: Id, rule: Rule, onClosed: Type.Optional(OneOf(onClosedWays)) });
const OneRepeat = input({ repeatId: Id });
const ChangeRepeat = input({
  repeatId: Id,
  /** From this day on; the rule begins with its first date from here. */
  from: DateText,
  rule: Rule,
  fromMinute: MinuteOfDay,
  toMinute: MinuteOfDay,
  technicianId: OrNull(Id),
  onClosed: OneOf(onClosedWays),
});
/** Left out, on another day, in another window, or both of these; none of them: as the rule says. */
const AgreeDate = input({
  repeatId: Id,
  date: DateText,
  skip: Type.Optional(Type.Boolean()),
  to: Type.Optional(DateText),
  window: Type.Optional(input({ fromMinute: MinuteOfDay, toMinute: MinuteOfDay })),
});
const PauseRepeat = input({ repeatId: Id, first: DateText, last: DateText });
const EndPause = input({ repeatId: Id, pauseId: Id });

function ruleIn(text: string): Recurrence {
  try {
    return readRule(text);
  } catch (error) {
    if (!(error instanceof OddRule)) throw error;
    throw new Refusal("invalid-input", { fields: { "/rule": error.message } });
  }
}

/** Makes a visit come back: the same service, site and window by a rule from its date on. */
export const makeRepeat = defineOperation({
  name: "make-repeat",
  access: "board.change",
  about: { visitId: "visit" },
  input: MakeRepeat,
  run: (context, { visitId, rule, onClosed }) => {
    const read = ruleIn(rule);
    return beginRepeat(context, visitId, { rule: () => read, onClosed });
  },
});

/**
 * Other terms from a date on. What came before stays by the terms it had, what is promised stays as it is, and the
 * forecasts from there on are laid out anew. `undo-repeat-change` takes it back.
 */
export const changeRepeat = defineOperation({
  name: "change-repeat",
  access: "board.change",
  about: { repeatId: "repeat", technicianId: "shared" },
  input: ChangeRepeat,
  run(context, { repeatId, from, rule: text, fromMinute, toMinute, technicianId, onClosed }) {
    const { today } = context;
    const repeat = goesOn(context, repeatId);
    const rule = ruleIn(text);
    const wrong: Record<string, string> | null =
      from <= today
        ? { "/from": "Choose a day after today: what was, stays." }
        : toMinute < fromMinute
          ? { "/toMinute": "A window ends after it begins." }
          : null;
    if (wrong) throw new Refusal("invalid-input", { fields: wrong });
    const [start] = datesOfRule({ ...rule, count: null }, from, from, addDays(from, 3660), 1);
    if (!start) throw new Refusal("invalid-input", { fields: { "/rule": "This rule has no date from that day on." } });
    const terms = allTerms(context, repeat);
    replaceTerms(
      context,
      repeatId,
      [
        ...termsUpTo(terms, from),
        {
          until_date: farthest,
          start_date: start,
          rule: ruleText(rule),
          from_minute: fromMinute,
          to_minute: toMinute,
          technician_id: technicianId,
          on_closed: onClosed,
        },
      ],
      terms,
    );
    return laidOut(context, repeatId);
  },
});

/** Takes the last change of a repeat's terms back: all of them are as they were before it. */
export const undoRepeatChange = defineOperation({
  name: "undo-repeat-change",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run(context, { repeatId }) {
    const { terms_before: before } = goesOn(context, repeatId);
    if (!before) throw new Refusal("not-found", { sentence: "Nothing has been changed that could be taken back." });
    replaceTerms(context, repeatId, repeatTermsColumn.read(before), null);
    return laidOut(context, repeatId);
  },
});

/** What is agreed for one date of a repeat that is not promised yet; saying nothing of it takes back what was. */
export const agreeRepeatDate = defineOperation({
  name: "agree-repeat-date",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: AgreeDate,
  run(context, { repeatId, date, skip = false, to, window }) {
    const { sql, today } = context;
    const repeat = goesOn(context, repeatId);
    if (date <= today) throw new Refusal("invalid-input", { fields: { "/date": "What has been, stays." } });
    if (skip && to)
      throw new Refusal("invalid-input", { fields: { "/to": "It is left out, or on another day: not both." } });
    if (to && to <= today) throw new Refusal("invalid-input", { fields: { "/to": "Choose a day after today." } });
    if (window && window.toMinute < window.fromMinute)
      throw new Refusal("invalid-input", { fields: { "/window": "A window ends after it begins." } });
    const visit = sql<{ state: string }>("SELECT state FROM visits WHERE repeat_id = ? AND repeat_date = ?").get(
      repeatId,
      date,
    );
    if (visit && visit.state !== "forecast")
      throw new Refusal("visit-not-open", {
        sentence: "This one is promised already. Move or cancel the visit itself: its customer is told then.",
      });
    if (!visit && datesOfRepeat(context, repeat, () => true, date, date).length === 0)
      throw new Refusal("not-found", { sentence: "This is not a date of this repeat." });
    sql("DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ?").run(repeatId, date);
    if (skip || to || window)
      insertRow(sql, "repeat_exceptions", {
        repeat_id: repeatId,
        date,
        skip: skip ? 1 : 0,
        to_date: to ?? null,
        from_minute: window?.fromMinute ?? null,
        to_minute: window?.toMinute ?? null,
      });
    return laidOut(context, repeatId);
  },
});

/** Nobody comes from one day to another; what is promised then stays, and is told. */
export const pauseRepeat = defineOperation({
  name: "pause-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: PauseRepeat,
  run(context, { repeatId, first, last }) {
    const { sql, today } = context;
    goesOn(context, repeatId);
    if (last < first || last <= today)
      throw new Refusal("invalid-input", {
        fields: { "/last": last < first ? "A pause ends after it begins." : "This has passed already." },
      });
    const pauseId = insertRow(sql, "repeat_pauses", { repeat_id: repeatId, first_date: first, last_date: last });
    const { n } = sql<{ n: number }>(
      "SELECT count(*) AS n FROM visits WHERE repeat_id = ? AND state = 'promised' AND repeat_date BETWEEN ? AND ?",
    ).get(repeatId, first, last)!;
    return { pauseId, promised: n, ...laidOut(context, repeatId) };
  },
});

export const endPause = defineOperation({
  name: "end-pause",
  access: "board.change",
  about: { repeatId: "repeat", pauseId: "shared" },
  input: EndPause,
  run(context, { repeatId, pauseId }) {
    goesOn(context, repeatId);
    context.sql("DELETE FROM repeat_pauses WHERE id = ? AND repeat_id = ?").run(pauseId, repeatId);
    return laidOut(context, repeatId);
  },
});

function goesOn(context: OperationContext, repeatId: number): RepeatRow {
  const repeat = readRepeat(context, repeatId);
  if (repeat.state !== "active")
    throw new Refusal("visit-not-open", { sentence: "This repeat has ended. Resume it first." });
  return repeat;
}

const laidOut = (context: OperationContext, repeatId: number): { forecasts: number } => ({
  forecasts: forecast(context, readRepeat(context, repeatId)),
});

/** Ends a repeat: its forecasts go, its promised visits stay. */
export const endRepeat = defineOperation({
  name: "end-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => stopRepeat(context, readRepeat(context, repeatId).id),
});

/** Takes up a repeat that was ended. */
export const resumeRepeat = defineOperation({
  name: "resume-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => ({ forecasts: takeUpRepeat(context, repeatId) }),
});

/** Looks after one repeat: keeps its forecasts ahead, and turns those whose time has come into visits. */
export const growRepeat = defineOperation({
  name: "grow-repeat",
  access: "system",
  input: OneRepeat,
  run(context, { repeatId }) {
    const { sql, today } = context;
    const repeat = readRepeat(context, repeatId);
    if (repeat.state !== "active") return { agreed: 0 };
    // A forecast that found no room until its day had passed is history.
    sql(
      `DELETE
        FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date < ?
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = visits.id)`,
    ).run(repeatId, today);
    forecast(context, repeat);
    const due = sql<{ id: number }>(
      `SELECT v.id FROM visits v WHERE v.repeat_id = ? AND v.state = 'forecast' AND v.date BETWEEN ? AND ?
       AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY v.date`,
    ).all(repeatId, today, addDays(today, agreeDaysAhead));
    for (const { id } of due) agreeForecast(context, id, repeat);
    return { agreed: due.length };
  },
});

function agreeForecast(context: OperationContext, visitId: number, repeat: RepeatRow): void {
  const { sql } = context;
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const zone =
    sql<ZoneRules>("SELECT z.* FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.id = ?").get(repeat.site_id) ??
    null;
  const jobId = agreeJob(context, {
    visitId,
    customerId: repeat.customer_id,
    siteId: repeat.site_id,
    items,
    order: priceItems(context, items, zone),
    note: "",
    depositMinor: 0,
    bookedBy: `repeat ${repeat.id}`,
  });
  tellCustomer(context, { jobId, occasion: "coming again", about: `visit ${visitId}` });
}
