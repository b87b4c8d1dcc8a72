import { input } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

/** Of the look-up, or of an address that was typed. */
export const AddressId = Type.String({ maxLength: 400 });
export const FindAddress = input({ text: Type.String({ maxLength: 120 }) });
