import { type Deposit, depositWhere, priceOrder } from "@/core/catalogue/order";
import { questionProblems } from "@/core/catalogue/question-check";
import { questionsBy } from "@/modules/catalogue/inputs";
import { type Static, Type } from "@sinclair/typebox";
import { BadInput, pathWords, readJson } from "./read-json";
import { Count, Id, object, Skill, toSkill } from "./shapes";

const Amount = Type.Integer({ minimum: 0, maximum: 100_000_000 });
const Share = Type.Integer({ minimum: 0, maximum: 10_000 });
const QuoteInput = object({
  service: object({
    name: Id,
    priceMinor: Amount,
    taxBp: Share,
    minutes: Type.Integer({ minimum: 1, maximum: 600 }),
    deposit: Type.Optional(
      object({
        kind: Type.Union((["none", "percent", "fixed", "full"] as const).map((k) => Type.Literal(k))),
        value: Type.Optional(Amount),
      }),
    ),
    crew: Type.Optional(Type.Integer({ minimum: 1, maximum: 9 })),
    skills: Type.Optional(Type.Array(Skill)),
    questions: Type.Optional(questionsBy(Type.String({ minLength: 1 }))),
    extras: Type.Optional(
      Type.Array(
        object({
          id: Id,
          name: Id,
          unit: Type.Optional(Id),
          priceMinor: Amount,
          costMinor: Type.Optional(Amount),
          taxBp: Share,
          most: Type.Optional(Count),
        }),
      ),
    ),
  }),
  answers: Type.Optional(
    Type.Record(Type.String(), Type.Union([Type.Boolean(), Type.Number(), Type.String(), Type.Array(Type.String())])),
  ),
  extras: Type.Optional(Type.Array(object({ id: Id, quantity: Type.Integer({ minimum: 1, maximum: 999 }) }))),
  zone: Type.Optional(
    object({ name: Id, surchargeMinor: Type.Optional(Amount), smallestOrderMinor: Type.Optional(Amount) }),
  ),
  pricesIncludeTax: Type.Optional(Type.Boolean()),
});
export type QuoteInput = Static<typeof QuoteInput>;

/** `hogar quote [FILE]`: a service and a customer's answers in; lines, minutes, skills, tax and total out. */
export function quote(args: string[]): void {
  process.stdout.write(`${JSON.stringify(answerTo(readJson(args[0], QuoteInput)))}\n`);
}

/** Throws BadInput where a question can never be shown or an extra is not there. */
export function answerTo({ service, answers = {}, extras = [], zone, pricesIncludeTax = true }: QuoteInput) {
  const { questions = [] } = service;
  const [odd] = Object.entries(questionProblems(questions));
  if (odd) throw new BadInput(pathWords(`/service/questions${odd[0]}`), odd[1]);
  const unknown = extras.findIndex((x) => !service.extras?.some((known) => known.id === x.id));
  if (unknown >= 0) throw new BadInput(`extras[${unknown}].id`, `there is no extra “${extras[unknown]!.id}”`);
  const { items, ...priced } = priceOrder({
    items: [
      {
        quantity: 1,
        answers,
        extras,
        service: {
          id: 1,
          name: service.name,
          priceMinor: service.priceMinor,
          taxBp: service.taxBp,
          minutes: service.minutes,
          crew: service.crew ?? 1,
          skills: (service.skills ?? []).map(toSkill),
          questions,
          deposit: depositWhere(service.deposit?.kind ?? "none", service.deposit?.value ?? 0) satisfies Deposit,
          extras: (service.extras ?? []).map((x) => ({
            ...x,
            unit: x.unit ?? "piece",
            costMinor: x.costMinor ?? 0,
            most: x.most ?? 999,
          })),
        },
      },
    ],
    zone: {
      name: zone?.name ?? "",
      surchargeMinor: zone?.surchargeMinor ?? 0,
      smallestOrderMinor: zone?.smallestOrderMinor ?? 0,
    },
    pricesIncludeTax,
  });
  return { ...priced, problems: items[0]!.problems };
}
