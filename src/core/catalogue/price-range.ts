import type { Minor } from "../money/amounts";
import { type OrderedService, priceOrder } from "./order";
import { type Answer, type Answers, type Question, shownQuestions } from "./questions";

/**
 * The least and the most that one of a service costs, whatever is answered, without extras: an estimate for
 * directories. Questions are gone through in their order, each answered with what makes it cheapest or
 * dearest so far; where answers depend on one another, the true ends may lie a little further apart.
 */
export function priceRange(service: OrderedService, pricesIncludeTax: boolean): { least: Minor; most: Minor } {
  const totalWith = (answers: Answers) =>
    priceOrder({
      items: [{ service, quantity: 1, answers, extras: [] }],
      zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
      pricesIncludeTax,
    }).totalMinor;
  const endTowards = (direction: 1 | -1): Minor => {
    let answers: Answers = {};
    for (const { id } of service.questions) {
      // Whether it is asked at all depends on what was answered before.
      const question = shownQuestions(service.questions, answers).find((q) => q.id === id);
      for (const answerAfter of question ? answersAtTheEnds(question) : []) {
        const tried = { ...answers, [id]: answerAfter(answers[id]) };
        const mustBeAnswered = question!.required && answers[id] === undefined;
        if (mustBeAnswered || direction * (totalWith(tried) - totalWith(answers)) > 0) answers = tried;
      }
    }
    return totalWith(answers);
  };
  return { least: endTowards(-1), most: endTowards(1) };
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
