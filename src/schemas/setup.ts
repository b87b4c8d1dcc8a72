import { Type, type Static } from "@sinclair/typebox";
import { Questions } from "./catalogue";
import { Id, input, LocalDate, Mail, MinuteOfDay, Money, Name, OneOf, OrNull, Phone, PointSchema, Weekdays } from "./common";

/** At most so many visits; null takes the limit away. */
const LimitOrNull = OrNull(Type.Integer({ minimum: 0, maximum: 10_000 }));
export const Limits = input({ window: LimitOrNull, day: LimitOrNull, week: LimitOrNull });
export type Limits = Static<typeof Limits>;

const part = { weekdays: Weekdays, from: MinuteOfDay, to: MinuteOfDay };
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
const Hours = Type.Array(input({ weekday: Type.Integer({ minimum: 0, maximum: 6 }), opens: MinuteOfDay, closes: MinuteOfDay }), { maxItems: 42 });
/** Empty: everybody. */
const Technicians = Type.Array(Id, { maxItems: 500, uniqueItems: true });

/** What set-up saves. An `id` of null makes a new one; what is left out stays as it is. */
export const SaveZone = input({
  id: OrNull(Id),
  name: Name,
  postcodes: Type.Array(Type.String({ minLength: 1, maxLength: 30 }), { minItems: 1, maxItems: 500 }),
  weekdays: Weekdays,
  serveFrom: MinuteOfDay,
  serveTo: MinuteOfDay,
  noticeMinutes: Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 }),
  surchargeMinor: Money,
  smallestOrderMinor: Money,
  technicians: Type.Optional(Technicians),
  limits: Type.Optional(Limits),
  /** How one drives there, where it differs from the business's: for estimates from coordinates. */
  windingPercent: Type.Optional(OrNull(Type.Integer({ minimum: 100, maximum: 400 }))),
  kmh: Type.Optional(OrNull(Type.Integer({ minimum: 5, maximum: 130 }))),
});
export type SaveZone = Static<typeof SaveZone>;

export const SaveTechnician = input({
  id: OrNull(Id),
  name: Name,
  phone: Phone,
  skills: Type.Array(input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }), validUntil: OrNull(LocalDate) }), { maxItems: 40 }),
  hours: Hours,
  start: Type.Optional(PointSchema),
  end: Type.Optional(PointSchema),
  limits: Type.Optional(Limits),
});
export type SaveTechnician = Static<typeof SaveTechnician>;

export const SaveService = input({
  id: OrNull(Id),
  code: Type.String({ pattern: "^[A-Za-z]{2}$", patternSentence: "Two letters, such as SW." }),
  name: Name,
  category: Name,
  description: Type.String({ maxLength: 400 }),
  priceMinor: Money,
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
  minutes: Type.Integer({ minimum: 5, maximum: 600 }),
  beforeMinutes: Type.Integer({ minimum: 0, maximum: 240 }),
  afterMinutes: Type.Integer({ minimum: 0, maximum: 240 }),
  crew: Type.Integer({ minimum: 1, maximum: 9 }),
  skills: Type.Array(Type.Union([Name, input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }) })]), { maxItems: 20 }),
  deposit: input({ kind: OneOf(["none", "percent", "fixed", "full"]), value: Type.Integer({ minimum: 0, maximum: 100_000_000 }) }),
  active: Type.Boolean(),
  /** Consecutive working days with the same crew. */
  days: Type.Optional(Type.Integer({ minimum: 1, maximum: 10 })),
  noticeMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 })),
  /** Null: as the business. */
  capacity: Type.Optional(OrNull(Capacity)),
  windows: Type.Optional(OrNull(Pattern)),
  hours: Type.Optional(Hours),
  technicians: Type.Optional(Technicians),
  limits: Type.Optional(Limits),
  wish: Type.Optional(OneOf(["none", "preferred", "only"])),
  questions: Type.Optional(Questions),
  extras: Type.Optional(Type.Array(input({ id: Id, most: Type.Integer({ minimum: 1, maximum: 999 }) }), { maxItems: 60 })),
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
});
export type SaveBookingRules = Static<typeof SaveBookingRules>;

export const SaveBusiness = input({
  name: Name,
  phone: Phone,
  mail: Mail,
  paymentDays: Type.Integer({ minimum: 0, maximum: 180 }),
  reminderHours: Type.Integer({ minimum: 1, maximum: 168 }),
  messageFrom: MinuteOfDay,
  messageTo: MinuteOfDay,
  travelMarginMinutes: Type.Integer({ minimum: 0, maximum: 60 }),
  travelMarginPercent: Type.Integer({ minimum: 0, maximum: 200 }),
  windingPercent: Type.Optional(Type.Integer({ minimum: 100, maximum: 400 })),
  kmh: Type.Optional(Type.Integer({ minimum: 5, maximum: 130 })),
  labourCostMinor: Type.Optional(Money),
});
export type SaveBusiness = Static<typeof SaveBusiness>;

export const OpenBusiness = input({
  name: Name,
  phone: Phone,
  mail: Mail,
  currency: Type.String({ pattern: "^[A-Z]{3}$", patternSentence: "Three capitals, such as EUR." }),
  pricesIncludeTax: Type.Boolean(),
  timeZone: Type.String({ format: "time-zone" }),
  place: PointSchema,
  demo: Type.Boolean(),
});

export const SavePerson = input({
  id: OrNull(Id),
  name: Name,
  mail: Mail,
  role: OneOf(["owner", "dispatcher", "bookkeeper", "technician"]),
  /** Left out: the password stays. */
  password: Type.Optional(Type.String({ minLength: 10, maxLength: 200 })),
  technicianId: OrNull(Id),
  active: Type.Boolean(),
});

/** Whole days, or the same hours of each day. */
export const RecordTimeOff = input({ technicianId: Id, firstDate: LocalDate, lastDate: LocalDate, reason: Name, fromMinute: Type.Optional(MinuteOfDay), toMinute: Type.Optional(MinuteOfDay) });
/** Hours of one date in place of the week's; null goes back to the week's. */
export const SetDayHours = input({ technicianId: Id, date: LocalDate, spans: OrNull(Type.Array(input({ opens: MinuteOfDay, closes: MinuteOfDay }), { minItems: 1, maxItems: 6 })) });
/** A blocked time, with or without a place to be at. */
export const RecordErrand = input({ technicianId: Id, date: LocalDate, fromMinute: MinuteOfDay, toMinute: MinuteOfDay, title: Name, addressId: OrNull(Type.String({ maxLength: 40 })) });
export const RemoveErrand = input({ id: Id });
export const RemoveTimeOff = input({ id: Id });
export const CloseDay = input({ date: LocalDate, reason: Name });
