import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { sessionName } from "../sessions";

/** Ends one of one's own sessions, as the list names it. */
export const endOwnSession = defineOperation({
  name: "end-own-session",
  access: "person",
  input: input({ session: Type.String({ maxLength: 40 }) }),
  run({ sql, actor, hogar }, { session }) {
    if (actor.kind !== "person") throw new Refusal("not-signed-in");
    const own = sql<{ id: string }>("SELECT id FROM sessions WHERE person_id = ? AND ended_at IS NULL").all(actor.id);
    const found = own.find(({ id }) => sessionName(hogar, id) === session);
    if (!found) throw new Refusal("not-found");
    sql("UPDATE sessions SET ended_at = ? WHERE id = ?").run(Date.now(), found.id);
  },
});
