import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";

const MoveClock = input({ minutes: Type.Integer({ minimum: 1, maximum: 60 * 24 * 400 }) });

/** Moves the demo's clock forward, so that tomorrow's reminders can be watched today. */
export const moveClock = defineOperation({
  name: "move-clock",
  access: "office.see",
  input: MoveClock,
  run({ sql, business }, { minutes }) {
    if (business.demo_offset_ms === null) throw new Refusal("not-a-demo");
    sql("UPDATE business SET demo_offset_ms = demo_offset_ms + ?").run(minutes * 60_000);
  },
});
