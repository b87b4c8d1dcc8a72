import { input, PointSchema } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

export const Currency = Type.String({ pattern: "^[A-Z]{3}$", patternSentence: "Three capitals, such as EUR." });
/** A place with what it is called; an address of the look-up, or a point alone. */
export const PlaceSchema = input({ ...PointSchema.properties, line: Type.Optional(Type.String({ maxLength: 200 })) });
