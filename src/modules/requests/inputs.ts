import { input } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

export const Photos = Type.Array(Type.String({ maxLength: 40 }), { maxItems: 6, uniqueItems: true });
/** The sealed link of a wish that can be met. */
export const WishToken = input({ token: Type.String({ maxLength: 100 }) });
