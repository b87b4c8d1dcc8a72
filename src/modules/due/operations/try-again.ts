import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { forgetFailed } from "@/kernel/piece-by-piece";

const text = Type.String({ minLength: 1, maxLength: 500 });

/** What failed by itself for one cause is tried again at the next turn of the worker. */
export const tryAgain = defineOperation({
  name: "try-again",
  access: "board.change of all",
  input: input({ job: text, problem: text }),
  run: ({ hogar }, { job, problem }) => forgetFailed(hogar, job, problem),
});
