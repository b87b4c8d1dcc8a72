import { Type, type Static } from "@sinclair/typebox";
import { kindsOfBusiness, type KindOfBusiness } from "@/core/catalogue/kinds";
import { allPermissions } from "@/core/people/permissions";
import { AddressId, RepeatEvery } from "./booking";
import { Questions } from "./catalogue";
import {
  Id,
  input,
  LocalDate,
  Mail,
  MinuteOfDay,
  Money,
  Name,
  OneOf,
  OrNull,
  Phone,
  PointSchema,
  Weekdays,
} from "./common";

const LongText = Type.String({ maxLength: 8000 });
const Currency = Type.String({ pattern: "^[A-Z]{3}$", patternSentence: "Three capitals, such as EUR." });
const MailOrNothing = Type.Union([Mail, Type.Literal("")]);
const Hue = Type.Integer({ minimum: 0, maximum: 7 });
/** A place with what it is called; an address of the look-up, or a point alone. */
const PlaceSchema = input({ ...PointSchema.properties, line: Type.Optional(Type.String({ maxLength: 200 })) });

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
/** Of an image that was sent before; null takes it away. */
export const ImageToken = OrNull(Type.String({ pattern: "^[A-Za-z0-9_-]{21}$" }));
const Hours = Type.Array(
  input({ weekday: Type.Integer({ minimum: 0, maximum: 6 }), opens: MinuteOfDay, closes: MinuteOfDay }),
  { maxItems: 42 },
);
/** Empty: everybody. */
const Technicians = Type.Array(Id, { maxItems: 500, uniqueItems: true });

const Position = Type.Array(Type.Number(), { minItems: 2, maxItems: 3 });
const Rings = Type.Array(Type.Array(Position, { minItems: 4, maxItems: 5000 }), { minItems: 1, maxItems: 100 });
/** Geometry as GeoJSON has it (RFC 7946). */
export const AreaSchema = Type.Union([
  input({ type: Type.Literal("Polygon"), coordinates: Rings }),
  input({ type: Type.Literal("MultiPolygon"), coordinates: Type.Array(Rings, { minItems: 1, maxItems: 100 }) }),
]);

/** What set-up saves. An `id` of null makes a new one; what is left out stays as it is. */
export const SaveZone = input({
  id: OrNull(Id),
  name: Name,
  postcodes: Type.Array(Type.String({ minLength: 1, maxLength: 30 }), { maxItems: 500 }),
  towns: Type.Optional(Type.Array(Name, { maxItems: 200 })),
  area: Type.Optional(OrNull(AreaSchema)),
  /** Of zones that overlap, the one with the highest. */
  priority: Type.Optional(Type.Integer({ minimum: -100, maximum: 100 })),
  /** Minutes on top of the drive into the zone and out of it. */
  extraMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: 240 })),
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

/** Zones from a file: made where the name is new, otherwise what the file says of them is changed. */
export const TakeZones = input({
  zones: Type.Array(
    input({
      name: Name,
      postcodes: Type.Optional(SaveZone.properties.postcodes),
      towns: SaveZone.properties.towns,
      area: SaveZone.properties.area,
      priority: SaveZone.properties.priority,
    }),
    { minItems: 1, maxItems: 1000 },
  ),
});
export const OneZone = input({ id: Id });

