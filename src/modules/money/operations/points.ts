import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { pointsOf } from "../points";
import { saveSettings } from "@/kernel/settings";

const Minor = Type.Integer({ minimum: 1, maximum: 1_000_000 });

/** What points are given for and worth; null: there are none. Points that somebody has stay theirs. */
export const saveLoyalty = defineOperation({
  name: "save-loyalty",
  access: "setup.change",
  input: input({
    /** One point for so much that is paid. */
    perMinor: OrNull(Minor),
    worthMinor: Minor,
    least: Type.Integer({ minimum: 1, maximum: 1_000_000 }),
  }),
  run(context, { perMinor, worthMinor, least }) {
    if (perMinor !== null && worthMinor > perMinor)
      throw new Refusal("invalid-input", {
        fields: { "/worthMinor": "A point would be worth more than what is paid for it." },
      });
    saveSettings(context, { point_per_minor: perMinor, point_minor: worthMinor, points_least: least });
  },
});

/** Points that somebody of the office gives or takes, with why. */
export const givePoints = defineOperation({
  name: "give-points",
  access: "money.change",
  about: { customerId: "customer" },
  input: input({
    customerId: Id,
    points: Type.Integer({ minimum: -1_000_000, maximum: 1_000_000 }),
    words: Type.String({ minLength: 1, maxLength: 200, pattern: "\\S", patternSentence: "Say what they are for." }),
  }),
  run(context, { customerId, points, words }) {
    const { sql, now } = context;
    if (!sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").get(customerId))
      throw new Refusal("not-found");
    const has = pointsOf(context, customerId);
    if (points === 0 || has + points < 0)
      throw new Refusal("invalid-input", {
        fields: { "/points": points === 0 ? "How many points?" : `They have ${Math.max(0, has)} points.` },
      });
    insertRow(sql, "points", { customer_id: customerId, kind: "by hand", points, words: words.trim(), at: now });
  },
});
