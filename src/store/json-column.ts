import type { TSchema } from "@sinclair/typebox";
import { Ajv } from "ajv";
import type { Json } from "./rows";

/** How lists and objects stand in a column of the database: written as JSON, and read only in the shape they must have. */
export interface JsonColumn<T> {
  /** Throws where the text is not of the column's shape: then a migration has been forgotten. */
  read: (text: Json) => T;
  write: (value: T) => Json;
}

const ajv = new Ajv();

/** `schema` says of the shape what reading relies on; what may be typed in is checked at the door, by the operation's own input. */
export function jsonColumn<T>(schema: TSchema): JsonColumn<T> {
  const isOfShape = ajv.compile<T>(schema);
  return {
    read(text) {
      const value: unknown = JSON.parse(text);
      if (!isOfShape(value)) throw new Error(`A column holds what it cannot: ${ajv.errorsText(isOfShape.errors)}`);
      return value;
    },
    write: (value) => JSON.stringify(value),
  };
}
