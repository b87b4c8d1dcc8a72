import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { sendLater } from "../writing";

/** A message that waits for its hour goes now: somebody of the office says so. Consent and STOP count as ever. */
export const sendNow = defineOperation({
  name: "send-now",
  access: "contacts.see",
  about: { threadId: "thread", messageId: "shared" },
  input: input({ threadId: Id, messageId: Id }),
  run(context, { threadId, messageId }) {
    const message = context
      .sql<Rows["messages"]>(
        `SELECT m.* FROM messages m JOIN threads t ON t.id = ?
          WHERE m.id = ? AND m.state = 'waiting' AND (m.thread_id = t.id OR m.customer_id = t.customer_id)`,
      )
      .get(threadId, messageId);
    if (!message) throw new Refusal("not-found", { sentence: "This message does not wait any more." });
    context.sql("UPDATE messages SET at_any_hour = 1 WHERE id = ?").run(messageId);
    sendLater(context, message, 1);
  },
});
