import { messageStates } from "@/core/messages/states";
import { Refusal } from "@/core/problems";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { putAgain, writeByNext } from "../writing";

/** A person deals with a message that did not get through, or of which nobody knows: it goes out again, by the next of its channels, or its reader was told otherwise. */
export const settleLost = defineOperation({
  name: "settle-lost",
  access: "board.change of all",
  input: input({ messageId: Id, how: OneOf(["again", "next", "told"]) }),
  run(context, { messageId, how }) {
    const { sql, now } = context;
    const message = sql<Rows["messages"]>(
      `SELECT * FROM messages WHERE id = ? AND state IN ${messageStates.sql("lost")} AND settled_at IS NULL`,
    ).get(messageId);
    if (!message) throw new Refusal("not-found", { sentence: "Somebody has dealt with this message." });
    sql("UPDATE messages SET settled_at = ? WHERE id = ?").run(now, messageId);
    if (how === "again") putAgain(context, message);
    if (how === "next" && !writeByNext(context, messageId))
      throw new Refusal("not-allowed", { sentence: "There is no other way left to send it: call them." });
  },
});
