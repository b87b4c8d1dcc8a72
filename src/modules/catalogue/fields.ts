import { answerProblem, type Answers, type KeptAnswer, shownQuestions } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import type { ViewContext } from "@/kernel/operation";
import { readFrontDoor } from "@/store/front-door";
import { keptAnswers } from "./job-items";

/** What was answered to the owner's own fields, as a job keeps it; refuses where one is not answered as it must be. */
export function keptAnswersOf(context: ViewContext, answers: Answers): KeptAnswer[] {
  const wrong = fieldProblems(context, answers);
  if (Object.keys(wrong).length) throw new Refusal("invalid-input", { fields: wrong });
  return keptAnswers(readFrontDoor(context).fields, answers);
}

/** What is wrong with the answers to the owner's own fields: sentences by JSON pointer. */
export const fieldProblems = (context: ViewContext, answers: Answers): Record<string, string> =>
  Object.fromEntries(
    shownQuestions(readFrontDoor(context).fields, answers).flatMap((field) => {
      const problem = answerProblem(field, answers[field.id]);
      return problem ? [[`/fields/${field.id}`, problem]] : [];
    }),
  );
