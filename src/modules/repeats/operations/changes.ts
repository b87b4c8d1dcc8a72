import { Refusal } from "@/core/problems";
import { EndMinute, DateText, Id, input, MinuteOfDay, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { beforeChangeColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { agreeDateOf, endPauseOf, pauseOf } from "../agreeing";
import { ChangeRepeat, changeTerms } from "../changing";
import { goesOn, laidOut } from "../repeats";
import { keepBefore } from "../terms";
import { agreedTogether } from "../together";
import { asItStands, bringBack } from "../undoing";

const OneRepeat = input({ repeatId: Id });
/** Left out, on another day, in another window, or both of these; none of them: as the rule says. */
const AgreeDate = input({
  repeatId: Id,
  date: DateText,
  skip: Type.Optional(Type.Boolean()),
  to: Type.Optional(DateText),
  window: Type.Optional(input({ fromMinute: MinuteOfDay, toMinute: EndMinute })),
  /** Who comes if they can, and what is done, this once; null is as usual, and what is not said stays. */
  technicianId: Type.Optional(OrNull(Id)),
  patternId: Type.Optional(OrNull(Id)),
});
const PauseRepeat = input({
  repeatId: Id,
  first: DateText,
  last: DateText,
  together: Type.Optional(Type.Boolean()),
  /** The change of many that this is a part of. */
  batchId: Type.Optional(Id),
});
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
  run: changeTerms,
});

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
  about: { repeatId: "repeat", batchId: "shared" },
  input: PauseRepeat,
  run(context, { repeatId, first, last, together, batchId }) {
    const repeat = goesOn(context, repeatId);
    if (batchId !== undefined) keepBefore(context, repeatId, asItStands(context, repeat), batchId);
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
