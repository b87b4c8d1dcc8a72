import { Type, type Static, type TString } from "@sinclair/typebox";
import { Id, input, Money, Name, OneOf, OrNull } from "./common";

/** Questions as core/catalogue/questions.ts has them. */
const QuestionId = Type.String({
  pattern: "^[a-z0-9-]{1,40}$",
  patternSentence: "Small letters, figures and hyphens.",
});
const Basis = Type.Integer({ minimum: -10_000, maximum: 100_000 });
const effectOf = (Ref: TString) =>
  input({
    price: Type.Optional(
      Type.Union([
        input({ how: OneOf(["add", "replace"]), minor: Type.Integer({ minimum: -100_000_000, maximum: 100_000_000 }) }),
        input({ how: Type.Literal("percent"), basisPoints: Basis }),
      ]),
    ),
    minutes: Type.Optional(Type.Integer({ minimum: -600, maximum: 600 })),
    skills: Type.Optional(
      Type.Array(input({ skill: Ref, level: Type.Optional(Type.Integer({ minimum: 1, maximum: 3 })) }), {
        maxItems: 10,
      }),
    ),
    crew: Type.Optional(Type.Integer({ minimum: 1, maximum: 9 })),
    extras: Type.Optional(
      Type.Array(input({ id: Ref, quantity: Type.Integer({ minimum: 1, maximum: 999 }) }), { maxItems: 20 }),
    ),
  });
const Condition = Type.Union([
  input({ question: QuestionId, is: Type.Union([Type.Boolean(), Type.String({ maxLength: 40 })]) }),
  input({ question: QuestionId, atLeast: Type.Optional(Type.Number()), atMost: Type.Optional(Type.Number()) }),
]);
const common = {
  id: QuestionId,
  words: Name,
  help: Type.Optional(Type.String({ maxLength: 200 })),
  billed: Type.Optional(Name),
  required: Type.Boolean(),
  shownIf: Type.Optional(OrNull(Condition)),
};
const Whole = Type.Integer({ minimum: 0, maximum: 100_000 });
const Measure = Type.Number({ minimum: 0, maximum: 1_000_000 });

/** Questions whose effects name skills and extras by `Ref`: by id in the database, by name in files. */
export function questionsBy(Ref: TString) {
  const Effect = effectOf(Ref);
  const Choices = Type.Array(input({ id: QuestionId, words: Name, effect: Type.Optional(Effect) }), { maxItems: 40 });
  return Type.Array(
    Type.Union([
      input({ ...common, kind: Type.Literal("yes-no"), yes: Type.Optional(Effect), no: Type.Optional(Effect) }),
      input({ ...common, kind: Type.Literal("one"), choices: Choices }),
      input({ ...common, kind: Type.Literal("several"), choices: Choices }),
      input({
        ...common,
        kind: Type.Literal("count"),
        min: Whole,
        max: Whole,
        included: Type.Optional(Whole),
        each: Type.Optional(Effect),
      }),
      input({
        ...common,
        kind: Type.Literal("number"),
        min: Measure,
        max: Measure,
        step: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
        unit: Type.String({ maxLength: 12 }),
        brackets: Type.Optional(Type.Array(input({ upTo: OrNull(Measure), effect: Effect }), { maxItems: 12 })),
        each: Type.Optional(Effect),
      }),
      input({ ...common, kind: Type.Literal("text"), most: Type.Integer({ minimum: 1, maximum: 2000 }) }),
      input({ ...common, kind: Type.Literal("tick") }),
      input({ ...common, kind: Type.Literal("photo"), most: Type.Integer({ minimum: 1, maximum: 6 }) }),
    ]),
    { maxItems: 40 },
  );
}
export const Questions = questionsBy(Type.String({ pattern: "^\\d+$" }));

export const SaveExtra = input({
  id: OrNull(Id),
  name: Name,
  unit: Type.String({ minLength: 1, maxLength: 20 }),
  priceMinor: Money,
  costMinor: Money,
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
  active: Type.Boolean(),
});
export type SaveExtra = Static<typeof SaveExtra>;

/** Prices of many services at once: a share up or down, and how they are rounded. */
export const ChangePrices = input({
  serviceIds: Type.Array(Id, { minItems: 1, maxItems: 1000, uniqueItems: true }),
  basisPoints: Type.Integer({ minimum: -9000, maximum: 100_000 }),
  rounding: OneOf(["0.10", "0.50", "1", "5", "ending in 9"]),
});
/** Prices put back as they were, by service. */
export const SetPrices = input({
  prices: Type.Array(input({ serviceId: Id, priceMinor: Money }), { minItems: 1, maxItems: 1000 }),
});
