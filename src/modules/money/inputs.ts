import { Type } from "@sinclair/typebox";

export const reference = Type.String({ maxLength: 80 });
