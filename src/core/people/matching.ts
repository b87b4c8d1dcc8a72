import { phoneKey } from "./phones";

export interface Contact {
  name: string;
  mail: string;
  phone: string;
  /** Addresses of their sites, as they are written. */
  places?: readonly string[];
}

/**
 * Whether two are the same person. Certain where the name is the same, written in full or with initials,
 * and so is the mail or the phone; likely where only one of these is, since a household shares a mail, or where
 * the same name lives at the same address. `own` is the business's phone, for numbers without a country.
 */
export function matchOf(one: Contact, other: Contact, own: string): "certain" | "likely" | null {
  const name = sameName(one.name, other.name);
  const mail = isSameMail(one.mail, other.mail);
  const phone = samePhone(one.phone, other.phone, own);
  if (name && (mail || phone)) return "certain";
  const place = (one.places ?? []).some((line) => other.places?.includes(line));
  return mail || phone || (name && place) ? "likely" : null;
}

/** Whether two are one email address; none is nobody's. */
export const isSameMail = (one: string, other: string): boolean =>
  one.trim() !== "" && one.trim().toLowerCase() === other.trim().toLowerCase();

/** Whether two numbers ring the same phone. Those that do not end alike are not read any further. */
export function samePhone(one: string, other: string, own: string): boolean {
  const end = (phone: string) => phone.replace(/\D/g, "").slice(-6);
  if (end(one).length < 6 || end(one) !== end(other)) return false;
  return phoneKey(one, own) === phoneKey(other, own);
}

/** "Mira Okonjo", "okonjo, mira", "M. Okonjo" and "Mira A. Okonjo" are one name; "Mira" and "Mira Okonjo" are not. */
export function sameName(one: string, other: string): boolean {
  const [short, long] = [nameWords(one), nameWords(other)].sort((a, b) => a.length - b.length) as [string[], string[]];
  if (short.length === 0 || (short.length === 1 && long.length > 1)) return false;
  const left = [...long];
  // A family name is never an initial: somebody must share at least one whole word.
  const whole = short.some((word) => word.length > 1 && long.includes(word));
  return (
    whole &&
    short.every((word) => {
      const at = left.findIndex(
        (candidate) =>
          candidate === word ||
          (isInitial(word) && candidate.startsWith(word)) ||
          (isInitial(candidate) && word.startsWith(candidate)),
      );
      return at >= 0 && left.splice(at, 1).length > 0;
    })
  );
}

const isInitial = (word: string): boolean => word.length === 1;

/** Words of a name without case and accents, and without the letter by which some are written out: Müller and Mueller are one. */
export const nameWords = (name: string): string[] =>
  name
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replaceAll("ß", "ss")
    .replaceAll("ø", "o")
    .replaceAll("æ", "ae")
    .replaceAll("œ", "oe")
    .replace(/([aou])e/g, "$1")
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
