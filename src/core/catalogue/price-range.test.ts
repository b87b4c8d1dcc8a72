import fc from "fast-check";
import { type OrderedService, priceOrder } from "./order";
import { priceRange } from "./price-range";
import type { Answers, Effect, Question } from "./questions";

const adds = (minor: number): Effect => ({ price: { how: "add", minor } });
const service = (questions: Question[], priceMinor = 7900): OrderedService => ({
  id: 1,
  name: "Chimney sweep",
  priceMinor,
  taxBp: 2100,
  deposit: { kind: "none" },
  minutes: 45,
  crew: 1,
  skills: [],
  questions,
  extras: [],
});
const nest: Question = { id: "nest", words: "Is there a nest?", required: true, kind: "yes-no", yes: adds(3000) };
const flues: Question = {
  id: "flues",
  words: "Flues",
  required: true,
  kind: "count",
  min: 1,
  max: 4,
  included: 1,
  each: adds(4500),
};

describe("the range of a price", () => {
  it("goes from what the cheapest answers cost to what the dearest do", () => {
    expect(priceRange(service([]), true)).toEqual({ least: 7900, most: 7900 });
    expect(priceRange(service([nest, flues]), true)).toEqual({ least: 7900, most: 7900 + 3000 + 3 * 4500 });
    expect(priceRange(service([nest], 10_000), false)).toEqual({ least: 12_100, most: 12_100 + 3630 });
  });

  it("follows questions that are asked only after certain answers, brackets, and reductions", () => {
    const height: Question = {
      id: "height",
      words: "Height",
      required: false,
      kind: "number",
      min: 0,
      max: 20,
      step: 0.5,
      unit: "m",
      shownIf: { question: "nest", is: true },
      brackets: [
        { upTo: 6, effect: {} },
        { upTo: null, effect: { price: { how: "percent", basisPoints: 2000 } } },
      ],
    };
    const member: Question = {
      id: "member",
      words: "A member?",
      required: false,
      kind: "several",
      choices: [
        { id: "yes", words: "yes", effect: adds(-900) },
        { id: "late", words: "in the evening", effect: adds(2000) },
      ],
    };
    expect(priceRange(service([nest, height, member]), true)).toEqual({
      least: 7000,
      most: Math.round((7900 + 3000 + 2000) * 1.2),
    });
  });

  it("holds every price there can be, where answers add something", () => {
    const choice = fc.integer({ min: -2000, max: 5000 });
    const question = fc.oneof(
      fc.record({ kind: fc.constant("yes-no" as const), yes: choice.map(adds), no: choice.map(adds) }),
      fc.array(choice, { minLength: 1, maxLength: 4 }).map((all) => ({
        kind: "one" as const,
        choices: all.map((minor, i) => ({ id: String(i), words: String(i), effect: adds(minor) })),
      })),
      fc.array(choice, { minLength: 1, maxLength: 4 }).map((all) => ({
        kind: "several" as const,
        choices: all.map((minor, i) => ({ id: String(i), words: String(i), effect: adds(minor) })),
      })),
      choice.map((minor) => ({ kind: "count" as const, min: 0, max: 5, each: adds(minor) })),
    );
    fc.assert(
      fc.property(fc.array(question, { maxLength: 5 }), fc.infiniteStream(fc.nat()), (kinds, dice) => {
        // Dear enough that no reduction takes it below nothing.
        const all = kinds.map((kind, i): Question => ({
          id: `q${i}`,
          words: `Question ${i}`,
          required: false,
          ...kind,
        }));
        const sold = service(all, 500_000);
        const roll = (n: number) => dice.next().value! % n;
        const answers = Object.fromEntries(
          all.flatMap((q): [string, Answers[string]][] => {
            if (roll(4) === 0) return [];
            if (q.kind === "yes-no") return [[q.id, roll(2) === 0]];
            if (q.kind === "count") return [[q.id, roll(6)]];
            if (q.kind === "one") return [[q.id, String(roll(q.choices.length))]];
            return q.kind === "several" ? [[q.id, q.choices.filter(() => roll(2) === 0).map((c) => c.id)]] : [];
          }),
        );
        const { totalMinor } = priceOrder({
          items: [{ service: sold, quantity: 1, answers, extras: [] }],
          zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
          pricesIncludeTax: true,
        });
        const { least, most } = priceRange(sold, true);
        expect(totalMinor).toBeGreaterThanOrEqual(least);
        expect(totalMinor).toBeLessThanOrEqual(most);
      }),
    );
  });
});
