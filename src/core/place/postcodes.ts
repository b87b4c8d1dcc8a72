import { withoutEnd } from "@/core/words";
/**
 * Postcode patterns of a zone: an exact code (`MW 101`), a range (`MW 101-109`) or a beginning
 * (`MW 1*`). Spaces and capitals do not matter.
 */
export const normalPostcode = (text: string): string => text.toUpperCase().replace(/[^A-Z0-9]/g, "");

/** Null where the pattern can be read, otherwise the sentence that says what is wrong. */
export function patternProblem(pattern: string): string | null {
  const text = pattern.trim();
  if (!text) return "Write a postcode, such as MW 101, a range MW 101-109, or a beginning MW 1*.";
  if (!/^[A-Za-z0-9 ]+(?:\*|-[A-Za-z0-9 ]+)?$/.test(text))
    return `“${text}” is not a postcode. Write MW 101, a range MW 101-109, or a beginning MW 1*.`;
  const range = rangeOf(text);
  if (range && (range.from.prefix !== range.to.prefix || range.from.number > range.to.number))
    return `The range “${text}” should run upwards with the same letters, such as MW 101-109.`;
  return null;
}

/** Whether a postcode falls under a pattern. */
export function matchesPostcode(pattern: string, postcode: string): boolean {
  const code = normalPostcode(postcode);
  if (pattern.trim().endsWith("*")) return code.startsWith(normalPostcode(pattern));
  const range = rangeOf(pattern);
  if (!range) return code === normalPostcode(pattern);
  const parts = split(code);
  return (
    parts !== null &&
    parts.prefix === range.from.prefix &&
    parts.number >= range.from.number &&
    parts.number <= range.to.number
  );
}

/** Both ends of a range, or null where the pattern is none. */
export function rangeOf(pattern: string) {
  const [first, last, ...more] = pattern.split("-").map((part) => part.trim());
  if (!first || !last || more.length) return null;
  const from = split(normalPostcode(first));
  // "MW 101-109": the letters need not be said twice.
  const to = from && split(/^\d+$/.test(last) ? from.prefix + last : normalPostcode(last));
  return from && to ? { from, to } : null;
}

function split(code: string): { prefix: string; number: number } | null {
  const prefix = withoutEnd(code, /\d/);
  return prefix === code ? null : { prefix, number: Number(code.slice(prefix.length)) };
}
