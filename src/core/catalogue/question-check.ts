import type { Condition, Question } from "./questions";

/** What is wrong with a list of questions, by JSON pointer into it: what the shape alone cannot tell. */
export function questionProblems(questions: readonly Question[]): Record<string, string> {
  const problems: Record<string, string> = {};
  questions.forEach((question, i) => {
    const at = `/${i}`;
    if (questions.findIndex((q) => q.id === question.id) < i) problems[at] = "Two questions have the same id.";
    if ((question.kind === "count" || question.kind === "number") && question.max < question.min)
      problems[`${at}/max`] = "The most is less than the least.";
    if (question.kind === "one" || question.kind === "several") {
      if (question.choices.length < 2) problems[`${at}/choices`] = "Give at least two answers to choose from.";
      if (new Set(question.choices.map((c) => c.id)).size < question.choices.length)
        problems[`${at}/choices`] = "Two answers have the same id.";
    }
    if (question.kind === "number" && question.brackets) {
      const ends = question.brackets.map((b) => b.upTo ?? Infinity);
      if (ends.some((end, k) => k > 0 && end <= ends[k - 1]!))
        problems[`${at}/brackets`] = "Brackets go upwards, and only the last is without an end.";
    }
    if (question.shownIf && !canHold(question.shownIf, questions.slice(0, i)))
      problems[`${at}/shownIf`] = "This can never be shown: no earlier question can be answered like that.";
  });
  return problems;
}

/** Whether some earlier question has an answer that makes the condition true. */
function canHold(condition: Condition, earlier: readonly Question[]): boolean {
  const asked = earlier.find((q) => q.id === condition.question);
  if (!asked) return false;
  if ("is" in condition) {
    if (asked.kind === "yes-no") return typeof condition.is === "boolean";
    return (asked.kind === "one" || asked.kind === "several") && asked.choices.some((c) => c.id === condition.is);
  }
  return (
    (asked.kind === "count" || asked.kind === "number") &&
    Math.max(asked.min, condition.atLeast ?? -Infinity) <= Math.min(asked.max, condition.atMost ?? Infinity)
  );
}
