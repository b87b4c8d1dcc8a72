import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

const RecordDelivery = input({ messageId: Id, state: OneOf(["sent", "bounced", "not known"]) });

export const recordDelivery = defineOperation({
  name: "record-delivery",
  access: "system",
  input: RecordDelivery,
  run: ({ sql, now }, { messageId, state }) =>
    void sql("UPDATE messages SET state = ?, sent_at = ? WHERE id = ? AND state = 'waiting'").run(
      state,
      now,
      messageId,
    ),
});
