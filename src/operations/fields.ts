import { answerProblem, shownQuestions, type Answers, type Question } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import { keptAnswers, type KeptAnswer } from "./catalogue";
import type { ViewContext } from "./door";

/** The owner's own fields, asked of every customer. */
export const readFields = ({ business }: ViewContext): Question[] => JSON.parse(business.fields) as Question[];

/** What was answered to them, as a job keeps it; refuses where one is not answered as it must be. */
export function keptAnswersOf(context: ViewContext, answers: Answers): KeptAnswer[] {
  const fields = readFields(context);
  const wrong = shownQuestions(fields, answers).flatMap((field) => {
    const problem = answerProblem(field, answers[field.id]);
    return problem ? [[`/fields/${field.id}`, problem]] : [];
  });
  if (wrong.length) throw new Refusal("invalid-input", { fields: Object.fromEntries(wrong) as Record<string, string> });
  return keptAnswers(fields, answers);
}
