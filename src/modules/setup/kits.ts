import { Type, type Static } from "@sinclair/typebox";
import { questionsBy } from "./catalogue";
import { input, Money, Name } from "./common";
import { Checklist, Pattern, SaveService } from "./setup";

const { code, description, minutes, afterMinutes, crew, deposit } = SaveService.properties;

/**
 * A starter kit: a file in kits/. Amounts are hundredths of the currency; skills and extras go by
 * name, within questions too.
 */
export const Kit = input({
  name: Name,
  about: Name,
  windows: Pattern,
  /** Texts to change, taken where the business has none yet. */
  texts: Type.Optional(
    input({
      terms: Type.String({ maxLength: 8000 }),
      quote: Type.String({ maxLength: 8000 }),
      invoice: Type.String({ maxLength: 8000 }),
    }),
  ),
  extras: Type.Array(input({ name: Name, unit: Name, priceMinor: Money, costMinor: Money })),
  services: Type.Array(
    input({
      code,
      name: Name,
      category: Name,
      description,
      priceMinor: Money,
      minutes,
      afterMinutes,
      crew,
      skills: Type.Array(Name),
      deposit,
      questions: questionsBy(Name),
      extras: Type.Array(Name),
      checklist: Type.Optional(Checklist),
    }),
    { minItems: 1 },
  ),
});
export type Kit = Static<typeof Kit>;

/** Takes a kit over: the services chosen, by code, at the business's usual tax rate. */
export const TakeKit = input({
  kit: Type.String({ pattern: "^[a-z-]{1,60}$" }),
  services: Type.Array(Type.String({ maxLength: 2 }), { minItems: 1, maxItems: 100 }),
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
});
