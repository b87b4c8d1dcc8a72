import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

/** Ends every session of a person, on all their devices. */
export const endSessions = defineOperation({
  name: "end-sessions",
  access: "people.change",
  input: input({ personId: Id }),
  run: ({ sql, now }, { personId }) => ({
    ended: sql("UPDATE sessions SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL").run(now, personId).changes,
  }),
});
