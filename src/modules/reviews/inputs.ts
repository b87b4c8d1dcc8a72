import { input } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

export const ReviewToken = input({ token: Type.String({ maxLength: 100 }) });
