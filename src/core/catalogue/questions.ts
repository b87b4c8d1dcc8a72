import type { Minor } from "../money/amounts";
import type { SkillNeed } from "../windows/skills";

/** Asked while booking. An answer can change price, minutes, skills, crew and extras; a question may be shown only after a certain answer to another. */
export type Question = {
  id: string;
  words: string;
  help?: string;
  /** What its answer is called where it is billed: "Further flue" rather than "How many flues?". */
  billed?: string;
  required: boolean;
  shownIf?: Condition | null;
} & QuestionKind;

type QuestionKind =
  | { kind: "yes-no"; yes?: Effect; no?: Effect }
  | { kind: "one"; choices: Choice[] }
  | { kind: "several"; choices: Choice[] }
  /** A whole number of things: the first `included` are in the price, each further one has the effect. */
  | { kind: "count"; min: number; max: number; included?: number; each?: Effect }
  /** A measure, in steps from `min`; the effect of the bracket it falls into, and that of each unit. */
  | { kind: "number"; min: number; max: number; step: number; unit: string; brackets?: Bracket[]; each?: Effect }
  | { kind: "text"; most: number }
  /** A box to be ticked; where it is required, it must be. */
  | { kind: "tick" }
  /** Pictures, by the tokens under which they are kept. */
  | { kind: "photo"; most: number };

export interface Choice {
  id: string;
  words: string;
  effect?: Effect;
}

/** Up to and including `upTo`; the last bracket has none. */
interface Bracket {
  upTo: number | null;
  effect: Effect;
}

/** What an answer does. Amounts are minor units, per unit where a number is asked. */
export interface Effect {
  price?: { how: "add" | "replace"; minor: Minor } | { how: "percent"; basisPoints: number };
  minutes?: number;
  skills?: SkillNeed[];
  /** At least so many people. */
  crew?: number;
  extras?: { id: string; quantity: number }[];
}

/** Shown where another question is answered like this: yes or no, a choice, or a number within bounds. */
export type Condition = { question: string } & ({ is: boolean | string } | { atLeast?: number; atMost?: number });

/** By question; text is kept, but changes nothing. */
export type Answers = Record<string, Answer>;
export type Answer = boolean | number | string | string[];

/** Answers as a job keeps them: in words, since the questions may change, and as they were given. */
export interface KeptAnswer {
  id: string;
  question: string;
  words: string;
  value: Answers[string];
  /** Tokens of pictures, where they are the answer. */
  photos?: string[];
}

/** The questions that are shown with these answers, in order. A question whose condition is itself not shown stays hidden. */
export function shownQuestions(questions: readonly Question[], answers: Answers): Question[] {
  const shown = new Map<string, Question>();
  for (const question of questions)
    if (!question.shownIf || holds(question.shownIf, shown, answers)) shown.set(question.id, question);
  return [...shown.values()];
}

function holds(condition: Condition, shown: ReadonlyMap<string, Question>, answers: Answers): boolean {
  if (!shown.has(condition.question)) return false;
  const answer = answers[condition.question];
  if (answer === undefined) return false;
  if ("is" in condition) return Array.isArray(answer) ? answer.includes(String(condition.is)) : answer === condition.is;
  return (
    typeof answer === "number" && answer >= (condition.atLeast ?? -Infinity) && answer <= (condition.atMost ?? Infinity)
  );
}

/** Whether the answers say already how many there are: then the service itself is not counted as well. */
export const areCounted = (questions: readonly Question[]): boolean => questions.some((q) => q.kind === "count");

/** Questions that may still be answered when the work is agreed: shown, open, and changing nothing. They are asked by themselves: what an earlier answer asked for is met. */
export const stillOpen = (questions: readonly Question[], answers: Answers): Question[] =>
  shownQuestions(questions, answers)
    .filter((q) => answers[q.id] === undefined && effectsIn(q).length === 0)
    .map((q) => ({ ...q, shownIf: null }));

/** What is wrong with an answer, as a sentence, or null. An unanswered question is wrong where it is required. */
export function answerProblem(question: Question, answer: Answer | undefined): string | null {
  if (answer === undefined || answer === "" || (Array.isArray(answer) && answer.length === 0))
    return question.required ? "Please answer this." : null;
  switch (question.kind) {
    case "yes-no":
      return typeof answer === "boolean" ? null : "Answer yes or no.";
    case "one":
      return question.choices.some((c) => c.id === answer) ? null : "Choose one of the answers.";
    case "several":
      return Array.isArray(answer) && answer.every((a) => question.choices.some((c) => c.id === a))
        ? null
        : "Choose from the answers.";
    case "count":
      return isWhole(answer, 1, 0) ? withinBounds(answer as number, question) : "Enter a whole number.";
    case "number": {
      if (typeof answer !== "number" || !Number.isFinite(answer)) return "Enter a number.";
      return (
        withinBounds(answer, question) ??
        (isWhole(answer, question.step, question.min) ? null : `Enter a number in steps of ${question.step}.`)
      );
    }
    case "photo":
      return Array.isArray(answer) && answer.length <= question.most
        ? null
        : `Send at most ${question.most} ${question.most === 1 ? "photo" : "photos"}.`;
    case "tick":
      return typeof answer !== "boolean" ? "Tick the box." : question.required && !answer ? "Please tick this." : null;
    case "text":
      return typeof answer !== "string"
        ? "Write a few words."
        : answer.length > question.most
          ? `Write at most ${question.most} characters.`
          : null;
  }
}

const withinBounds = (value: number, { min, max }: { min: number; max: number }): string | null =>
  value < min ? `Enter ${min} or more.` : value > max ? `Enter ${max} or less.` : null;

