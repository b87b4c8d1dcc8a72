import { DateText, Id, input, Money, OneOf } from "@/kernel/inputs";
import { OfficeItems, RepeatEveryInput } from "@/modules/catalogue/inputs";
import { type Static, Type } from "@sinclair/typebox";

/** What a quote is made from: what came in, or a quote that is changed. */
export const QuoteAbout = input({ kind: OneOf(["booking", "request", "quote"]), id: Id });

const QuoteLine = input({
  description: Type.String({
    minLength: 1,
    maxLength: 200,
    pattern: "\\S",
    patternSentence: "Say what this line is for.",
  }),
  quantity: Type.Number({ exclusiveMinimum: 0, maximum: 9999 }),
  /** Below nothing where something is taken off. */
  unitMinor: Type.Integer({ minimum: -100_000_000, maximum: 100_000_000 }),
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
});

const work = {
  /** What it is called where there are several to choose from. */
  option: Type.Optional(Type.String({ maxLength: 40 })),
  /** The services it is made of, which say who may do it. */
  items: OfficeItems,
  lines: Type.Array(QuoteLine, { minItems: 1, maxItems: 60 }),
  minutes: Type.Integer({ minimum: 5, maximum: 1440 }),
  crew: Type.Integer({ minimum: 1, maximum: 9 }),
  depositMinor: Money,
};

export const SendQuote = input({
  about: QuoteAbout,
  ...work,
  /** Other ways to do it: the customer chooses one. */
  further: Type.Optional(Type.Array(input(work), { maxItems: 2 })),
  /** Whether the customer signs it when they accept. */
  signs: Type.Optional(Type.Boolean()),
  /** What the customer reads above the lines. */
  words: Type.String({ maxLength: 4000 }),
  validUntil: DateText,
  /** How often it comes back once it is accepted, at this price: once at most. */
  repeats: Type.Optional(Type.Array(RepeatEveryInput, { maxItems: 1 })),
});
export type SendQuote = Static<typeof SendQuote>;

/** The sealed link of a quote. */
export const QuoteToken = input({ token: Type.String({ maxLength: 100 }) });
