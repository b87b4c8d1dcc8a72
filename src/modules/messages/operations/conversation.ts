import { templateProblems } from "@/core/messages/templates";
import { Refusal } from "@/core/problems";
import { upper } from "@/core/words";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { mustHandle } from "@/modules/people/people";
import { claimPhotos, isKeptPhoto, lostPhoto } from "@/modules/pictures/photos";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { ChannelName } from "../inputs";
import { languageOf, linkPlaceholder } from "../messaging";
import { reachOf, whyNotWords } from "../reach";
import { joinThread, noteOurs, threadOfCustomer, whoIsIn } from "../threads";
import { put } from "../writing";

const Words = Type.String({
  minLength: 1,
  maxLength: 4_000,
  pattern: "\\S",
  patternSentence: "Write something first.",
});
const OneThread = input({ threadId: Id });
const about = { threadId: "thread" } as const;

/** Begins the conversation with a customer, where there is none yet. */
export const openThread = defineOperation({
  name: "open-thread",
  access: "contacts.see",
  about: { customerId: "customer" },
  input: input({ customerId: Id }),
  run: (context, { customerId }) => {
    if (!context.sql("SELECT 1 FROM customers WHERE id = ? AND erased_at IS NULL").get(customerId))
      throw new Refusal("not-found");
    return { threadId: threadOfCustomer(context, customerId) };
  },
});

/** Somebody of the office writes, by hand, once a key. `{{my_link}}` stands for the customer's own page. */
export const writeByHand = defineOperation({
  name: "write-by-hand",
  access: "contacts.see",
  about,
  input: input({
    threadId: Id,
    channel: ChannelName,
    subject: Type.String({ maxLength: 200 }),
    body: Words,
    photos: Type.Array(Type.String({ maxLength: 60 }), { maxItems: 6 }),
    documents: Type.Optional(Type.Array(Type.String({ maxLength: 60 }), { maxItems: 4 })),
    key: Type.String({ minLength: 8, maxLength: 60 }),
  }),
  run(context, { threadId, channel, subject, body, photos, documents = [], key }) {
    const { sql, business, actor } = context;
    const who = mustBeThere(context, threadId);
    const recipient = channel === "mail" ? who.mail : who.phone;
    const fields: Record<string, string> = {};
    const { whyNot } = reachOf(context, who).find((way) => way.channel === channel)!;
    // What bounced before may be tried again: the number may be in order by now.
    if (whyNot && whyNot !== "bounced") fields["/channel"] = `${upper(whyNotWords[whyNot])}.`;
    if (channel === "mail" && !subject.trim()) fields["/subject"] = "Write what the email is called.";
    const [wrong] = templateProblems(body, ["my_link"]);
    if (wrong) fields["/body"] = wrong;
    const [wrongSubject] = templateProblems(subject, []);
    if (wrongSubject) fields["/subject"] = wrongSubject;
    if (!photos.every((token) => isKeptPhoto(context, token))) fields["/photos"] = lostPhoto;
    if (channel !== "mail" && (photos.length || documents.length))
      fields["/photos"] = "Photos and documents go by email only.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    claimPhotos(context, photos);
    const job = sql<{ id: number }>(
      "SELECT id FROM jobs WHERE customer_id = ? ORDER BY state = 'agreed' DESC, id DESC LIMIT 1",
    ).get(who.customerId);
    if (body.includes(linkPlaceholder) && !job)
      throw new Refusal("invalid-input", {
        fields: { "/body": "They have no page of their own yet: nothing is booked." },
      });
    put(context, {
      occasion: `by hand ${key} ${channel}`,
      kind: "by hand",
      channel,
      customer_id: who.customerId,
      thread_id: who.customerId === null ? threadId : null,
      job_id: job?.id ?? null,
      visit_id: null,
      window_from: null,
      repeat_id: null,
      invoice_id: null,
      opens: null,
      recipient,
      language: languageOf(business, who.language),
      subject: subject.trim(),
      body: body.trim(),
      photos: JSON.stringify([...photos, ...documents]),
      channels_left: "[]",
      fields: null,
      at_any_hour: 1,
      written_by: actor.kind === "person" ? actor.name : "the office",
    });
    noteOurs(context, threadId, body);
  },
});

const mustBeThere = (context: OperationContext, threadId: number) => {
  const who = whoIsIn(context, threadId);
  if (!who) throw new Refusal("not-found");
  return who;
};

/** A note for inside: in a conversation, or about a visit for the team. */
export const writeNote = defineOperation({
  name: "write-note",
  access: "notes.see",
  about: { threadId: "thread", visitId: "visit" },
  input: input({ threadId: OrNull(Id), visitId: OrNull(Id), words: Words }),
  run({ sql, now, actor }, { threadId, visitId, words }) {
    if ((threadId === null) === (visitId === null)) throw new Refusal("bad-request");
    insertRow(sql, "notes", {
      thread_id: threadId,
      visit_id: visitId,
      words: words.trim(),
      written_by: actor.kind === "person" ? actor.name : "the office",
      at: now,
    });
  },
});

/** Somebody has looked at what came in. */
export const readThread = defineOperation({
  name: "read-thread",
  access: "contacts.see",
  about,
  input: OneThread,
  run: ({ sql }, { threadId }) => void sql("UPDATE threads SET unread = 0 WHERE id = ? AND unread = 1").run(threadId),
});

/** Nothing waits any more, though nobody has answered; or it waits again. */
export const settleThread = defineOperation({
  name: "settle-thread",
  access: "contacts.see",
  about,
  input: input({ threadId: Id, done: Type.Boolean() }),
  run: ({ sql, now }, { threadId, done }) =>
    void sql(
      `UPDATE threads SET waiting_since = iif(@done, NULL, coalesce(waiting_since, @now)), unread = 0, snoozed_until = NULL
        WHERE id = @threadId`,
    ).run({ threadId, now, done: done ? 1 : 0 }),
});

/** It comes up again at this moment (epoch milliseconds); null: now. */
export const snoozeThread = defineOperation({
  name: "snooze-thread",
  access: "contacts.see",
  about,
  input: input({ threadId: Id, until: OrNull(Type.Integer({ minimum: 0 })) }),
  run({ sql, now }, { threadId, until }) {
    if (until !== null && until <= now)
      throw new Refusal("invalid-input", { fields: { "/until": "Choose a time that is still to come." } });
    sql("UPDATE threads SET snoozed_until = ?, waiting_since = coalesce(waiting_since, ?) WHERE id = ?").run(
      until,
      now,
      threadId,
    );
  },
});

/** Who answers it: somebody who may, or nobody. */
export const takeThread = defineOperation({
  name: "take-thread",
  access: "contacts.see",
  about: { ...about, personId: "shared" },
  input: input({ threadId: Id, personId: OrNull(Id) }),
  run(context, { threadId, personId }) {
    mustHandle(context, personId);
    context.sql("UPDATE threads SET handler_id = ? WHERE id = ?").run(personId, threadId);
  },
});

/** Whoever wrote is this customer: the conversation is theirs from now on. */
export const matchThread = defineOperation({
  name: "match-thread",
  access: "customers.change",
  about: { ...about, customerId: "customer" },
  input: input({ threadId: Id, customerId: Id }),
  run(context, { threadId, customerId }) {
    const who = mustBeThere(context, threadId);
    if (who.customerId !== null) throw new Refusal("in-use", { sentence: "This conversation has its customer." });
    if (
      !context.sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").get(customerId)
    )
      throw new Refusal("not-found");
    return { threadId: joinThread(context, threadId, customerId) };
  },
});
