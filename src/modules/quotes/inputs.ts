import { Type, type Static } from "@sinclair/typebox";
import { Items, windowChosen } from "./booking";
import { Id, input, LocalDate, Money, OneOf, OrNull } from "./common";

/** What a quote is made from: what came in, or a quote that is changed. */
export const QuoteAbout = input({ kind: OneOf(["booking", "request", "quote"]), id: Id });

export const QuoteLine = input({
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

export const SendQuote = input({
  about: QuoteAbout,
  /** The services it is made of, which say who may do it. */
  items: Items,
  lines: Type.Array(QuoteLine, { minItems: 1, maxItems: 60 }),
  minutes: Type.Integer({ minimum: 5, maximum: 1440 }),
  crew: Type.Integer({ minimum: 1, maximum: 9 }),
  depositMinor: Money,
  /** What the customer reads above the lines. */
  words: Type.String({ maxLength: 4000 }),
  validUntil: LocalDate,
});
export type SendQuote = Static<typeof SendQuote>;

/** The sealed link of a quote. */
export const QuoteToken = input({ token: Type.String({ maxLength: 100 }) });
/** The total that was read, and a window; without one, when it would suit, for us to find one. */
export const AcceptQuote = input({
  token: QuoteToken.properties.token,
  totalMinor: Money,
  window: OrNull(input(windowChosen)),
  words: Type.String({ maxLength: 1000 }),
});
export const DeclineQuote = input({ token: QuoteToken.properties.token, words: Type.String({ maxLength: 1000 }) });
export const BookQuote = input({ quoteId: Id, ...windowChosen });
export const PutAwayQuotes = input({ ids: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });
