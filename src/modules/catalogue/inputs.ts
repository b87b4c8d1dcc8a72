import type { Item } from "@/core/catalogue/items";
import { type Language, languages } from "@/core/messages/languages";
import { waysToCome } from "@/core/repeats/flexible";
import {
  DateText,
  Id,
  ImageToken,
  input,
  Limits,
  Mail,
  EndMinute,
  MinuteOfDay,
  Money,
  Name,
  OneOf,
  OrNull,
  Technicians,
  Weekdays,
} from "@/kernel/inputs";
import { AddressId } from "@/modules/place/inputs";
import { workPlaces } from "@/core/visits/work-place";
import type { About } from "@/kernel/subjects";
import { type Static, type TString, Type } from "@sinclair/typebox";

/** Answers by question: whether they fit the questions is for core to say. */
export const Answers = Type.Record(
  Type.String({ maxLength: 40 }),
  Type.Union([
    Type.Boolean(),
    Type.Number(),
    Type.String({ maxLength: 2000 }),
    Type.Array(Type.String({ maxLength: 80 }), { maxItems: 40 }),
  ]),
  { maxProperties: 60 },
);
const Extras = Type.Array(input({ id: Id, quantity: Type.Integer({ minimum: 1, maximum: 999 }) }), { maxItems: 60 });
const item = {
  serviceId: Id,
  quantity: Type.Optional(Type.Integer({ minimum: 1, maximum: 99 })),
  answers: Type.Optional(Answers),
  extras: Type.Optional(Extras),
};
const atLeastOne = { minItems: 1, maxItems: 12 };
/** The services of an order, the main one first, with what was answered and chosen for each. */
export const Items = Type.Array(input(item), atLeastOne);
/** The same as the office orders it: perhaps by a job pattern, which stands with the first. */
export const OfficeItems = Type.Array(input({ ...item, patternId: Type.Optional(Id) }), atLeastOne);

/** What came in, with all that was not said as it is then. */
export const itemsOf = (items: readonly (Pick<Item, "serviceId"> & Partial<Item>)[]): Item[] =>
  items.map(({ serviceId, quantity = 1, answers = {}, extras = [], patternId }) => ({
    serviceId,
    quantity,
    answers,
    extras,
    ...(patternId !== undefined && { patternId }),
  }));
/** `technicianId`: the technician a customer wishes for, where the service lets them. */
export const order = {
  items: Items,
  technicianId: Type.Optional(OrNull(Id)),
  /** The link of a service's own by which somebody came: it opens one that is hidden. */
  slug: Type.Optional(OrNull(Type.String({ maxLength: 80 }))),
};

/** The window somebody chose: epoch minutes, as the offer said them. */
export const chosen = {
  addressId: AddressId,
  ...order,
  date: DateText,
  from: Type.Integer({ minimum: 0 }),
  to: Type.Integer({ minimum: 0 }),
};

/** What is ordered is named by anybody: services, extras, and a technician whom one wishes for. */
export const orderAbout = {
  "items.serviceId": "shared",
  "items.extras.id": "shared",
  "items.patternId": "shared",
  technicianId: "shared",
} as const satisfies About;

export const RepeatEveryInput = input({
  every: Type.Integer({ minimum: 1, maximum: 120 }),
  unit: OneOf(["day", "week", "month", "year"]),
});

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

export const Hue = Type.Integer({ minimum: 0, maximum: 7 });

const part = { weekdays: Weekdays, from: MinuteOfDay, to: EndMinute };
const Step = Type.Integer({ minimum: 5, maximum: 720 });
export const Pattern = Type.Array(
  Type.Union([
    input({ kind: Type.Literal("window"), ...part }),
    input({ kind: Type.Literal("stepping"), ...part, length: Step, step: Step }),
    input({ kind: Type.Literal("exact"), ...part, step: Step }),
    input({ kind: Type.Literal("continuous"), ...part }),
  ]),
  { minItems: 1, maxItems: 60 },
);
const Capacity = OneOf(["route", "count", "open", "ask"]);
export const Hours = Type.Array(
  input({ weekday: Type.Integer({ minimum: 0, maximum: 6 }), opens: MinuteOfDay, closes: EndMinute }),
  { maxItems: 42 },
);

/** What is ticked off on site. */
export const Checklist = Type.Array(
  input({ id: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }), words: Name, required: Type.Boolean() }),
  { maxItems: 60 },
);

/** Days before a date of a repeat. */
const AheadDays = Type.Integer({ minimum: 1, maximum: 120 });

const OtherNames = Type.Unsafe<Partial<Record<Language, string>>>(
  input(Object.fromEntries(languages.map((language) => [language, Type.Optional(Type.String({ maxLength: 80 }))]))),
);

