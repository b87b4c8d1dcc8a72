import type { Minor } from "../money/amounts";
import { type OrderedService, priceOrder } from "./order";
import { type Answer, type Answers, type Question, shownQuestions } from "./questions";

/**
 * The least and the most that one of a service costs, whatever is answered, without extras: an estimate for
 * directories, as exact as `answersTowards` is.
 */
export function priceRange(service: OrderedService, pricesIncludeTax: boolean): { least: Minor; most: Minor } {
  const totalWith = (answers: Answers) =>
    priceOrder({
      items: [{ service, quantity: 1, answers, extras: [] }],
      zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
      pricesIncludeTax,
    }).totalMinor;
  const end = (direction: 1 | -1) => totalWith(answersTowards(service.questions, totalWith, direction));
  return { least: end(-1), most: end(1) };
}

/**
 * Answers with which a measure is greatest (1) or least (-1). Questions are gone through in their order, each answered
 * with what moves it furthest so far; where answers depend on one another, the true end may lie a little further.
 */
export function answersTowards(
  questions: readonly Question[],
  measure: (answers: Answers) => number,
  direction: 1 | -1,
): Answers {
  let answers: Answers = {};
  for (const { id } of questions) {
    // Whether it is asked at all depends on what was answered before.
    const question = shownQuestions(questions, answers).find((q) => q.id === id);
    for (const answerAfter of question ? answersAtTheEnds(question) : []) {
      const tried = { ...answers, [id]: answerAfter(answers[id]) };
      const mustBeAnswered = question!.required && answers[id] === undefined;
      if (mustBeAnswered || direction * (measure(tried) - measure(answers)) > 0) answers = tried;
    }
  }
  return answers;
}

/** Answers among which the cheapest and the dearest are, each made from the best one so far. */
function answersAtTheEnds(question: Question): ((best: Answer | undefined) => Answer)[] {
  const just = (answers: Answer[]) => answers.map((answer) => () => answer);
  switch (question.kind) {
    case "yes-no":
      return just([true, false]);
    case "one":
      return just(question.choices.map((c) => c.id));
    // One after the other: each can make it cheaper or dearer.
    case "several":
      return question.choices.map((c) => (best) => [...(Array.isArray(best) ? best : []), c.id]);
    case "count":
      return just([question.min, question.max]);
    case "number": {
      const { min, max, step } = question;
      const onStep = (value: number) => min + Math.floor((value - min) / step) * step;
      const edges = (question.brackets ?? []).flatMap(({ upTo }) =>
        upTo === null ? [] : [onStep(upTo), onStep(upTo) + step],
      );
      return just([...new Set([min, ...edges, onStep(max)])].filter((value) => value >= min && value <= max));
    }
    default:
      return [];
  }
}
