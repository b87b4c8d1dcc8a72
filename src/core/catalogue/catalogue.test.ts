import fc from "fast-check";
import { sum } from "../money/amounts";
import { type Extra, type Order, type OrderedService, type OrderItem, priceOrder } from "./order";
import {
  answerProblem,
  type Answers,
  answerWords,
  areCounted,
  type Effect,
  effectsOf,
  effectWords,
  type Question,
  shownQuestions,
  stillOpen,
} from "./questions";

const nest: Question = {
  id: "nest",
  words: "Is there a nest?",
  required: true,
  kind: "yes-no",
  yes: { price: { how: "add", minor: 3000 }, minutes: 30, skills: [{ skill: "roof access", level: 2 }], crew: 2 },
};

const flues: Question = {
  id: "flues",
  words: "Flues",
  required: true,
  kind: "count",
  min: 1,
  max: 8,
  included: 1,
  each: { price: { how: "add", minor: 4500 }, minutes: 30 },
};

const kindOf: Question = {
  id: "fuel",
  words: "Fuel",
  required: false,
  kind: "one",
  choices: [
    { id: "wood", words: "wood" },
    {
      id: "oil",
      words: "oil",
      effect: { price: { how: "replace", minor: 9900 }, extras: [{ id: "seal", quantity: 2 }] },
    },
  ],
};

