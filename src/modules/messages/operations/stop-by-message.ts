import { kindOf, type Occasion, occasions } from "@/core/messages/occasions";
import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { messageOf } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { endChannel } from "../receiving";

/** The reader of a message ends such messages by its link, or takes that back. */
export const stopByMessage = defineOperation({
  name: "stop-by-message",
  access: "anybody",
  input: input({ token: Type.String({ maxLength: 100 }), stop: Type.Boolean() }),
  run(context, { token, stop }) {
    const { sql, now, hogar } = context;
    const id = messageOf(hogar, token);
    const message = id === null ? undefined : sql<Rows["messages"]>("SELECT * FROM messages WHERE id = ?").get(id);
    if (!message) throw new Refusal("link-ended");
    const { purpose } = message.kind in occasions ? kindOf(message.kind as Occasion) : { purpose: "service" };
    if (message.customer_id === null || (purpose !== "offers" && purpose !== "reminders")) {
      if (stop)
        endChannel(context, {
          channel: message.channel,
          address: message.recipient,
          customerId: message.customer_id,
          how: "The link in a message",
        });
      else sql("DELETE FROM stops WHERE channel = ? AND address = ?").run(message.channel, message.recipient);
      return { purpose: "all" as const };
    }
    const given = stop ? 0 : 1;
    const { changes } = sql(`UPDATE customers SET ${purpose} = ? WHERE id = ? AND ${purpose} <> ?`).run(
      given,
      message.customer_id,
      given,
    );
    if (stop) sql(`UPDATE jobs SET ${purpose} = 0 WHERE customer_id = ? AND ${purpose} = 1`).run(message.customer_id);
    if (changes)
      insertRow(sql, "consents", {
        customer_id: message.customer_id,
        kind: purpose,
        given,
        words: stop ? "Ended by the link in a message" : "Taken up again by the link in a message",
        at: now,
      });
    return { purpose };
  },
});
