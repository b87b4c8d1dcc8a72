import { Refusal } from "@/core/problems";
import { checkInput } from "@/kernel/check-input";
import { input, Money, Name } from "@/kernel/inputs";
import { Checklist, Pattern, questionsBy, SaveService } from "@/modules/catalogue/inputs";
import { type Static, Type } from "@sinclair/typebox";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";

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

/** Starter kits are files in kits/: anyone can add one. */
const folder = (): string => path.join(process.cwd(), "kits");

export const kitNames = (): string[] =>
  existsSync(folder())
    ? readdirSync(folder())
        .filter((file) => file.endsWith(".json"))
        .map((file) => file.slice(0, -5))
        .sort()
    : [];

export function readKit(name: string): Kit {
  if (!kitNames().includes(name)) throw new Refusal("not-found");
  return checkInput(Kit, JSON.parse(readFileSync(path.join(folder(), `${name}.json`), "utf8"))) as Kit;
}