export const SaveService = input({
  id: OrNull(Id),
  code: Type.String({ pattern: "^[A-Za-z]{2}$", patternSentence: "Two letters, such as SW." }),
  name: Name,
  /** What messages in another language call it; absent: as it is. */
  otherNames: Type.Optional(OtherNames),
  category: Name,
  description: Type.String({ maxLength: 400 }),
  priceMinor: Money,
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
  minutes: Type.Integer({ minimum: 5, maximum: 600 }),
  beforeMinutes: Type.Integer({ minimum: 0, maximum: 240 }),
  afterMinutes: Type.Integer({ minimum: 0, maximum: 240 }),
  crew: Type.Integer({ minimum: 1, maximum: 9 }),
  skills: Type.Array(Type.Union([Name, input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }) })]), {
    maxItems: 20,
  }),
  deposit: input({
    kind: OneOf(["none", "percent", "fixed", "full"]),
    value: Type.Integer({ minimum: 0, maximum: 100_000_000 }),
  }),
  active: Type.Boolean(),
  /** Consecutive working days with the same crew. */
  days: Type.Optional(Type.Integer({ minimum: 1, maximum: 10 })),
  /** At the customer's, at our own place, or from afar. */
  workPlace: Type.Optional(OneOf(workPlaces)),
  /** How many customers one time takes, with one technician; 0: each has a time of their own. */
  seats: Type.Optional(Type.Integer({ minimum: 0, maximum: 500 })),
  noticeMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 })),
  /** Null: as the business. */
  capacity: Type.Optional(OrNull(Capacity)),
  windows: Type.Optional(OrNull(Pattern)),
  hours: Type.Optional(Hours),
  technicians: Type.Optional(Technicians),
  limits: Type.Optional(Limits),
  wish: Type.Optional(OneOf(["none", "preferred", "only"])),
  /** Whether a person confirms each booking. */
  confirm: Type.Optional(Type.Boolean()),
  /** How often customers may have it come again, by themselves. */
  repeats: Type.Optional(Type.Array(RepeatEveryInput, { maxItems: 8 })),
  /** How it comes back where nothing else is agreed; how many days before a date is promised (null: as the business); in how many months its customer is asked again after it was done (null: not at all). */
  comes: Type.Optional(OneOf(waysToCome)),
  promiseDays: Type.Optional(OrNull(AheadDays)),
  againMonths: Type.Optional(OrNull(Type.Integer({ minimum: 1, maximum: 120 }))),
  /** Who else is told of bookings of it: an email address, or nobody. */
  tells: Type.Optional(Type.Union([Mail, Type.Literal("")])),
  questions: Type.Optional(Questions),
  extras: Type.Optional(
    Type.Array(input({ id: Id, most: Type.Integer({ minimum: 1, maximum: 999 }) }), { maxItems: 60 }),
  ),
  hue: Type.Optional(Hue),
  picture: Type.Optional(ImageToken),
  /** A price, a price to begin from, or one that is told after we have seen it. */
  priceKind: Type.Optional(OneOf(["fixed", "from", "quote"])),
  showsPrice: Type.Optional(Type.Boolean()),
  showsMinutes: Type.Optional(Type.Boolean()),
  mayPayAll: Type.Optional(Type.Boolean()),
  /** Cancelled later than so many hours before the window, the fee is asked: a share in basis points, or an amount. */
  late: Type.Optional(
    input({
      hours: Type.Integer({ minimum: 0, maximum: 720 }),
      kind: OneOf(["none", "percent", "fixed"]),
      value: Type.Integer({ minimum: 0, maximum: 100_000_000 }),
    }),
  ),
  noAccessMinor: Type.Optional(Money),
  hidden: Type.Optional(Type.Boolean()),
  /** The end of its own address, /book?service=…; null has none. */
  slug: Type.Optional(
    OrNull(
      Type.String({
        pattern: "^[a-z0-9-]{2,60}$",
        patternSentence: "Small letters, figures and hyphens, such as chimney-sweep.",
      }),
    ),
  ),
  checklist: Type.Optional(Checklist),
});
export type SaveService = Static<typeof SaveService>;

export const SaveBookingRules = input({
  windows: Pattern,
  noticeMinutes: Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 }),
  horizonDays: Type.Integer({ minimum: 1, maximum: 365 }),
  holdMinutes: Type.Integer({ minimum: 1, maximum: 120 }),
  capacity: Type.Optional(Capacity),
  forecastRoom: Type.Optional(OneOf(["full", "half", "none"])),
  limits: Type.Optional(Limits),
  /** Addresses in no zone: a kind refusal, or a request that a person answers. */
  outside: Type.Optional(OneOf(["refuse", "request"])),
  /** Until how many hours before the window customers move and cancel by themselves. */
  moveHours: Type.Optional(Type.Integer({ minimum: 0, maximum: 720 })),
  cancelHours: Type.Optional(Type.Integer({ minimum: 0, maximum: 720 })),
  /** What moving does inside the time in which cancelling costs a fee. */
  lateMoves: Type.Optional(OneOf(["fee", "refused"])),
  /** Off the price of windows on our way, basis points. */
  onOurWayBp: Type.Optional(Type.Integer({ minimum: 0, maximum: 5000 })),
  /** Repeats: laid out so many months ahead; promised, and asked about, so many days before a date; asked once more after so many. */
  repeatMonths: Type.Optional(Type.Integer({ minimum: 1, maximum: 36 })),
  promiseDays: Type.Optional(AheadDays),
  askDays: Type.Optional(AheadDays),
  askAgainDays: Type.Optional(Type.Integer({ minimum: 1, maximum: 60 })),
});
export type SaveBookingRules = Static<typeof SaveBookingRules>;
