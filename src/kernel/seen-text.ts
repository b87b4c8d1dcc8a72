/**
 * What cannot be seen is no text: control characters, marks that turn the direction of writing, and spaces of no width.
 * What joins letters and signs (U+200C, U+200D) stays, since some scripts need it. Lines and tabs stay.
 */
const unseen =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F\u00AD\u061C\u180E\u200B\u200E\u200F\u2028-\u202E\u2060-\u206F\uFEFF\uFFF9-\uFFFB]/g;

/** A copy of an input in which every text is only what can be seen. Deeper than `deepest` it is refused with a RangeError. */
export function seenText(value: unknown, deepest = 40): unknown {
  if (deepest < 0) throw new RangeError("too deep");
  if (typeof value === "string") return value.replace(unseen, "");
  if (Array.isArray(value)) return value.map((entry) => seenText(entry, deepest - 1));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, entry]) => [key, seenText(entry, deepest - 1)]));
}
