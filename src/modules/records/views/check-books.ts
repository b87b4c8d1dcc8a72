import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { firstBroken, lawsOf } from "../laws";

/** Every law of the data, computed now, as `hogar check` does: how many there are, and the first that is broken. */
export const checkBooks = defineView({
  name: "check-books",
  access: "money.see of all",
  input: Nothing,
  read: ({ sql }) => ({ laws: lawsOf(sql).length, broken: firstBroken(sql) }),
});
