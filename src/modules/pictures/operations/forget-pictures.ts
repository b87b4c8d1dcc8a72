import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

const keptMs = 2 * 86_400_000;

/** Forgets pictures that have belonged to nothing for two days: sent and not booked with, or replaced. */
export const forgetPictures = defineOperation({
  name: "forget-pictures",
  access: "system",
  input: Nothing,
  run: ({ sql, now }) => ({
    forgotten: sql(
      `DELETE
        FROM images WHERE made_at < ? AND NOT EXISTS (SELECT 1 FROM business WHERE mark = token)
          AND NOT EXISTS (SELECT 1 FROM technicians WHERE photo = token)
          AND NOT EXISTS (SELECT 1 FROM services WHERE picture = token)
          AND NOT EXISTS (SELECT 1 FROM front_door WHERE picture = token)
          AND NOT EXISTS (SELECT 1 FROM job_items WHERE instr(answers, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM jobs WHERE instr(photos, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM requests WHERE instr(photos || items, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM quotes WHERE instr(photos || items, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM additions WHERE instr(photos, token) > 0)`,
    ).run(now - keptMs).changes,
  }),
});