/** Whether a value lies on a step, with room for what binary fractions cannot say. */
const isWhole = (value: unknown, step: number, from: number): boolean => {
  if (typeof value !== "number" || !Number.isFinite(value)) return false;
  const steps = (value - from) / step;
  return Math.abs(steps - Math.round(steps)) < 1e-9;
};

/** Every effect that some answer to the question can have. */
export function effectsIn(question: Question): Effect[] {
  switch (question.kind) {
    case "yes-no":
      return [question.yes, question.no].filter((e) => e !== undefined);
    case "one":
    case "several":
      return question.choices.flatMap((c) => (c.effect ? [c.effect] : []));
    case "count":
      return question.each ? [question.each] : [];
    case "number":
      return [...(question.brackets ?? []).map((b) => b.effect), ...(question.each ? [question.each] : [])];
    default:
      return [];
  }
}

/** The same question with every effect changed: to put ids for names, where a question comes from a file. */
export function mapEffects(question: Question, change: (effect: Effect) => Effect): Question {
  switch (question.kind) {
    case "yes-no":
      return {
        ...question,
        ...(question.yes && { yes: change(question.yes) }),
        ...(question.no && { no: change(question.no) }),
      };
    case "one":
    case "several":
      return {
        ...question,
        choices: question.choices.map((c) => ({ ...c, ...(c.effect && { effect: change(c.effect) }) })),
      };
    case "count":
      return { ...question, ...(question.each && { each: change(question.each) }) };
    case "number":
      return {
        ...question,
        ...(question.each && { each: change(question.each) }),
        ...(question.brackets && { brackets: question.brackets.map((b) => ({ ...b, effect: change(b.effect) })) }),
      };
    default:
      return question;
  }
}

/** An effect that is in force, how many times, and the words it is billed under. */
export interface EffectInForce {
  effect: Effect;
  times: number;
  words: string;
}

/** The effects of the answers to the questions that are shown. Answers that are wrong or missing have none. */
export function effectsOf(questions: readonly Question[], answers: Answers): EffectInForce[] {
  return shownQuestions(questions, answers).flatMap((question): EffectInForce[] => {
    const answer = answers[question.id];
    if (answer === undefined || answerProblem(question, answer)) return [];
    const { billed = question.words } = question;
    const once = (effect: Effect | undefined, words: string): EffectInForce[] =>
      effect ? [{ effect, times: 1, words }] : [];
    switch (question.kind) {
      case "yes-no":
        return once(answer ? question.yes : question.no, billed);
      case "one":
        return once(question.choices.find((c) => c.id === answer)?.effect, wordsOf(question, answer as string));
      case "several":
        return question.choices
          .filter((c) => (answer as string[]).includes(c.id))
          .flatMap((c) => once(c.effect, wordsOf(question, c.id)));
      case "count": {
        const beyond = Math.max(0, (answer as number) - (question.included ?? 0));
        return question.each && beyond > 0 ? [{ effect: question.each, times: beyond, words: billed }] : [];
      }
      case "number": {
        const bracket = question.brackets?.find((b) => b.upTo === null || (answer as number) <= b.upTo);
        return [
          ...once(bracket?.effect, `${billed}: ${String(answer)} ${question.unit}`),
          ...(question.each
            ? [{ effect: question.each, times: answer as number, words: `${billed}, ${question.unit}` }]
            : []),
        ];
      }
      default:
        return [];
    }
  });
}

const wordsOf = ({ words, billed = words, choices }: Question & { choices: Choice[] }, id: string): string =>
  `${billed}: ${choices.find((c) => c.id === id)!.words}`;

/** An answer as people read it, for the office and the technician. */
export function answerWords(question: Question, answer: Answer | undefined): string {
  if (answer === undefined || answer === "") return "not answered";
  switch (question.kind) {
    case "yes-no":
    case "tick":
      return answer ? "yes" : "no";
    case "one":
    case "several":
      return (
        [answer]
          .flat()
          .map((id) => question.choices.find((c) => c.id === id)?.words ?? String(id))
          .join(", ") || "none"
      );
    case "number":
      return `${String(answer)} ${question.unit}`;
    case "photo":
      return `${(answer as string[]).length} ${(answer as string[]).length === 1 ? "photo" : "photos"}`;
    default:
      return String(answer);
  }
}

/** What an effect does, in a few words: "adds €45.00, 30 min, asks for roof access". */
export function effectWords(
  effect: Effect | undefined,
  names: { money: (minor: Minor) => string; skill: (id: string) => string; extra: (id: string) => string },
): string {
  const { price, minutes, crew, skills = [], extras = [] } = effect ?? {};
  const parts = [
    price?.how === "add" &&
      price.minor !== 0 &&
      `${price.minor > 0 ? "adds" : "takes off"} ${names.money(Math.abs(price.minor))}`,
    price?.how === "replace" && `costs ${names.money(price.minor)} instead`,
    price?.how === "percent" &&
      `${price.basisPoints >= 0 ? "adds" : "takes off"} ${Math.abs(price.basisPoints) / 100}%`,
    minutes && `${minutes > 0 ? "" : "−"}${Math.abs(minutes)} min${minutes > 0 ? " more" : ""}`,
    crew && `needs ${crew} people`,
    skills.length && `asks for ${skills.map((s) => names.skill(s.skill)).join(" and ")}`,
    extras.length &&
      `brings ${extras.map((x) => `${x.quantity > 1 ? `${x.quantity} × ` : ""}${names.extra(x.id)}`).join(" and ")}`,
  ];
  return parts.filter(Boolean).join(", ") || "changes nothing";
}
