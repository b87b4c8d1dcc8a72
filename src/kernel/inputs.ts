import { Type, type TSchema } from "@sinclair/typebox";

/** Pieces that many inputs share. Formats and sentences are known to the door (operations/check-input). */
export const Id = Type.Integer({ minimum: 1 });
export const Name = Type.String({
  minLength: 1,
  maxLength: 80,
  pattern: "\\S",
  patternSentence: "Please fill this in.",
});
export const Mail = Type.String({ format: "email", maxLength: 120 });
export const Phone = Type.String({ format: "phone" });
export const LocalDate = Type.String({ format: "date" });
export const MinuteOfDay = Type.Integer({ minimum: 0, maximum: 1440 });
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
