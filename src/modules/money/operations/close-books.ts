import { Refusal } from "@/core/problems";
import { DateText, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { saveSettings } from "@/kernel/settings";

/** Nothing is posted on a day up to this one any more; null opens all of them again. Who has done it stays recorded. */
export const closeBooks = defineOperation({
  name: "close-books",
  access: "books.close",
  input: input({ to: OrNull(DateText) }),
  run(context, { to }) {
    if (to !== null && to >= context.today)
      throw new Refusal("invalid-input", {
        fields: { "/to": "Today is still being worked in: choose a day before it." },
      });
    saveSettings(context, { books_closed_to: to });
  },
});
