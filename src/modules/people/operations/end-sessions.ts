import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { mustNotExceed } from "../rights";

/** Ends every session of a person, on all their devices. */
export const endSessions = defineOperation({
  name: "end-sessions",
  access: "people.change",
  input: input({ personId: Id }),
  run(context, { personId }) {
    mustNotExceed(context, personId);
    const { changes } = context
      .sql("UPDATE sessions SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL")
      .run(context.now, personId);
    return { ended: changes };
  },
});
