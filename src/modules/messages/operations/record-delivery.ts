import { messageStates } from "@/core/messages/states";
import { isSameMail } from "@/core/people/matching";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { whetherToSend } from "../sending";
import { waitsAgain } from "../threads";
import { sendLater, writeByNext } from "../writing";

const problem = Type.Optional(Type.String({ maxLength: 300 }));

/** How sending a message ended. What could not be sent goes out by the next of its channels. */
export const recordDelivery = defineOperation({
  name: "record-delivery",
  access: "system",
  input: input({
    messageId: Id,
    state: OneOf(["sent", "bounced", "failed", "not known"]),
    reference: Type.Optional(Type.String({ maxLength: 200 })),
    parts: Type.Optional(Type.Integer({ minimum: 0 })),
    problem,
  }),
  run(context, { messageId, state, reference = null, parts = 0, problem: why = "" }) {
    const { changes } = context
      .sql(
        `UPDATE messages SET state = ?, sent_at = ?, reference = ?, parts = ?, problem = ?
          WHERE id = ? AND state = 'waiting'`,
      )
      .run(state, context.now, reference, parts, why, messageId);
    if (!changes || state === "sent") return;
    waitsAgain(context, messageId);
    if (state !== "not known") writeByNext(context, messageId);
  },
});

/** What the verdict at the moment of sending asks for, where that is not to send: it waits, goes another way, or is dropped with the reason. */
export const putOffMessage = defineOperation({
  name: "put-off-message",
  access: "system",
  input: input({ messageId: Id }),
  run(context, { messageId }) {
    const { sql, minute } = context;
    const message = sql<Rows["messages"]>("SELECT * FROM messages WHERE id = ? AND state = 'waiting'").get(messageId);
    if (!message) return;
    const verdict = whetherToSend(context, message);
    if ("goes" in verdict) return;
    if ("waits" in verdict) return sendLater(context, message, (verdict.waits - minute) * 60_000);
    sql("UPDATE messages SET state = 'dropped', problem = ? WHERE id = ?").run(
      "dropped" in verdict ? verdict.dropped : verdict.next,
      messageId,
    );
    waitsAgain(context, messageId);
    if ("next" in verdict) writeByNext(context, messageId);
  },
});

/** What a gateway says later of a message that it has taken: each of its notices counts once, and none takes back a later one. */
export const noteDelivery = defineOperation({
  name: "note-delivery",
  access: "system",
  input: input({
    channel: OneOf(["mail", "text", "voice"]),
    reference: Type.String({ minLength: 1, maxLength: 200 }),
    state: OneOf(["delivered", "opened", "bounced", "failed"]),
    problem,
    /** Whom it says that the message was for, where anybody may have written it: news counts only of a message to them. */
    recipient: Type.Optional(Type.String({ maxLength: 200 })),
  }),
  run(context, { channel, reference, state, problem: why = "", recipient }) {
    const { sql, now } = context;
    const message = sql<Pick<Rows["messages"], "id" | "state" | "recipient">>(
      "SELECT id, state, recipient FROM messages WHERE reference = ? AND channel = ?",
    ).get(reference, channel);
    if (!message || !messageStates.follows(state, message.state)) return;
    if (recipient !== undefined && !isSameMail(recipient, message.recipient)) return;
    sql(
      `UPDATE messages SET state = @state, problem = @why,
          delivered_at = iif(@state IN ('delivered', 'opened'), coalesce(delivered_at, @now), delivered_at),
          opened_at = iif(@state = 'opened', @now, opened_at)
        WHERE id = @id`,
    ).run({ id: message.id, state, why, now });
    if (state !== "bounced" && state !== "failed") return;
    waitsAgain(context, message.id);
    writeByNext(context, message.id);
  },
});

/** A mail was opened, as its own picture tells. */
export const noteOpened = defineOperation({
  name: "note-opened",
  access: "system",
  input: input({ messageId: Id }),
  run({ sql, now }, { messageId }) {
    const message = sql<Pick<Rows["messages"], "state">>("SELECT state FROM messages WHERE id = ?").get(messageId);
    if (!message || !messageStates.follows("opened", message.state)) return;
    sql(
      `UPDATE messages SET state = 'opened', opened_at = ?, delivered_at = coalesce(delivered_at, ?) WHERE id = ?`,
    ).run(now, now, messageId);
  },
});
