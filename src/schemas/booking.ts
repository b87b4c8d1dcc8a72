import { Type, type Static } from "@sinclair/typebox";
import { Id, input, LocalDate, Mail, MinuteOfDay, Name, OneOf, OrNull, Phone } from "./common";

/** Answers by question: whether they fit the questions is for core to say. */
const Answers = Type.Record(
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
/** The services of an order, the main one first, with what was answered and chosen for each. */
export const Items = Type.Array(
  input({
    serviceId: Id,
    quantity: Type.Optional(Type.Integer({ minimum: 1, maximum: 99 })),
    answers: Type.Optional(Answers),
    extras: Type.Optional(Extras),
  }),
  { minItems: 1, maxItems: 12 },
);
/** `technicianId`: the technician a customer wishes for, where the service lets them. */
const order = { items: Items, technicianId: Type.Optional(OrNull(Id)) };

/** Of the look-up, or of an address that was typed. */
export const AddressId = Type.String({ maxLength: 400 });
const Photos = Type.Array(Type.String({ maxLength: 40 }), { maxItems: 6, uniqueItems: true });

/** The window somebody chose: epoch minutes, as the offer said them. */
const chosen = {
  addressId: AddressId,
  ...order,
  date: LocalDate,
  from: Type.Integer({ minimum: 0 }),
  to: Type.Integer({ minimum: 0 }),
};
/** `from`: the date to begin with; absent: the soonest. */
export const AskOffers = input({ addressId: chosen.addressId, ...order, from: Type.Optional(LocalDate) });
export const FindAddress = input({ text: Type.String({ maxLength: 120 }) });
export const OneAddress = input({ addressId: chosen.addressId });
/** `slug`: the service whose link somebody came by. */
export const ServicesAt = input({
  addressId: chosen.addressId,
  slug: Type.Optional(OrNull(Type.String({ maxLength: 80 }))),
});

export const RepeatEvery = input({
  every: Type.Integer({ minimum: 1, maximum: 120 }),
  unit: OneOf(["day", "week", "month", "year"]),
});
export const TypeAddress = input({
  line: Type.String({ minLength: 3, maxLength: 120 }),
  postcode: Type.String({ minLength: 2, maxLength: 20 }),
});
export const HoldOffer = input({ ...chosen, instead: Type.Optional(Type.String({ maxLength: 60 })) });

export const Booker = input({
  name: Name,
  mail: Mail,
  phone: Phone,
  reminders: Type.Boolean(),
  offers: Type.Optional(Type.Boolean()),
});

/** Who books, and their answers to the owner's own fields, before all else is sent. */
export const CheckBooker = input({ customer: Booker, fields: Type.Optional(Answers) });

export const Book = input({
  ...chosen,
  hold: Type.Optional(Type.String({ maxLength: 60 })),
  customer: Booker,
  note: Type.String({ maxLength: 1000 }),
  photos: Type.Optional(Photos),
  /** Answers to the owner's own fields. */
  fields: Type.Optional(Answers),
  /** How often it comes again, where the services allow. */
  repeat: Type.Optional(OrNull(RepeatEvery)),
  /** Paid when we are there, where the business allows. */
  atDoor: Type.Optional(Type.Boolean()),
  cardToken: Type.Optional(Type.String({ maxLength: 80 })),
  keepCard: Type.Optional(Type.Boolean()),
  /** All of it now, where the service allows. */
  payAll: Type.Optional(Type.Boolean()),
  coupon: Type.Optional(Type.String({ maxLength: 40 })),
  /** The total that was read, minor units: a higher one is refused. */
  shownMinor: Type.Optional(Type.Integer({ minimum: 0 })),
  /** The source that stood in the link somebody came by. */
  source: Type.Optional(OrNull(Type.String({ maxLength: 200 }))),
});
export type Book = Static<typeof Book>;

export const BookInOffice = input({
  ...chosen,
  customer: Type.Union([input({ id: Id }), Booker]),
  note: Type.String({ maxLength: 1000 }),
});

export const MoveVisit = input({
  visitId: Id,
  technicianIds: Type.Array(Id, { minItems: 1, maxItems: 9, uniqueItems: true }),
  date: LocalDate,
  fromMinute: MinuteOfDay,
  toMinute: MinuteOfDay,
});
export const PlacementOptions = input({ visitId: Id, date: LocalDate });
/** Why a window is or is not offered on a date; `technicianId` is a customer's wish, or null. */
export const WhyNot = input({
  addressId: chosen.addressId,
  serviceId: Id,
  date: LocalDate,
  technicianId: OrNull(Id),
  only: Type.Boolean(),
  answers: Type.Optional(Answers),
});
export const CancelVisit = input({
  visitId: Id,
  refundDeposit: Type.Boolean(),
  chargeNoAccess: Type.Optional(Type.Boolean()),
});
export const AdvanceVisit = input({
  visitId: Id,
  to: OneOf(["on the way", "on site", "done", "no access"]),
  ticked: Type.Optional(Type.Array(Type.String({ maxLength: 40 }), { maxItems: 60 })),
});
export const MakeRepeat = input({
  visitId: Id,
  every: Type.Integer({ minimum: 1, maximum: 120 }),
  unit: OneOf(["day", "week", "month", "year"]),
  until: OrNull(LocalDate),
});
export const OneRepeat = input({ repeatId: Id });
export const OneVisit = input({ visitId: Id });
export const OneJob = input({ jobId: Id });
export const windowChosen = { date: LocalDate, from: Type.Integer({ minimum: 0 }), to: Type.Integer({ minimum: 0 }) };
export const MoveByLink = input(windowChosen);
/** The fee that was shown, minor units. */
export const CancelByLink = input({ feeMinor: Type.Integer({ minimum: 0 }) });
export const AddByLink = input({ words: Type.String({ maxLength: 500 }), photos: Photos });
/** Whether a repeat goes on. */
export const RepeatByLink = input({ goesOn: Type.Boolean() });
/** What a customer agrees to, or does not any more. */
export const ConsentByLink = input({ kind: OneOf(["reminders", "offers"]), given: Type.Boolean() });
/** Answers to what a service of the booking still asks; `position`: which of its services. */
export const AnswerByLink = input({ position: Type.Integer({ minimum: 0, maximum: 12 }), answers: Answers });
export const CheckCoupon = input({
  code: Type.String({ minLength: 1, maxLength: 40 }),
  serviceIds: Type.Array(Id, { minItems: 1, maxItems: 12 }),
});
const Wish = input({
  weekdays: Type.Integer({ minimum: 1, maximum: 127 }),
  from: MinuteOfDay,
  to: MinuteOfDay,
  until: OrNull(LocalDate),
});
/** What cannot be booked as it stands: an address of the look-up, or typed by hand; services where some were chosen; days and times that would suit. */
export const MakeRequest = input({
  addressId: OrNull(chosen.addressId),
  items: Type.Optional(Type.Array(Items.items, { maxItems: 12 })),
  address: Type.String({ maxLength: 200 }),
  name: Name,
  mail: Mail,
  phone: Phone,
  wishes: Type.String({ maxLength: 1000 }),
  photos: Type.Optional(Photos),
  wish: Type.Optional(OrNull(Wish)),
});
/** What waits for a person: a booking by its job, a request, or a quote. */
export const IncomingEntry = input({ kind: OneOf(["booking", "request", "quote"]), id: Id });
const Entries = Type.Array(IncomingEntry, { minItems: 1, maxItems: 200 });
export const ApproveBookings = input({ jobIds: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });
export const ProposeWindow = input({ jobId: Id, ...windowChosen });
export const DeclineIncoming = input({ entries: Entries, reason: Type.String({ minLength: 3, maxLength: 400 }) });
export const TakeOn = input({ entries: Entries, personId: OrNull(Id) });
export const AnswerRequests = input({ ids: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });
export const OneRequest = input({ id: Id });
/** Where a request is, as the office has found out. */
export const LocateRequest = input({ requestId: Id, addressId: chosen.addressId });
/** A request booked by the office: at one of the windows that somebody can keep, or at any other that can. */
export const BookRequest = input({ requestId: Id, ...windowChosen, serviceId: Type.Optional(Id) });
/** The sealed link of a wish that can be met. */
export const WishToken = input({ token: Type.String({ maxLength: 100 }) });
/** Two customers side by side. */
export const OnePair = input({ pairId: Id });
export const MergeCustomers = input({ pairId: Id, keepId: Id });
export const KeepApart = input({ pairId: Id, apart: Type.Boolean() });
