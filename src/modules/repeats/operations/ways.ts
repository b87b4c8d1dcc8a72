import { Refusal } from "@/core/problems";
import { canCountFromVisits, countedFromVisitsWords, waysToCount } from "@/core/repeats/counted";
import { waysToCome } from "@/core/repeats/flexible";
import { firstPeriod } from "@/core/money/periods";
import { pricePers } from "@/core/repeats/price";
import { readRule } from "@/core/repeats/recurrence";
import type { LocalDate } from "@/core/time/dates";
import { DateText, Id, input, Money, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { itemsByPattern, readJobPattern } from "@/modules/catalogue/job-patterns";
import { itemsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { EveryNth, Leeway } from "../inputs";
import { goesOn, laidOut } from "../repeats";
import { keepBefore, type RepeatRow } from "../terms";
import { asItStands } from "../undoing";
import { patternsOf } from "../work";

const SetWays = input({
  repeatId: Id,
  comes: OneOf(waysToCome),
  leewayDays: Leeway,
  counted: OneOf(waysToCount),
  /** Null: as the service or the business has it. */
  promiseDays: OrNull(Type.Integer({ minimum: 1, maximum: 120 })),
  asks: OneOf(["customer", "office"]),
});
const SetWork = input({
  repeatId: Id,
  /** Null: as it was agreed without one. */
  patternId: OrNull(Id),
  firstPatternId: OrNull(Id),
  nth: OrNull(EveryNth),
});
const Review = input({
  date: DateText,
  byBp: Type.Integer({ minimum: -10_000, maximum: 10_000 }),
  noticeDays: Type.Integer({ minimum: 0, maximum: 366 }),
});
const SetPrice = input({
  repeatId: Id,
  per: OneOf(pricePers),
  minor: Money,
  visits: Type.Integer({ minimum: 1, maximum: 400 }),
  review: OrNull(Review),
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
      throw new Refusal("invalid-input", { fields: { "/counted": countedFromVisitsWords } });
    context
      .sql("UPDATE repeats SET comes = ?, leeway_days = ?, counted = ?, promise_days = ?, asks = ? WHERE id = ?")
      .run(comes, leewayDays, counted, promiseDays, asks, repeatId);
    return laidOut(context, repeatId);
  },
});

/** What is done at its dates: by which job pattern, by another the first time, and every so many times. Answers what it was. */
export const setRepeatWork = defineOperation({
  name: "set-repeat-work",
  access: "board.change",
  about: { repeatId: "repeat", patternId: "shared", firstPatternId: "shared", "nth.patternId": "shared" },
  input: SetWork,
  run(context, { repeatId, patternId, firstPatternId, nth }) {
    const repeat = goesOn(context, repeatId);
    for (const id of [patternId, firstPatternId, nth?.patternId]) if (id != null) readJobPattern(context, id);
    context
      .sql(
        `UPDATE repeats SET pattern_id = ?, first_pattern_id = ?, nth = CAST(? AS INTEGER), nth_pattern_id = ?,
            service_id = coalesce(?, service_id)
          WHERE id = ?`,
      )
      .run(
        patternId,
        firstPatternId,
        nth?.every ?? null,
        nth?.patternId ?? null,
        patternId === null ? itemsColumn.read(repeat.items)[0]!.serviceId : mainService(context, patternId),
        repeatId,
      );
    return { before: patternsOf(repeat), ...laidOut(context, repeatId) };
  },
});

const mainService = (context: OperationContext, patternId: number): number =>
  itemsByPattern(readJobPattern(context, patternId))[0].serviceId;

/** What its visits cost from now on, and another price from a day on; visits that are promised keep theirs. */
export const setRepeatPrice = defineOperation({
  name: "set-repeat-price",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: SetPrice,
  run(context, { repeatId, per, minor, visits, review }) {
    const { today, sql } = context;
    const repeat = goesOn(context, repeatId);
    checkReview(context, per, review);
    sql(
      `UPDATE repeats SET price_per = ?, price_minor = ?, price_visits = ?, review_date = ?, review_bp = ?,
          review_notice_days = ?, review_told_at = NULL, bill_from = ?, bill_since = ?
        WHERE id = ?`,
    ).run(
      per,
      per === "catalogue" ? null : minor,
      per === "month" || per === "year" ? visits : null,
      review?.date ?? null,
      review?.byBp ?? null,
      review?.noticeDays ?? null,
      billFrom(repeat, per, today),
      billSince(repeat, per, today),
      repeatId,
    );
    return laidOut(context, repeatId);
  },
});

/** Another price from a day on, for a repeat that has one of its own; as a part of a change of many. */
export const reviewRepeatPrice = defineOperation({
  name: "review-repeat-price",
  access: "board.change",
  about: { repeatId: "repeat", batchId: "shared" },
  input: input({ repeatId: Id, review: Review, batchId: Id }),
  run(context, { repeatId, review, batchId }) {
    const repeat = goesOn(context, repeatId);
    checkReview(context, repeat.price_per, review);
    keepBefore(context, repeatId, asItStands(context, repeat), batchId);
    context
      .sql(
        "UPDATE repeats SET review_date = ?, review_bp = ?, review_notice_days = ?, review_told_at = NULL WHERE id = ?",
      )
      .run(review.date, review.byBp, review.noticeDays, repeatId);
    return laidOut(context, repeatId);
  },
});

function checkReview(
  { today }: OperationContext,
  per: RepeatRow["price_per"],
  review: (typeof Review)["static"] | null,
): void {
  if (review && per === "catalogue")
    throw new Refusal("invalid-input", {
      fields: {
        "/review": "The catalogue’s price changes with the catalogue. Agree a price of its own to review it.",
      },
    });
  if (review && review.date <= today)
    throw new Refusal("invalid-input", { fields: { "/review/date": "Choose a day after today." } });
}

/** The day from which a flat price is agreed: its first date, or today; as before where it is paid for the same stretch. */
const billSince = (repeat: RepeatRow, per: RepeatRow["price_per"], today: LocalDate): LocalDate | null =>
  per !== "month" && per !== "year"
    ? null
    : repeat.price_per === per
      ? repeat.bill_since
      : repeat.start_date > today
        ? repeat.start_date
        : today;

/** From when a flat price is billed: as before where it is paid for the same stretch, else from this month, or from today for a year. */
const billFrom = (repeat: RepeatRow, per: RepeatRow["price_per"], today: LocalDate): LocalDate | null =>
  per !== "month" && per !== "year"
    ? null
    : repeat.price_per === per && repeat.bill_from !== null
      ? repeat.bill_from
      : firstPeriod(repeat.start_date > today ? repeat.start_date : today, per);
