import { dayMs } from "@/core/horizons";
import { lookOf } from "@/core/look/front-door";
import { meanRating } from "@/core/messages/reviewing";
import { localDate } from "@/core/time/local";
import { dayWords } from "@/core/time/words";
import { input, Nothing, OneOf } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { wordsColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { Type } from "@sinclair/typebox";
import { ReviewToken } from "../inputs";
import { openReview, reviewPlaces, type ReviewRow, workOfReview } from "../reviews";

/** What customers have said, newest first. `show`: all of them, trouble that waits, or what nobody has answered. */
export const reviews = defineView({
  name: "reviews",
  access: "office.see of all",
  input: input({ ...pageInput(["at", "rating", "customer"]), show: OneOf(["all", "trouble", "unanswered"]) }),
  read(context, { show, ...asked }) {
    const { rows, count } = readPage(context, asked, {
      from: "FROM reviews r JOIN customers c ON c.id = r.customer_id",
      where: `r.rating IS NOT NULL AND (@like IS NULL OR c.name LIKE @like ESCAPE '\\' OR r.praise LIKE @like ESCAPE '\\' OR r.trouble LIKE @like ESCAPE '\\')
        AND (@show = 'all' OR (@show = 'trouble' AND r.trouble <> '' AND r.settled_at IS NULL) OR (@show = 'unanswered' AND r.replied_at IS NULL))`,
      id: "r.id",
      order: { at: "r.answered_at", rating: "r.rating", customer: "c.name COLLATE NOCASE" },
      params: { like: likePattern(asked.search), show },
    });
    const row = context.sql<ReviewRow & { customer: string }>(
      "SELECT r.*, c.name AS customer FROM reviews r JOIN customers c ON c.id = r.customer_id WHERE r.id = ?",
    );
    return {
      count,
      rows: rows.map((id) => {
        const r = row.get(id)!;
        return {
          id,
          at: localDate(Math.floor(r.answered_at! / 60_000), context.business.time_zone),
          rating: r.rating!,
          customer: r.customer,
          customerId: r.customer_id,
          praise: r.praise,
          trouble: r.trouble,
          reply: r.reply,
          repliedBy: r.replied_by,
          settledAt: r.settled_at,
          wentTo: wordsColumn.read(r.went_to),
          ...workOfReview(context, r.job_id),
        };
      }),
    };
  },
});

/** How we do, on the whole, by technician and by service: the mean of five, of how many; and how many were asked. */
export const reviewFigures = defineView({
  name: "review-figures",
  access: "office.see of all",
  input: input({ days: Type.Integer({ minimum: 7, maximum: 3650 }) }),
  read(context, { days }) {
    const { sql, now } = context;
    const since = now - days * dayMs;
    const rated = "FROM reviews r WHERE r.rating IS NOT NULL AND r.answered_at > @since";
    const { asked, answered, sum, trouble } = sql<{ asked: number; answered: number; sum: number; trouble: number }>(
      `SELECT (SELECT count(*) FROM reviews WHERE asked_at > @since) AS asked, count(*) AS answered, coalesce(sum(r.rating), 0) AS sum,
          count(*) FILTER (WHERE r.trouble <> '') AS trouble ${rated}`,
    ).get({ since })!;
    const by = (query: string) =>
      sql<{ name: string; n: number; sum: number }>(query)
        .all({ since })
        .map(({ name, n, sum }) => ({ name, n, mean: meanRating(sum, n)! }));
    return {
      asked,
      answered,
      trouble,
      mean: meanRating(sum, answered),
      stars: sql<{ rating: number; n: number }>(
        `SELECT r.rating, count(*) AS n ${rated} GROUP BY r.rating ORDER BY 1 DESC`,
      ).all({
        since,
      }),
      technicians: by(
        `SELECT t.name, count(*) AS n, sum(k.rating) AS sum FROM (
            SELECT DISTINCT r.id, r.rating, p.technician_id ${rated.replace("FROM reviews r WHERE", "FROM reviews r JOIN visits v ON v.job_id = r.job_id AND v.state = 'done' JOIN placements p ON p.visit_id = v.id WHERE")}
          ) k JOIN technicians t ON t.id = k.technician_id GROUP BY t.id ORDER BY avg(k.rating) DESC, t.name`,
      ),
      services: by(
        `SELECT s.name, count(*) AS n, sum(k.rating) AS sum FROM (
            SELECT DISTINCT r.id, r.rating, i.service_id ${rated.replace("FROM reviews r WHERE", "FROM reviews r JOIN job_items i ON i.job_id = r.job_id WHERE")}
          ) k JOIN services s ON s.id = k.service_id GROUP BY s.id ORDER BY avg(k.rating) DESC, s.name`,
      ),
    };
  },
});

/** What set-up says of reviews. */
export const reviewSetup = defineView({
  name: "review-setup",
  access: "setup.change",
  input: Nothing,
  read: (context) => ({
    when: context.business.review_when,
    hours: context.business.review_hours,
    restDays: context.business.review_rest_days,
    places: reviewPlaces(context).map((place) => ({ ...place, id: place.id as number | null })),
  }),
});

/** What the link of a customer who was asked shows: the work, what they have said, and our answer. */
export const review = defineView({
  name: "review",
  access: "anybody",
  input: ReviewToken,
  read(context: ViewContext, { token }) {
    const { business, hogar } = context;
    const row = openReview(context, token);
    const { what, date, technicians } = workOfReview(context, row.job_id);
    return {
      business: { name: business.name, mark: business.mark, phone: business.phone },
      look: lookOf(readFrontDoor(hogar.store)),
      what,
      when: date && dayWords(date),
      technicians,
      said: row.rating === null ? null : { rating: row.rating, praise: row.praise, trouble: row.trouble },
      reply: row.replied_at === null ? null : { words: row.reply, by: row.replied_by! },
      places: reviewPlaces(context),
    };
  },
});
