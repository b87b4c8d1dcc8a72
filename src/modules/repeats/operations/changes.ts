import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, countedFromVisitsWords } from "@/core/repeats/counted";
import { beginsAfter } from "@/core/repeats/gaps";
import { firstFrom } from "@/core/repeats/left";
import { datesOfRule, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import { DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { beforeChangeColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { agreeDateOf, endPauseOf, pauseOf } from "../agreeing";
import { Rule, ruleIn } from "../inputs";
import { promisedFrom, takeAlong } from "../promised-along";
import { goesOn, laidOut } from "../repeats";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "../terms";
import { agreedTogether, layOutSoon } from "../together";
import { asItStands, bringBack } from "../undoing";

const OneRepeat = input({ repeatId: Id });
export const ChangeRepeat = input({
  repeatId: Id,
  /** From this day on; the rule begins with its first date from here. */
  from: DateText,
  rule: Rule,
  fromMinute: MinuteOfDay,
  toMinute: MinuteOfDay,
  technicianId: OrNull(Id),
  onClosed: OneOf(onClosedWays),
  /** What is promised from that day on: stays, and the new terms begin after it (as long as nothing is said); or moves along, and is told. */
  promised: Type.Optional(OneOf(["stays", "moves"])),
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
 * Other terms from a date on, or from after what is promised there. What came before stays by the terms it had, and the
 * forecasts from there on are laid out anew; what is promised stays as it is or moves along, never both. A rule for so many
 * visits counts from there. `undo-repeat-change` takes it back.
 */
export const changeRepeat = defineOperation({
  name: "change-repeat",
  access: "board.change",
  about: { repeatId: "repeat", technicianId: "shared", batchId: "shared" },
  input: ChangeRepeat,
  run(
    context,
    { repeatId, from, rule: text, fromMinute, toMinute, technicianId, onClosed, together, batchId, promised },
  ) {
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
    const anew = (one: RepeatRow, window: Pick<RepeatRow, "from_minute" | "to_minute">): boolean => {
      const before = asItStands(context, one);
      const visits = promisedFrom(context, one.id, from);
      const begins = promised === "moves" ? from : beginsFrom(context, one, rule, from);
      const start = firstFrom({ ...rule, count: null }, begins, begins);
      if (!start)
        throw new Refusal("invalid-input", { fields: { "/rule": "This rule has no date from that day on." } });
      const then = {
        ...window,
        until_date: farthest,
        start_date: start,
        rule: ruleText(rule),
        technician_id: technicianId,
        on_closed: onClosed,
      };
      replaceTerms(context, one.id, [...termsUpTo(before.terms, begins), then], before, batchId);
      if (promised !== "moves" || !visits.length) return false;
      const dates = datesOfRule(rule, start, start, addDays(start, 3660), visits.length);
      if (dates.length < visits.length)
        throw new Refusal("invalid-input", {
          fields: { "/rule": `${visits.length} visits are promised from that day on: this rule has fewer dates.` },
        });
      return takeAlong(context, one.id, visits, dates);
    };
    let told = anew(repeat, { from_minute: fromMinute, to_minute: toMinute });
    for (const one of together ? agreedTogether(context, repeat) : []) {
      told = anew(one, one) || told;
      layOutSoon(context, one.id);
    }
    return { told, ...laidOut(context, repeatId) };
  },
});

/** The day from which new terms count where what is promised stays: the one that is wished for, or one after the last promise. */
function beginsFrom(context: OperationContext, repeat: RepeatRow, rule: Recurrence, from: LocalDate): LocalDate {
  const last = promisedFrom(context, repeat.id, from).at(-1)?.repeat_date;
  if (!last) return from;
  const terms = allTerms(context, repeat);
  const old = terms.find(({ until_date }) => last <= until_date)!;
  const after = beginsAfter(last, { rule: readRule(old.rule), start: old.start_date }, { rule, start: from });
  return after > from ? after : from;
}

/** Takes the last change of a repeat's terms back: all is as it was before it. Whoever was told of another time is told once more. */
export const undoRepeatChange = defineOperation({
  name: "undo-repeat-change",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run(context, { repeatId }) {
    const repeat = goesOn(context, repeatId);
    if (!repeat.before_change)
      throw new Refusal("not-found", { sentence: "Nothing has been changed that could be taken back." });
    bringBack(context, repeat, beforeChangeColumn.read(repeat.before_change));
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
