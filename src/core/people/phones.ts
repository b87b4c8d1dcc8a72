import { type CountryCode, parsePhoneNumberFromString, validatePhoneNumberLength } from "libphonenumber-js";

/** What is wrong with a phone number as typed, as a sentence, or null. `own` is the business's number: its country is meant where none is typed. */
export function phoneProblem(text: string, own: string): string | null {
  const digits = text.replace(/\D/g, "");
  if (!/^[+\d ()./-]*$/.test(text.trim()) || digits.length < 6) return "Write a phone number, such as +1 555 0142.";
  const problem = validatePhoneNumberLength(text, countryOf(own));
  return problem === "TOO_LONG" || digits.length > 15 ? "This number is too long. Check its digits." : null;
}

/** A number as it is kept: "+351 912 345 678" where it can be read, as typed otherwise. */
export const phoneKept = (text: string, own: string): string =>
  parsed(text, own)?.formatInternational() ?? text.trim().replace(/\s+/g, " ");

/** What two numbers have in common when they ring the same phone: their digits with the country's code. */
export const phoneKey = (text: string, own: string): string => (parsed(text, own)?.number ?? text).replace(/\D/g, "");

function parsed(text: string, own: string) {
  const code = parsePhoneNumberFromString(own)?.countryCallingCode;
  const number = parsePhoneNumberFromString(text, code ? { defaultCallingCode: code } : {});
  return number?.isPossible() ? number : undefined;
}

/** The country of a number that is written with it (ISO 3166-1 alpha-2). */
export const countryOf = (own: string): CountryCode | undefined => parsePhoneNumberFromString(own)?.country;

/** Whether a number is of the country of another; one that is written without a country is. */
export function isOfSameCountry(text: string, own: string): boolean {
  const code = parsePhoneNumberFromString(own)?.countryCallingCode;
  return code === undefined || (parsed(text, own)?.countryCallingCode ?? code) === code;
}