const height: Question = {
  id: "height",
  words: "Height of the roof",
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

const seal: Extra = {
  id: "seal",
  name: "Rope seal",
  unit: "metre",
  priceMinor: 650,
  costMinor: 210,
  taxBp: 2100,
  most: 10,
};

const sweep: OrderedService = {
  id: 1,
  name: "Chimney sweep",
  priceMinor: 7900,
  taxBp: 1300,
  deposit: { kind: "none" },
  minutes: 45,
  crew: 1,
  skills: [{ skill: "sweep" }],
  questions: [nest, flues, kindOf, height],
  extras: [seal],
};

type Single = Omit<Order, "items"> & {
  service: OrderedService;
  answers: Answers;
  extras: { id: string; quantity: number }[];
};

/** An order of one service, with its problems. */
const priceOne = ({ service, answers, extras, ...order }: Single) => {
  const priced = priceOrder({ ...order, items: [{ service, answers, extras, quantity: 1 }] });
  return { ...priced, problems: priced.items[0]!.problems };
};

const order = (answers: Answers, more: Partial<Single> = {}) =>
  priceOne({
    service: sweep,
    answers,
    extras: [],
    zone: { name: "Moor Edge", surchargeMinor: 0, smallestOrderMinor: 0 },
    pricesIncludeTax: true,
    ...more,
  });

const lines = (o: ReturnType<typeof order>) => o.lines.map((l) => [l.description, l.amountMinor]);

const effects: fc.Arbitrary<Effect> = fc.record(
  {
    price: fc.oneof(
      fc.record({ how: fc.constant("add" as const), minor: fc.integer({ min: -20_000, max: 20_000 }) }),
      fc.record({ how: fc.constant("replace" as const), minor: fc.integer({ min: 0, max: 20_000 }) }),
      fc.record({ how: fc.constant("percent" as const), basisPoints: fc.integer({ min: -15_000, max: 15_000 }) }),
    ),
    minutes: fc.integer({ min: -60, max: 60 }),
    crew: fc.integer({ min: 1, max: 4 }),
    skills: fc.array(fc.record({ skill: fc.constantFrom("a", "b"), level: fc.integer({ min: 1, max: 3 }) }), {
      maxLength: 2,
    }),
    extras: fc.array(fc.record({ id: fc.constantFrom("seal", "brick"), quantity: fc.integer({ min: 1, max: 3 }) }), {
      maxLength: 2,
    }),
  },
  { requiredKeys: [] },
);

const asked: fc.Arbitrary<{ question: Question; answer: Answers[string] | undefined }> = fc.oneof(
  fc.record({ yes: effects, no: effects, answer: fc.boolean() }).map(({ answer, ...q }) => ({
    question: { id: "", words: "Q", required: false, kind: "yes-no" as const, ...q },
    answer,
  })),
  fc.record({ a: effects, b: effects, answer: fc.subarray(["a", "b"]) }).map(({ a, b, answer }) => ({
    question: {
      id: "",
      words: "Q",
      required: false,
      kind: "several" as const,
      choices: [
        { id: "a", words: "A", effect: a },
        { id: "b", words: "B", effect: b },
      ],
    },
    answer,
  })),
  fc.record({ each: effects, answer: fc.integer({ min: -2, max: 9 }) }).map(({ each, answer }) => ({
    question: { id: "", words: "Q", required: false, kind: "count" as const, min: 0, max: 7, included: 1, each },
    answer,
  })),
  fc
    .record({ each: effects, low: effects, high: effects, answer: fc.integer({ min: 0, max: 40 }) })
    .map(({ each, low, high, answer }) => ({
      question: {
        id: "",
        words: "Q",
        required: false,
        kind: "number" as const,
        min: 0,
        max: 10,
        step: 0.5,
        unit: "m",
        each,
        brackets: [
          { upTo: 4, effect: low },
          { upTo: null, effect: high },
        ],
      },
      answer: answer / 4,
    })),
);

const orders = fc
  .record({
    list: fc.array(asked, { maxLength: 5 }),
    priceMinor: fc.integer({ min: 0, max: 50_000 }),
    taxBp: fc.constantFrom(0, 1300, 2100),
    inclusive: fc.boolean(),
    surchargeMinor: fc.integer({ min: 0, max: 5000 }),
    smallestOrderMinor: fc.integer({ min: 0, max: 20_000 }),
    chosen: fc.integer({ min: 0, max: 4 }),
  })
  .map(({ list, priceMinor, taxBp, inclusive, chosen, ...zone }): Single => ({
    service: {
      ...sweep,
      priceMinor,
      taxBp,
      deposit: { kind: "percent", basisPoints: 2500 },
      questions: list.map(({ question }, i) => ({ ...question, id: String(i) })),
      extras: [seal, { ...seal, id: "brick", name: "Fire brick" }],
    },
    answers: Object.fromEntries(list.flatMap(({ answer }, i) => (answer === undefined ? [] : [[String(i), answer]]))),
    extras: [{ id: "brick", quantity: chosen }],
    zone: { name: "Z", ...zone },
    pricesIncludeTax: inclusive,
  }));

describe("an order", () => {
  it("costs what the service costs where nothing is asked for beyond it", () => {
    const { totalMinor, minutes, crew, skills } = order({ nest: false, flues: 1 });
    expect([totalMinor, minutes, crew, skills]).toEqual([7900, 45, 1, [{ skill: "sweep", level: 1 }]]);
  });

  it("takes from each answer its price, minutes, people and skills", () => {
    const priced = order({ nest: true, flues: 3 });
    expect(lines(priced)).toEqual([
      ["Chimney sweep", 7900],
      ["Is there a nest?", 3000],
      ["Flues", 9000],
    ]);
    expect([priced.minutes, priced.crew, priced.skills]).toEqual([
      45 + 30 + 60,
      2,
      [
        { skill: "sweep", level: 1 },
        { skill: "roof access", level: 2 },
      ],
    ]);
  });

  it("lets an answer replace the price and bring extras, beside those that are chosen", () => {
    const priced = order(
      { nest: false, flues: 1, fuel: "oil" },
      {
        extras: [
          { id: "seal", quantity: 1 },
          { id: "unknown", quantity: 9 },
        ],
      },
    );
    expect(lines(priced)).toEqual([
      ["Chimney sweep", 9900],
      ["Rope seal", 1950],
    ]);
    expect(priced.materialsMinor).toBe(630);
  });

  it("takes a percentage of the work, by the bracket a number falls into", () => {
    expect(lines(order({ nest: true, flues: 1, height: 6 }))).toHaveLength(2);
    expect(lines(order({ nest: true, flues: 1, height: 6.5 })).at(-1)).toEqual(["Height of the roof: 6.5 m", 2180]);
  });

  it("does not ask, and does not count, what an earlier answer hides", () => {
    expect(shownQuestions(sweep.questions, { nest: false, height: 9 }).map((q) => q.id)).toEqual([
      "nest",
      "flues",
      "fuel",
    ]);
    expect(lines(order({ nest: false, flues: 1, height: 9 }))).toEqual([["Chimney sweep", 7900]]);
  });

  it("bills an answer under words of its own, where it has some", () => {
    const billed = {
      ...sweep,
      questions: [
        { ...nest, billed: "Nest taken out" },
        { ...flues, billed: "Further flue" },
        {
          ...kindOf,
          billed: "Fuel",
          choices: [{ id: "oil", words: "oil", effect: { price: { how: "add" as const, minor: 500 } } }],
        } as Question,
      ],
    };
    expect(
      lines(
        priceOne({
          service: billed,
          answers: { nest: true, flues: 3, fuel: "oil" },
          extras: [],
          zone: { name: "Z", surchargeMinor: 0, smallestOrderMinor: 0 },
          pricesIncludeTax: true,
        }),
      ),
    ).toEqual([
      ["Chimney sweep", 7900],
      ["Nest taken out", 3000],
      ["Further flue", 9000],
      ["Fuel: oil", 500],
    ]);
  });

  it("leaves open what is shown, unanswered and free, and asks it by itself", () => {
    const seen: Question = {
      id: "seen",
      words: "What have you seen of it?",
      required: false,
      kind: "text",
      most: 300,
      shownIf: { question: "nest", is: true },
    };
    const open = stillOpen([nest, flues, seen], { nest: true, flues: 1 });
    expect(open.map((q) => q.id)).toEqual(["seen"]);
    expect(shownQuestions(open, {})).toEqual(open);
    expect(stillOpen([nest, flues, seen], { nest: false, flues: 1 })).toEqual([]);
  });

  it("knows whether its questions count already", () => {
    expect([areCounted([nest, flues]), areCounted([nest, height]), areCounted([])]).toEqual([true, false, false]);
  });

  it("hides what hangs on a hidden question", () => {
    const deep: Question = {
      id: "deep",
      words: "Deep?",
      required: true,
      kind: "yes-no",
      shownIf: { question: "height", atLeast: 5 },
    };
    expect(shownQuestions([...sweep.questions, deep], { nest: false, height: 9 }).map((q) => q.id)).not.toContain(
      "deep",
    );
    expect(shownQuestions([...sweep.questions, deep], { nest: true, height: 9 }).map((q) => q.id)).toContain("deep");
  });

  it("says of each question what is missing or wrong", () => {
    expect(order({ flues: 9, fuel: "coal" }).problems).toEqual({
      nest: "Please answer this.",
      flues: "Enter 8 or less.",
      fuel: "Choose one of the answers.",
    });
    expect(answerProblem(height, 6.3)).toBe("Enter a number in steps of 0.5.");
    expect(
      answerProblem({ id: "t", words: "Anything else?", required: false, kind: "text", most: 5 }, "much too long"),
    ).toBe("Write at most 5 characters.");
  });

  it("adds the zone's surcharge, and fills up to its smallest order", () => {
    const zone = { name: "Gull Island", surchargeMinor: 1800, smallestOrderMinor: 12_000 };
    expect(lines(order({ nest: false, flues: 1 }, { zone }))).toEqual([
      ["Chimney sweep", 7900],
      ["Surcharge Gull Island", 1800],
      ["Smallest order Gull Island", 2300],
    ]);
  });

  it("says what an answer does", () => {
    const names = {
      money: (minor: number) => `€${minor / 100}`,
      skill: (id: string) => id,
      extra: (id: string) => (id === "seal" ? "rope seal" : id),
    };
    const says = (effect?: Effect) => effectWords(effect, names);
    expect(nest.kind === "yes-no" && says(nest.yes)).toBe(
      "adds €30, 30 min more, needs 2 people, asks for roof access",
    );
    expect(says({ price: { how: "replace", minor: 9900 }, extras: [{ id: "seal", quantity: 2 }] })).toBe(
      "costs €99 instead, brings 2 × rope seal",
    );
    expect(says({ price: { how: "percent", basisPoints: -500 }, minutes: -10 })).toBe("takes off 5%, −10 min");
    expect([says(), says({})]).toEqual(["changes nothing", "changes nothing"]);
  });

  it("tells its answers in words", () => {
    expect([
      answerWords(nest, true),
      answerWords(kindOf, "oil"),
      answerWords(height, 6.5),
      answerWords(flues, undefined),
    ]).toEqual(["yes", "oil", "6.5 m", "not answered"]);
  });
});

describe("an order of several services", () => {
  const survey: OrderedService = {
    ...sweep,
    id: 2,
    name: "Camera survey",
    priceMinor: 16_000,
    taxBp: 2100,
    questions: [],
    deposit: { kind: "percent", basisPoints: 2500 },
    minutes: 90,
    skills: [{ skill: "camera", level: 2 }],
  };
  const alarm: OrderedService = {
    ...survey,
    id: 3,
    name: "Alarm",
    priceMinor: 4000,
    deposit: { kind: "full" },
    minutes: 15,
    skills: [],
    crew: 2,
  };
  const item = (service: OrderedService, quantity = 1): OrderItem => ({
    service,
    quantity,
    answers: service.id === 1 ? { nest: false, flues: 1 } : {},
    extras: [],
  });
  const basket = (items: OrderItem[], more: Partial<Order> = {}) =>
    priceOrder({
      items,
      zone: { name: "Moor Edge", surchargeMinor: 0, smallestOrderMinor: 0 },
      pricesIncludeTax: true,
      ...more,
    });

  it("costs as many times as seats are taken, in a time that is as long for all", () => {
    const priced = basket([item({ ...survey, seats: 8 }, 3)]);
    expect([priced.totalMinor, priced.minutes]).toEqual([48_000, 90]);
  });

  it("adds up price, time and skills, and asks for as many people as the largest needs", () => {
    const priced = basket([item(sweep), item(survey), item(alarm, 3)]);
    expect(lines(priced as never)).toEqual([
      ["Chimney sweep", 7900],
      ["Camera survey", 16_000],
      ["Alarm", 12_000],
    ]);
    expect([priced.minutes, priced.crew, priced.skills]).toEqual([
      45 + 90 + 45,
      2,
      [
        { skill: "sweep", level: 1 },
        { skill: "camera", level: 2 },
      ],
    ]);
  });

  it("asks of each service its own deposit: nothing, a share, all", () => {
    expect(basket([item(sweep), item(survey), item(alarm, 3)]).items.map((i) => i.depositMinor)).toEqual([
      0, 4000, 12_000,
    ]);
    // A surcharge is borne by all of them, and what is paid in full is paid with its part of it.
    const far = basket([item(survey), item(alarm)], {
      zone: { name: "Gull Island", surchargeMinor: 2000, smallestOrderMinor: 0 },
    });
    expect(far.items).toMatchObject([
      { totalMinor: 17_600, depositMinor: 4400 },
      { totalMinor: 4400, depositMinor: 4400 },
    ]);
    expect(far.depositMinor).toBe(8800);
  });

  it("fills up to the smallest order once, and takes a coupon off its own services only", () => {
    expect(
      lines(
        basket([item(sweep), item(alarm)], {
          zone: { name: "Gull Island", surchargeMinor: 0, smallestOrderMinor: 15_000 },
        }) as never,
      ).at(-1),
    ).toEqual(["Smallest order Gull Island", 3100]);
    const priced = basket([item(sweep), item(survey)], {
      coupon: { code: "SURVEY", kind: "percent", value: 1000, services: [2] },
    });
    expect(priced.items.map((i) => i.totalMinor)).toEqual([7900, 14_400]);
    expect(priced.items[1]!.depositMinor).toBe(3600);
  });

  it("costs less in a window on our way, and a coupon counts of what is left", () => {
    const priced = basket([item(sweep), item(alarm)], {
      onOurWayBp: 1000,
      coupon: { code: "C", kind: "percent", value: 5000, services: [] },
    });
    expect(lines(priced as never).slice(2)).toEqual([
      ["On our way, 10% off", -790],
      ["On our way, 10% off", -400],
      ["Coupon C", -3555],
      ["Coupon C", -1800],
    ]);
    expect(
      basket([item(sweep), item(alarm)], {
        onOurWayBp: 5000,
        coupon: { code: "C", kind: "percent", value: 10_000, services: [1] },
      }).totalMinor,
    ).toBe(2000);
  });

  it("has parts that make up the whole, whatever is in it", () => {
    const some = fc.record({
      picks: fc.array(
        fc.record({
          of: fc.constantFrom(sweep, survey, alarm),
          price: fc.nat(50_000),
          quantity: fc.integer({ min: 1, max: 9 }),
        }),
        { minLength: 1, maxLength: 5 },
      ),
      surchargeMinor: fc.nat(5000),
      smallestOrderMinor: fc.nat(50_000),
      inclusive: fc.boolean(),
      off: fc.option(fc.integer({ min: 1, max: 10_000 })),
      onOurWayBp: fc.nat(5000),
      services: fc.subarray([1, 2, 3]),
    });
    fc.assert(
      fc.property(some, ({ picks, inclusive, off, services, onOurWayBp, ...zone }) => {
        const priced = basket(
          picks.map(({ of, price, quantity }) => item({ ...of, priceMinor: price }, quantity)),
          {
            zone: { name: "Z", ...zone },
            pricesIncludeTax: inclusive,
            onOurWayBp,
            coupon: off === null ? null : { code: "C", kind: "percent", value: off, services },
          },
        );
        expect(sum(priced.items.map((i) => i.totalMinor))).toBe(priced.totalMinor);
        expect(sum(priced.items.map((i) => i.depositMinor))).toBe(priced.depositMinor);
        for (const i of priced.items) expect(i.depositMinor >= 0 && i.depositMinor <= i.totalMinor).toBe(true);
      }),
      { numRuns: 1000 },
    );
  });
});

describe("under every kind of question, whatever is answered", () => {
  it("nothing is ever negative, the lines add up to the total, and so do the taxes", () => {
    fc.assert(
      fc.property(orders, (some) => {
        const priced = priceOne(some);
        expect(sum(priced.lines.map((l) => l.amountMinor))).toBe(priced.totalMinor);
        expect(sum(priced.lines.map((l) => l.taxMinor))).toBe(priced.taxMinor);
        expect(priced.lines.every((l) => Number.isInteger(l.amountMinor) && Number.isInteger(l.taxMinor))).toBe(true);
        // Every line is rounded by itself: half a cent each is all that can be missing.
        expect(priced.totalMinor).toBeGreaterThanOrEqual(
          some.pricesIncludeTax ? some.zone.smallestOrderMinor : some.zone.smallestOrderMinor - priced.lines.length,
        );
        expect(priced.totalMinor).toBeGreaterThanOrEqual(0);
        expect(priced.depositMinor >= 0 && priced.depositMinor <= priced.totalMinor).toBe(true);
        expect(priced.minutes).toBeGreaterThanOrEqual(1);
        expect(priced.crew).toBeGreaterThanOrEqual(some.service.crew);
      }),
      { numRuns: 2000 },
    );
  });

  it("an answer that is wrong changes nothing but its own sentence", () => {
    fc.assert(
      fc.property(orders, (some) => {
        const wrong = Object.keys(priceOne(some).problems);
        const without = {
          ...some,
          answers: Object.fromEntries(Object.entries(some.answers).filter(([id]) => !wrong.includes(id))),
        };
        expect(priceOne(without).lines).toEqual(priceOne(some).lines);
        for (const { words } of effectsOf(some.service.questions, some.answers))
          expect(words.length).toBeGreaterThan(0);
      }),
    );
  });
});
