import { kindOf, type Occasion, occasions } from "@/core/messages/occasions";
import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { messageOf } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { endChannel } from "../receiving";
import { agreeWithNone } from "@/modules/jobs/work";
import { noteConsent, setAgreed } from "@/modules/customers/consents";

/** The reader of a message ends such messages by its link, or takes that back. */
export const stopByMessage = defineOperation({
  name: "stop-by-message",
  access: "anybody",
  input: input({ token: Type.String({ maxLength: 100 }), stop: Type.Boolean() }),
  run(context, { token, stop }) {
    const { sql, hogar } = context;
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
    if (stop) agreeWithNone(context, message.customer_id, purpose);
    if (setAgreed(context, message.customer_id, purpose, !stop))
      noteConsent(context, message.customer_id, {
        kind: purpose,
        given: !stop,
        words: stop ? "Ended by the link in a message" : "Taken up again by the link in a message",
      });
    return { purpose };
  },
});
