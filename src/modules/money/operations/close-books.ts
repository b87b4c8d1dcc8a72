import { Refusal } from "@/core/problems";
import { DateText, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";

/** Nothing is posted on a day up to this one any more; null opens all of them again. Who has done it stays recorded. */
export const closeBooks = defineOperation({
  name: "close-books",
  access: "books.close",
  input: input({ to: OrNull(DateText) }),
  run({ sql, today }, { to }) {
    if (to !== null && to >= today)
      throw new Refusal("invalid-input", {
        fields: { "/to": "Today is still being worked in: choose a day before it." },
      });
    sql("UPDATE business SET books_closed_to = ?").run(to);
  },
});
