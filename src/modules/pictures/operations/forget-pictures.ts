import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

const keptMs = 2 * 86_400_000;
// What customers have sent off with something, and what people of the office have added, is looked at for two days more and then kept:
// so that a year of pictures is not looked through every hour.

/** Forgets pictures that have belonged to nothing for two days: sent and not booked with, or replaced. What went along with something is kept with it. */
export const forgetPictures = defineOperation({
  name: "forget-pictures",
  access: "system",
  input: Nothing,
  run: ({ sql, now }) => ({
    forgotten: sql(
      `DELETE
        FROM images WHERE made_at < @before AND (used = 0 OR purpose <> 'answer' OR made_at > @since)
          AND NOT EXISTS (SELECT 1 FROM business WHERE mark = token)
          AND NOT EXISTS (SELECT 1 FROM technicians WHERE photo = token)
          AND NOT EXISTS (SELECT 1 FROM services WHERE picture = token)
          AND NOT EXISTS (SELECT 1 FROM front_door WHERE picture = token)
          AND NOT EXISTS (SELECT 1 FROM job_items WHERE instr(answers, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM jobs WHERE instr(photos, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM requests WHERE instr(photos || items, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM quotes WHERE instr(photos || items, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM additions WHERE instr(photos, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM replies WHERE instr(photos, token) > 0)
          AND NOT EXISTS (SELECT 1 FROM messages WHERE photos <> '[]' AND instr(photos, token) > 0)`,
    ).run({ before: now - keptMs, since: now - 2 * keptMs }).changes,
  }),
});
