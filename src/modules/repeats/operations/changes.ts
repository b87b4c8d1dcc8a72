import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, countedFromVisitsWords } from "@/core/repeats/counted";
import { datesOfRule, ruleText } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { repeatTermsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { agreeDateOf, endPauseOf, pauseOf } from "../agreeing";
import { Rule, ruleIn } from "../inputs";
import { goesOn, laidOut } from "../repeats";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "../terms";
import { agreedTogether, layOutSoon } from "../together";

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
  /** Those that were agreed together with it too; each keeps its window. */
  together: Type.Optional(Type.Boolean()),
  /** The change of many that this is a part of. */
  batchId: Type.Optional(Id),
});
/** Left out, on another day, in another window, or both of these; none of them: as the rule says. */
const AgreeDate = input({
  repeatId: Id,
  date: DateText,
  skip: Type.Optional(Type.Boolean()),
  to: Type.Optional(DateText),
  window: Type.Optional(input({ fromMinute: MinuteOfDay, toMinute: MinuteOfDay })),
  /** Who comes if they can, and what is done, this once; null is as usual, and what is not said stays. */
  technicianId: Type.Optional(OrNull(Id)),
  patternId: Type.Optional(OrNull(Id)),
});
const PauseRepeat = input({ repeatId: Id, first: DateText, last: DateText, together: Type.Optional(Type.Boolean()) });
const EndPause = input({ repeatId: Id, pauseId: Id });

/**
 * Other terms from a date on. What came before stays by the terms it had, what is promised stays as it is, and the
 * forecasts from there on are laid out anew. `undo-repeat-change` takes it back.
 */
export const changeRepeat = defineOperation({
  name: "change-repeat",
  access: "board.change",
  about: { repeatId: "repeat", technicianId: "shared", batchId: "shared" },
  input: ChangeRepeat,
  run(context, { repeatId, from, rule: text, fromMinute, toMinute, technicianId, onClosed, together, batchId }) {
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
    if (repeat.counted === "done" && !canCountFromVisits(rule))
      throw new Refusal("invalid-input", { fields: { "/rule": countedFromVisitsWords } });
    const [start] = datesOfRule({ ...rule, count: null }, from, from, addDays(from, 3660), 1);
    if (!start) throw new Refusal("invalid-input", { fields: { "/rule": "This rule has no date from that day on." } });
    const anew = (one: RepeatRow, window: Pick<RepeatRow, "from_minute" | "to_minute">) => {
      const terms = allTerms(context, one);
      const then = {
        ...window,
        until_date: farthest,
        start_date: start,
        rule: ruleText(rule),
        technician_id: technicianId,
        on_closed: onClosed,
      };
      replaceTerms(context, one.id, [...termsUpTo(terms, from), then], terms, batchId);
    };
    anew(repeat, { from_minute: fromMinute, to_minute: toMinute });
    for (const one of together ? agreedTogether(context, repeat) : []) {
      anew(one, one);
      layOutSoon(context, one.id);
    }
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
  about: { repeatId: "repeat", technicianId: "shared", patternId: "shared" },
  input: AgreeDate,
  run: (context, { repeatId, date, ...agreed }) => agreeDateOf(context, goesOn(context, repeatId), date, agreed),
});

/** Nobody comes from one day to another; what is promised then stays, and is told. */
export const pauseRepeat = defineOperation({
  name: "pause-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: PauseRepeat,
  run(context, { repeatId, first, last, together }) {
    const repeat = goesOn(context, repeatId);
    const others = together ? agreedTogether(context, repeat) : [];
    const pauses = others.map(({ id }) => ({ repeatId: id, pauseId: pauseOf(context, id, first, last).pauseId }));
    const own = pauseOf(context, repeat.id, first, last);
    return { ...own, pauses: [{ repeatId: repeat.id, pauseId: own.pauseId }, ...pauses] };
  },
});

export const endPause = defineOperation({
  name: "end-pause",
  access: "board.change",
  about: { repeatId: "repeat", pauseId: "shared" },
  input: EndPause,
  run(context, { repeatId, pauseId }) {
    endPauseOf(context, goesOn(context, repeatId).id, pauseId);
    return laidOut(context, repeatId);
  },
});