export const SaveTechnician = input({
  id: OrNull(Id),
  name: Name,
  phone: Phone,
  skills: Type.Array(
    input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }), validUntil: OrNull(LocalDate) }),
    { maxItems: 40 },
  ),
  hours: Hours,
  start: Type.Optional(PlaceSchema),
  end: Type.Optional(PlaceSchema),
  limits: Type.Optional(Limits),
  /** A subcontractor works by link, without signing in. */
  kind: Type.Optional(OneOf(["employee", "subcontractor"])),
  mail: Type.Optional(MailOrNothing),
  photo: Type.Optional(ImageToken),
  hue: Type.Optional(Hue),
  /** Empty: everywhere, everything. */
  zones: Type.Optional(Type.Array(Id, { maxItems: 500, uniqueItems: true })),
  services: Type.Optional(Type.Array(Id, { maxItems: 1000, uniqueItems: true })),
  /** Whether customers may be offered this person. */
  offered: Type.Optional(Type.Boolean()),
  mostMinutes: Type.Optional(OrNull(Type.Integer({ minimum: 15, maximum: 1440 }))),
  pay: Type.Optional(
    input({
      kind: OneOf(["none", "hourly", "salary"]),
      amountMinor: Money,
      hours: Type.Integer({ minimum: 1, maximum: 400 }),
      employerBp: Type.Integer({ minimum: 0, maximum: 30_000 }),
    }),
  ),
});
/** Somebody leaves, or comes back. */
export const SetTechnicianActive = input({ id: Id, active: Type.Boolean() });
export type SaveTechnician = Static<typeof SaveTechnician>;

/** What is ticked off on site. */
export const Checklist = Type.Array(
  input({ id: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }), words: Name, required: Type.Boolean() }),
  { maxItems: 60 },
);

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
  repeats: Type.Optional(Type.Array(RepeatEvery, { maxItems: 8 })),
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
export const DuplicateService = input({ id: Id });
/** Categories in their order, each with its services in theirs; a category can be renamed by the way. */
export const OrderServices = input({
  categories: Type.Array(input({ name: Name, was: Name, services: Type.Array(Id, { maxItems: 1000 }) }), {
    maxItems: 200,
  }),
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
  /** Off the price of windows on our way, basis points. */
  onOurWayBp: Type.Optional(Type.Integer({ minimum: 0, maximum: 5000 })),
});
export type SaveBookingRules = Static<typeof SaveBookingRules>;
/** Rules as they are being typed, for a sample address and service. */
export const PreviewWindows = input({ rules: SaveBookingRules, addressId: AddressId, serviceId: Id });

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
  mark: Type.Optional(ImageToken),
  place: Type.Optional(PlaceSchema),
  site: Type.Optional(Type.Union([Type.String({ format: "web-address", maxLength: 200 }), Type.Literal("")])),
  registration: Type.Optional(Type.String({ maxLength: 60 })),
  taxNumber: Type.Optional(Type.String({ maxLength: 60 })),
  /** Both stay as they are once work is promised or priced. */
  currency: Type.Optional(Currency),
  timeZone: Type.Optional(Type.String({ format: "time-zone" })),
  weekStart: Type.Optional(Type.Integer({ minimum: 0, maximum: 6 })),
  clockHours: Type.Optional(Type.Union([Type.Literal(12), Type.Literal(24)])),
  pricesIncludeTax: Type.Optional(Type.Boolean()),
  taxRates: Type.Optional(
    Type.Array(input({ name: Name, rateBp: Type.Integer({ minimum: 0, maximum: 10_000 }) }), { maxItems: 20 }),
  ),
  terms: Type.Optional(LongText),
  quoteText: Type.Optional(LongText),
  invoiceText: Type.Optional(LongText),
});
export type SaveBusiness = Static<typeof SaveBusiness>;

export const OpenBusiness = input({
  name: Name,
  phone: Phone,
  mail: Mail,
  currency: Currency,
  pricesIncludeTax: Type.Boolean(),
  timeZone: Type.String({ format: "time-zone" }),
  place: PointSchema,
  demo: Type.Boolean(),
});

const Permissions = Type.Array(OneOf(allPermissions), { maxItems: 40, uniqueItems: true });
export const SavePerson = input({
  id: OrNull(Id),
  name: Name,
  mail: Mail,
  role: OneOf(["owner", "dispatcher", "bookkeeper", "technician"]),
  /** Left out: the password stays. */
  password: Type.Optional(Type.String({ minLength: 10, maxLength: 200 })),
  technicianId: OrNull(Id),
  active: Type.Boolean(),
  given: Type.Optional(Permissions),
  taken: Type.Optional(Permissions),
});
export const SaveCoupon = input({
  id: OrNull(Id),
  code: Type.String({
    pattern: "^[A-Za-z0-9-]{3,30}$",
    patternSentence: "Three letters or figures at least, such as SPRING10.",
  }),
  kind: OneOf(["percent", "fixed"]),
  value: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** Empty: all. */
  services: Type.Array(Id, { maxItems: 1000, uniqueItems: true }),
  first: OrNull(LocalDate),
  last: OrNull(LocalDate),
  most: OrNull(Type.Integer({ minimum: 1, maximum: 1_000_000 })),
  active: Type.Boolean(),
});
/** A source under which bookings are counted; its slug stays, since links bear it. */
export const AddSource = input({ name: Name });
export const RemoveSource = input({ slug: Type.String({ maxLength: 60 }) });
/** Who handles incoming: a person, or whoever may. */
export const HandIncoming = input({ personId: OrNull(Id) });

