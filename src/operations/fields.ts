import { answerProblem, shownQuestions, type Answers } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import { readFrontDoor } from "@/store/front-door";
import { keptAnswers, type KeptAnswer } from "./catalogue";
import type { ViewContext } from "./door";

/** What was answered to the owner's own fields, as a job keeps it; refuses where one is not answered as it must be. */
export function keptAnswersOf(context: ViewContext, answers: Answers): KeptAnswer[] {
  const { fields } = readFrontDoor(context);
  const wrong = shownQuestions(fields, answers).flatMap((field) => {
    const problem = answerProblem(field, answers[field.id]);
    return problem ? [[`/fields/${field.id}`, problem]] : [];
  });
  if (wrong.length) throw new Refusal("invalid-input", { fields: Object.fromEntries(wrong) as Record<string, string> });
  return keptAnswers(fields, answers);
}
