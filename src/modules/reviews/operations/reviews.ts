import { Refusal } from "@/core/problems";
import { starsWords } from "@/core/messages/reviewing";
import { Id, input, Name, OneOf, OrNull } from "@/kernel/inputs";
import { makeShortLink } from "@/kernel/links";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { tellAll } from "@/modules/messages/telling-us";
import { noteOurs, addReply, threadOfCustomer } from "@/modules/messages/threads";
import { wordsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { ReviewToken } from "../inputs";
import { jobsToReview, openReview, readReview, reviewPlaces, type ReviewRow, workOfReview } from "../reviews";
import { saveSettings } from "@/kernel/settings";

const token = ReviewToken.properties.token;
const Words = Type.String({ maxLength: 3_000 });

/** When customers are asked, how often, and where else they may write. */
export const saveReviewRules = defineOperation({
  name: "save-review-rules",
  access: "setup.change",
  input: input({
    when: OneOf(["never", "done", "paid"]),
    hours: Type.Integer({ minimum: 0, maximum: 336 }),
    restDays: Type.Integer({ minimum: 0, maximum: 3650 }),
    places: Type.Array(input({ id: OrNull(Id), name: Name, address: Type.String({ maxLength: 500 }) }), {
      maxItems: 8,
    }),
  }),
  run(context, { when, hours, restDays, places }) {
    const { sql, now, business } = context;
    const fields: Record<string, string> = {};
    for (const [i, { address }] of places.entries())
      if (!isWebAddress(address))
        fields[`/places/${i}/address`] = "Write the whole web address, beginning with https://";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    // Nobody is asked about what was done before it was wanted.
    const since = when === "never" ? null : business.review_when === "never" ? now : (business.review_since ?? now);
    saveSettings(context, {
      review_when: when,
      review_hours: hours,
      review_rest_days: restDays,
      review_since: since,
    });
    sql("DELETE FROM review_places").run();
    for (const [i, { name, address }] of places.entries())
      insertRow(sql, "review_places", { name: name.trim(), address: address.trim(), position: i });
  },
});

function isWebAddress(address: string): boolean {
  try {
    return new URL(address.trim()).protocol === "https:";
  } catch {
    return false;
  }
}

/** Asks the customer of a job how it was; twice is once. */
export const askForReview = defineOperation({
  name: "ask-for-review",
  access: "system",
  input: input({ jobId: Id }),
  run(context, { jobId }) {
    if (!jobsToReview(context, jobId).length) return;
    const { customer_id } = context
      .sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?")
      .get(jobId)!;
    const id = insertRow(context.sql, "reviews", {
      job_id: jobId,
      customer_id,
      nonce: nanoid(32),
      asked_at: context.now,
    });
    makeShortLink(context, { kind: "review", id });
    tellCustomer(context, {
      jobId,
      occasion: "please review",
      about: `job ${jobId}`,
      opens: { kind: "review", id },
    });
  },
});

/** A customer says how it was: what was good and what was not. It may be said anew until one of us has answered. */
export const answerReview = defineOperation({
  name: "answer-review",
  access: "anybody",
  input: input({ token, rating: Type.Integer({ minimum: 1, maximum: 5 }), praise: Words, trouble: Words }),
  run(context, { token, rating, praise, trouble }) {
    const { sql, now } = context;
    const review = openReview(context, token);
    if (review.replied_at !== null)
      throw new Refusal("not-allowed", { sentence: "We have answered this already. Write or call us, please." });
    const said = { praise: praise.trim(), trouble: trouble.trim() };
    if (review.rating === rating && review.praise === said.praise && review.trouble === said.trouble) return;
    sql("UPDATE reviews SET rating = ?, praise = ?, trouble = ?, answered_at = ?, settled_at = NULL WHERE id = ?").run(
      rating,
      said.praise,
      said.trouble,
      now,
      review.id,
    );
    intoConversation(context, review, { rating, ...said });
  },
});

/** What was said stands in the conversation with them; trouble waits there for a person, who is told. */
function intoConversation(
  context: OperationContext,
  review: ReviewRow,
  { rating, praise, trouble }: { rating: number; praise: string; trouble: string },
): void {
  const { sql, now } = context;
  const { what } = workOfReview(context, review.job_id);
  const { name, mail, phone } = sql<{ name: string; mail: string; phone: string }>(
    "SELECT name, mail, phone FROM customers WHERE id = ?",
  ).get(review.customer_id)!;
  const body = [`${starsWords(rating)} for ${what}`, praise, trouble && `Not right: ${trouble}`]
    .filter(Boolean)
    .join("\n");
  const threadId = threadOfCustomer(context, review.customer_id);
  const sender = mail || phone;
  addReply(context, threadId, { customerId: review.customer_id, sender, body, waits: trouble !== "" });
  if (trouble)
    tellAll(context, {
      key: `review ${review.id} at ${now}`,
      what: `${name} tells of trouble with ${what}`,
      who: starsWords(rating),
      more: trouble,
    });
}

/** A customer goes on to write elsewhere. */
export const goToReviewPlace = defineOperation({
  name: "go-to-review-place",
  access: "anybody",
  about: { placeId: "shared" },
  input: input({ token, placeId: Id }),
  run(context, { token, placeId }) {
    const review = openReview(context, token);
    const place = reviewPlaces(context).find(({ id }) => id === placeId);
    if (!place) throw new Refusal("not-found");
    const before = wordsColumn.read(review.went_to);
    if (!before.includes(place.name))
      context
        .sql("UPDATE reviews SET went_to = ? WHERE id = ?")
        .run(wordsColumn.write([...before, place.name]), review.id);
  },
});

/** One of us answers what a customer has said; the customer is told, and trouble is dealt with. */
export const replyToReview = defineOperation({
  name: "reply-to-review",
  access: "board.change of all",
  input: input({
    id: Id,
    words: Type.String({ minLength: 1, maxLength: 3_000, pattern: "\\S", patternSentence: "Write your answer." }),
  }),
  run(context, { id, words }) {
    const { sql, now, actor } = context;
    const review = readReview(context, id);
    if (review.replied_at !== null)
      throw new Refusal("not-allowed", { sentence: `${review.replied_by} has answered this already.` });
    sql(
      "UPDATE reviews SET reply = ?, replied_by = ?, replied_at = ?, settled_at = coalesce(settled_at, ?) WHERE id = ?",
    ).run(words.trim(), actor.kind === "person" ? actor.name : "the office", now, now, id);
    tellCustomer(context, {
      jobId: review.job_id,
      occasion: "review answered",
      about: `review ${id}`,
      fields: { reply: words.trim() },
      opens: { kind: "review", id },
    });
    noteOurs(context, threadOfCustomer(context, review.customer_id), words);
  },
});

/** Somebody has dealt with the trouble in another way, or it is open again. */
export const settleReview = defineOperation({
  name: "settle-review",
  access: "board.change of all",
  input: input({ id: Id, settled: Type.Boolean() }),
  run(context, { id, settled }) {
    readReview(context, id);
    context.sql("UPDATE reviews SET settled_at = ? WHERE id = ?").run(settled ? context.now : null, id);
  },
});
