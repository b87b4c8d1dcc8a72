import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { saveSettings } from "@/kernel/settings";

const MoveClock = input({ minutes: Type.Integer({ minimum: 1, maximum: 60 * 24 * 400 }) });

/** Moves the demo's clock forward, so that tomorrow's reminders can be watched today. */
export const moveClock = defineOperation({
  name: "move-clock",
  access: "office.see",
  input: MoveClock,
  run(context, { minutes }) {
    const { demo_offset_ms: offset } = context.business;
    if (offset === null) throw new Refusal("not-a-demo");
    saveSettings(context, { demo_offset_ms: offset + minutes * 60_000 });
  },
});
