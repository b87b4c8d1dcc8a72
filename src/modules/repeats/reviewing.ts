import { saidTitle } from "@/store/service-names";
import { fromNotice, noticeOn, type PriceReview, reviewed } from "@/core/repeats/price";
import type { LocalDate } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";
import { tellAboutRepeat } from "@/modules/messages/messaging";
import { needsOf, reviewOf } from "./work";
import type { RepeatRow } from "./terms";

/** The day on which something is to be done about it. */
export function nextReviewLook(repeat: RepeatRow, today: LocalDate): LocalDate | null {
  const review = reviewOf(repeat);
  if (!review) return null;
  const notice = noticeOn(review);
  return repeat.review_told_at === null && notice > today ? notice : review.date;
}

/** Tells the customer of another price in time, and takes it on its day. */
export function lookAfterReview(context: OperationContext, repeat: RepeatRow): void {
  const review = reviewOf(repeat);
  if (!review) return;
  const told =
    repeat.review_told_at === null && noticeOn(review) <= context.today
      ? tellOfReview(context, repeat, review)
      : review;
  if (told.date <= context.today)
    context
      .sql(
        `UPDATE repeats SET price_minor = ?, review_date = NULL, review_bp = NULL, review_notice_days = NULL,
            review_told_at = NULL
          WHERE id = ?`,
      )
      .run(reviewed(repeat.price_minor!, told), repeat.id);
}

function tellOfReview(context: OperationContext, repeat: RepeatRow, agreed: PriceReview): PriceReview {
  const { sql, business, today, now } = context;
  const review = fromNotice(agreed, today);
  sql("UPDATE repeats SET review_told_at = ?, review_date = ? WHERE id = ?").run(now, review.date, repeat.id);
  const price = (minor: number) => ({ minor, currency: business.currency, per: repeat.price_per });
  tellAboutRepeat(context, {
    repeat,
    occasion: "price review",
    about: `repeat ${repeat.id}, ${review.date}`,
    fields: {
      service: saidTitle(sql, needsOf(context, repeat).needs.title),
      day: { date: review.date },
      old: price(repeat.price_minor!),
      price: price(reviewed(repeat.price_minor!, review)),
    },
  });
  return review;
}
