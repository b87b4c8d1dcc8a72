import { parsePhoneNumberFromString } from "libphonenumber-js/max";

/** Whether a number, as it is kept, is certainly a landline: one that takes no texts. */
export const isLandline = (phone: string): boolean => parsePhoneNumberFromString(phone)?.getType() === "FIXED_LINE";
