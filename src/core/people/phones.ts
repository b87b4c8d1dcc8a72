import { type CountryCode, parsePhoneNumberFromString, validatePhoneNumberLength } from "libphonenumber-js";

/** A number as people paste it, in plain signs: whatever spaces and dashes it has, 00 for +, and (0) that is not dialled. */
const plainly = (text: string): string =>
  text
    .normalize("NFKC")
    .replace(/[\u200B-\u200F\u202A-\u202E\u2060\uFEFF]/g, "")
    .replace(/[\p{Zs}\t]/gu, " ")
    .replace(/[\p{Pd}\u2212]/gu, "-")
    .trim()
    .replace(/^00(?=[1-9])/, "+")
    .replace("(0)", "");

/** What is wrong with a phone number as typed, as a sentence, or null. `own` is the business's number: its country is meant where none is typed. */
export function phoneProblem(text: string, own: string): string | null {
  const plain = plainly(text);
  const digits = plain.replace(/\D/g, "");
  if (/\b(?:ext|extension|x)[. :]{0,2}\d{1,6}$/i.test(plain))
    return "Write the number without its extension, and the extension in your note.";
  if (!/^[+\d ()./-]*$/.test(plain) || digits.length < 6 || /^0+$/.test(digits))
    return "Write a phone number, such as +1 555 0142.";
  const problem = validatePhoneNumberLength(plain, countryOf(own));
  return problem === "TOO_LONG" || digits.length > 15 ? "This number is too long. Check its digits." : null;
}

/** A number as it is kept: "+351 912 345 678" where it can be read, as typed otherwise. */
export const phoneKept = (text: string, own: string): string =>
  parsed(text, own)?.formatInternational() ?? plainly(text).replace(/\s+/g, " ");

/** What two numbers have in common when they ring the same phone: their digits with the country's code. */
export const phoneKey = (text: string, own: string): string => (parsed(text, own)?.number ?? text).replace(/\D/g, "");

function parsed(text: string, own: string) {
  const code = parsePhoneNumberFromString(own)?.countryCallingCode;
  const number = parsePhoneNumberFromString(plainly(text), code ? { defaultCallingCode: code } : {});
  return number?.isPossible() ? number : undefined;
}

/** The country of a number that is written with it (ISO 3166-1 alpha-2). */
export const countryOf = (own: string): CountryCode | undefined => parsePhoneNumberFromString(own)?.country;

/** Whether a number is of the country of another; one that is written without a country is. */
export function isOfSameCountry(text: string, own: string): boolean {
  const code = parsePhoneNumberFromString(own)?.countryCallingCode;
  return code === undefined || (parsed(text, own)?.countryCallingCode ?? code) === code;
}
