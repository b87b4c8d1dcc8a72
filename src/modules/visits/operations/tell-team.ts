import { Nothing } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { tellTeam as tell } from "../team-messages";

/** Lists, changes and summaries for our own people. */
export const tellTeam = defineOperation({
  name: "tell-team",
  access: "system",
  input: Nothing,
  run: (context) => tell(context),
});
