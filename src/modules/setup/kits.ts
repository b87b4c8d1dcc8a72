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

interface Known {
  code: string;
  name: string;
  category: string;
}

/**
 * A service of a kit beside those there are: null where it is one of them, by its name and its code or category.
 * What only has the name of another is called by its category too, and what only has its code gets one that is free.
 */
export function besideKnown(service: Known, known: readonly Known[]): Pick<Known, "code" | "name"> | null {
  const is = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const other = `${service.name}, ${service.category}`;
  const named = known.find(({ name }) => is(name, service.name));
  if (known.some(({ name }) => is(name, other))) return null;
  if (named && (is(named.code, service.code) || is(named.category, service.category))) return null;
  const taken = new Set(known.map(({ code }) => code.toUpperCase()));
  const free = [
    service.code,
    ...letters.map((l) => service.code[0]! + l),
    ...letters.flatMap((a) => letters.map((b) => a + b)),
  ];
  const code = free.find((one) => !taken.has(one.toUpperCase()));
  return code === undefined ? null : { code, name: named ? other : service.name };
}
const letters = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"];

export function readKit(name: string): Kit {
  if (!kitNames().includes(name)) throw new Refusal("not-found");
  return checkInput(Kit, JSON.parse(readFileSync(path.join(folder(), `${name}.json`), "utf8"))) as Kit;
}
