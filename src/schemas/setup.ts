import { Type, type Static } from "@sinclair/typebox";
import { Id, input, LocalDate, Mail, MinuteOfDay, Money, Name, OneOf, OrNull, Phone, PointSchema, Weekdays } from "./common";

/** What set-up saves. An `id` of null makes a new one. */
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
});
export type SaveZone = Static<typeof SaveZone>;

export const SaveTechnician = input({
  id: OrNull(Id),
  name: Name,
  phone: Phone,
  skills: Type.Array(input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }), validUntil: OrNull(LocalDate) }), { maxItems: 40 }),
  hours: Type.Array(input({ weekday: Type.Integer({ minimum: 0, maximum: 6 }), opens: MinuteOfDay, closes: MinuteOfDay }), { maxItems: 42 }),
  start: Type.Optional(PointSchema),
  end: Type.Optional(PointSchema),
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
  skills: Type.Array(Name, { maxItems: 20 }),
  deposit: input({ kind: OneOf(["none", "percent", "fixed", "full"]), value: Type.Integer({ minimum: 0, maximum: 100_000_000 }) }),
  active: Type.Boolean(),
});
export type SaveService = Static<typeof SaveService>;

export const SaveBookingRules = input({
  windows: Type.Array(input({ weekdays: Weekdays, from: MinuteOfDay, to: MinuteOfDay }), { minItems: 1, maxItems: 60 }),
  noticeMinutes: Type.Integer({ minimum: 0, maximum: 60 * 24 * 60 }),
  horizonDays: Type.Integer({ minimum: 1, maximum: 365 }),
  holdMinutes: Type.Integer({ minimum: 1, maximum: 120 }),
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

export const RecordTimeOff = input({ technicianId: Id, firstDate: LocalDate, lastDate: LocalDate, reason: Name });
export const RemoveTimeOff = input({ id: Id });
export const CloseDay = input({ date: LocalDate, reason: Name });
