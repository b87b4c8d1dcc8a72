import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { confirmVisits, visitsOfReply } from "../receiving";

/** Somebody of the office has read an answer, and it was a yes: the visits that it is about are confirmed, and its customer is told. */
export const takeAsYes = defineOperation({
  name: "take-as-yes",
  access: "contacts.see",
  about: { threadId: "thread", replyId: "shared" },
  input: input({ threadId: Id, replyId: Id }),
  run(context, { threadId, replyId }) {
    const reply = context
      .sql<Rows["replies"]>("SELECT * FROM replies WHERE id = ? AND thread_id = ?")
      .get(replyId, threadId);
    if (!reply) throw new Refusal("not-found");
    const visits = visitsOfReply(context, reply);
    if (!visits.length)
      throw new Refusal("visit-not-open", {
        sentence: "No visit that could be confirmed lies ahead of this customer.",
      });
    confirmVisits(context, visits, replyId);
    context.sql("UPDATE threads SET waiting_since = NULL, unread = 0 WHERE id = ?").run(threadId);
    return { confirmed: visits.length };
  },
});
