import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, waysToCount } from "@/core/repeats/counted";
import { waysToCome } from "@/core/repeats/flexible";
import { pricePers } from "@/core/repeats/price";
import { datesOfRule, readRule, ruleText } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input, MinuteOfDay, Money, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { repeatTermsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { agreeDateOf, endPauseOf, pauseOf } from "../agreeing";
import { Leeway, Rule, ruleIn } from "../inputs";
import { goesOn, laidOut } from "../repeats";
import { allTerms, farthest, replaceTerms, termsUpTo } from "../terms";

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
const SetWays = input({
  repeatId: Id,
  comes: OneOf(waysToCome),
  leewayDays: Leeway,
  counted: OneOf(waysToCount),
  /** Null: as the service or the business has it. */
  promiseDays: OrNull(Type.Integer({ minimum: 1, maximum: 120 })),
  asks: OneOf(["customer", "office"]),
});
const SetPrice = input({
  repeatId: Id,
  per: OneOf(pricePers),
  minor: Money,
  visits: Type.Integer({ minimum: 1, maximum: 400 }),
  review: OrNull(
    input({
      date: DateText,
      byBp: Type.Integer({ minimum: -10_000, maximum: 10_000 }),
      noticeDays: Type.Integer({ minimum: 0, maximum: 366 }),
    }),
  ),
});

const countedWords =
  "Counted from the last visit, a rule says only how often: so many days, weeks, months or years. Change the rule first.";

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
    if (repeat.counted === "done" && !canCountFromVisits(rule))
      throw new Refusal("invalid-input", { fields: { "/rule": countedWords } });
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
  run: (context, { repeatId, date, ...agreed }) => agreeDateOf(context, goesOn(context, repeatId), date, agreed),
});

/** Nobody comes from one day to another; what is promised then stays, and is told. */
export const pauseRepeat = defineOperation({
  name: "pause-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: PauseRepeat,
  run: (context, { repeatId, first, last }) => pauseOf(context, goesOn(context, repeatId).id, first, last),
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

/** How its visits come: on their date, near it, or after somebody was asked; from what dates are counted; when they are promised. */
export const setRepeatWays = defineOperation({
  name: "set-repeat-ways",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: SetWays,
  run(context, { repeatId, comes, leewayDays, counted, promiseDays, asks }) {
    const repeat = goesOn(context, repeatId);
    if (counted === "done" && !canCountFromVisits(readRule(repeat.rule)))
      throw new Refusal("invalid-input", { fields: { "/counted": countedWords } });
    context
      .sql("UPDATE repeats SET comes = ?, leeway_days = ?, counted = ?, promise_days = ?, asks = ? WHERE id = ?")
      .run(comes, leewayDays, counted, promiseDays, asks, repeatId);
    return laidOut(context, repeatId);
  },
});

/** What its visits cost from now on, and another price from a day on; visits that are promised keep theirs. */
export const setRepeatPrice = defineOperation({
  name: "set-repeat-price",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: SetPrice,
  run(context, { repeatId, per, minor, visits, review }) {
    const { today, sql } = context;
    goesOn(context, repeatId);
    if (review && per === "catalogue")
      throw new Refusal("invalid-input", {
        fields: {
          "/review": "The catalogue’s price changes with the catalogue. Agree a price of its own to review it.",
        },
      });
    if (review && review.date <= today)
      throw new Refusal("invalid-input", { fields: { "/review/date": "Choose a day after today." } });
    sql(
      `UPDATE repeats SET price_per = ?, price_minor = ?, price_visits = ?, review_date = ?, review_bp = ?,
          review_notice_days = ?, review_told_at = NULL
        WHERE id = ?`,
    ).run(
      per,
      per === "catalogue" ? null : minor,
      per === "month" || per === "year" ? visits : null,
      review?.date ?? null,
      review?.byBp ?? null,
      review?.noticeDays ?? null,
      repeatId,
    );
    return laidOut(context, repeatId);
  },
});
