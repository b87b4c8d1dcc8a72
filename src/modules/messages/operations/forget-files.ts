import { dayMs } from "@/core/horizons";
import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

const keptMs = 2 * dayMs;

/** Forgets documents and recordings that have belonged to no message for two days: taken off again, or never sent. */
export const forgetFiles = defineOperation({
  name: "forget-files",
  access: "system",
  input: Nothing,
  run({ sql, now }) {
    sql(
      `DELETE FROM documents WHERE made_at < ?
        AND NOT EXISTS (SELECT 1 FROM messages WHERE photos <> '[]' AND instr(photos, token) > 0)`,
    ).run(now - keptMs);
    sql(
      "DELETE FROM recordings WHERE made_at < ? AND token NOT IN (SELECT recording FROM replies WHERE recording IS NOT NULL)",
    ).run(now - keptMs);
  },
});
