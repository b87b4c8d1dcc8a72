import { type Static, type TSchema, Type } from "@sinclair/typebox";

/** Pieces that many inputs share. Formats and sentences are known to the door (operations/check-input). */
export const Id = Type.Integer({ minimum: 1 });
export const Name = Type.String({
  minLength: 1,
  maxLength: 80,
  pattern: "\\S",
  patternSentence: "Please fill this in.",
});
/** Of a person whom we write to: a name without a web address, so that nobody sends one through us. */
export const PersonName = Type.String({
  minLength: 1,
  maxLength: 80,
  pattern: "\\S",
  patternSentence: "Please fill this in.",
  format: "person-name",
});
export const Mail = Type.String({ format: "email", maxLength: 120 });
export const Phone = Type.String({ format: "phone" });
export const DateText = Type.String({ format: "date" });
export const MinuteOfDay = Type.Integer({ minimum: 0, maximum: 1440 });
/** Where a span of a day ends: beyond 1440 it is in the night that follows. */
export const EndMinute = Type.Integer({ minimum: 0, maximum: 2880 });
export const Money = Type.Integer({ minimum: 0, maximum: 100_000_000 });
export const Weekdays = Type.Integer({ minimum: 1, maximum: 127 });
export const PointSchema = Type.Object(
  { lng: Type.Number({ minimum: -180, maximum: 180 }), lat: Type.Number({ minimum: -90, maximum: 90 }) },
  { additionalProperties: false },
);
export const input = <T extends Record<string, TSchema>>(properties: T) =>
  Type.Object(properties, { additionalProperties: false });
export const OneOf = <const T extends readonly string[]>(values: T) =>
  Type.Unsafe<T[number]>({ type: "string", enum: values as unknown as string[] });
export const OrNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);

export const Nothing = input({});

/** At most so many visits; null takes the limit away. */
const LimitOrNull = OrNull(Type.Integer({ minimum: 0, maximum: 10_000 }));
export const Limits = input({ window: LimitOrNull, day: LimitOrNull, week: LimitOrNull });
export type Limits = Static<typeof Limits>;
/** Empty: everybody. */
export const Technicians = Type.Array(Id, { maxItems: 500, uniqueItems: true });

/** Of an image that was sent before; null takes it away. */
export const ImageToken = OrNull(Type.String({ pattern: "^[A-Za-z0-9_-]{21}$" }));

/** A window that was chosen of those offered: its day, and epoch minutes. */
export const windowChosen = { date: DateText, from: Type.Integer({ minimum: 0 }), to: Type.Integer({ minimum: 0 }) };

/** Signed by name and pen: the drawing is a PNG as a data: address. */
export const Signed = input({
  name: Name,
  drawing: Type.String({
    maxLength: 200_000,
    pattern: "^data:image/png;base64,[A-Za-z0-9+/=]{100,}$",
    patternSentence: "Sign with your finger or the mouse.",
  }),
});
export type Signed = Static<typeof Signed>;