/** Whole days, or the same hours of each day. */
export const RecordTimeOff = input({
  technicianId: Id,
  firstDate: LocalDate,
  lastDate: LocalDate,
  reason: Name,
  fromMinute: Type.Optional(MinuteOfDay),
  toMinute: Type.Optional(MinuteOfDay),
});
/** Hours of one date in place of the week's; null goes back to the week's. */
export const SetDayHours = input({
  technicianId: Id,
  date: LocalDate,
  spans: OrNull(Type.Array(input({ opens: MinuteOfDay, closes: MinuteOfDay }), { minItems: 1, maxItems: 6 })),
});
/** A blocked time, with or without a place to be at. */
export const RecordErrand = input({
  technicianId: Id,
  date: LocalDate,
  fromMinute: MinuteOfDay,
  toMinute: MinuteOfDay,
  title: Name,
  addressId: OrNull(Type.String({ maxLength: 40 })),
});
export const RemoveErrand = input({ id: Id });
export const RemoveTimeOff = input({ id: Id });

/** Weekly opening hours; none: open whenever somebody works. */
export const SaveOpening = input({ hours: Hours });
/** Spans of a special day, in order; none: closed. */
const specialDay = {
  name: Name,
  first: LocalDate,
  last: LocalDate,
  yearly: Type.Boolean(),
  spans: Type.Array(input({ opens: MinuteOfDay, closes: MinuteOfDay }), { maxItems: 6 }),
};
export const SaveSpecialDay = input({ id: OrNull(Id), ...specialDay });
export const RemoveSpecialDay = input({ id: Id });
/** Days read from a calendar file; those known already by name and date are left out. */
export const TakeSpecialDays = input({ days: Type.Array(input(specialDay), { minItems: 1, maxItems: 500 }) });

const Colour = Type.String({ pattern: "^(#[0-9a-f]{6})?$", patternSentence: "Choose a colour." });
/** Addresses of the web only: nothing that runs, nothing of another kind. */
const WebAddress = Type.String({ format: "web-address", maxLength: 300 });
export const SaveFrontDoor = input({
  welcome: Type.String({ maxLength: 600 }),
  picture: ImageToken,
  accent: Colour,
  ground: Colour,
  answers: Type.Array(input({ question: Name, answer: Type.String({ minLength: 1, maxLength: 1000 }) }), {
    maxItems: 20,
  }),
  fields: Questions,
  paysAtDoor: Type.Boolean(),
  doneWords: Type.String({ maxLength: 1000 }),
  doneAddress: Type.Union([Type.Literal(""), WebAddress]),
  showsContact: Type.Boolean(),
  takesWishes: Type.Boolean(),
  sites: Type.Array(WebAddress, { maxItems: 20, uniqueItems: true }),
  tells: Type.Array(
    Type.Union([input({ way: Type.Literal("mail"), to: Mail }), input({ way: Type.Literal("text"), to: Phone })]),
    { maxItems: 20 },
  ),
});
export type SaveFrontDoor = Static<typeof SaveFrontDoor>;

/** What directories are told: whether at all, and each category in their words. */
export const SaveDirectory = input({
  listed: Type.Boolean(),
  kinds: Type.Array(input({ category: Name, kind: OrNull(OneOf(Object.keys(kindsOfBusiness) as KindOfBusiness[])) }), {
    maxItems: 200,
  }),
});
