import { moneyWords } from "./money/amounts";

/** An entry that two people have changed, each to something else. */
export interface ChangedByBoth<D> {
  field: keyof D & string;
  mine: unknown;
  theirs: unknown;
}

/**
 * What two people have made of one form, put together: what only one of them changed is kept, and where both changed the
 * same entry mine stays in the draft and both are named.
 */
export function mergeDrafts<D extends object>(base: D, mine: D, theirs: D): { draft: D; both: ChangedByBoth<D>[] } {
  const draft = { ...mine };
  const both: ChangedByBoth<D>[] = [];
  for (const field of Object.keys({ ...theirs, ...mine }) as (keyof D & string)[]) {
    if (isSame(theirs[field], base[field]) || isSame(mine[field], theirs[field])) continue;
    if (isSame(mine[field], base[field])) draft[field] = theirs[field];
    else both.push({ field, mine: mine[field], theirs: theirs[field] });
  }
  return { draft, both };
}

/** Whether two values say the same, in whatever order their entries stand. */
export const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));

const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value !== null && typeof value === "object"
      ? Object.fromEntries(
          Object.entries(value)
            .filter(([, of]) => of !== undefined)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([name, of]) => [name, sorted(of)]),
        )
      : value;

/** The name of an entry in words: "priceMinor" is "Price". */
export function fieldWords(field: string): string {
  const words = field
    .replace(/(Minor|Bp|Minutes)$/, "")
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase();
  return words ? words[0]!.toUpperCase() + words.slice(1) : field;
}

/** A value of a form in a few words, for whoever has to choose between two. */
export function valueWords(field: string, value: unknown, currency: string): string {
  if (value === null || value === undefined || value === "" || (Array.isArray(value) && value.length === 0))
    return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number")
    return field.endsWith("Minor")
      ? moneyWords(value, currency)
      : field.endsWith("Bp")
        ? `${value / 100}%`
        : String(value);
  if (Array.isArray(value)) return short(value.map((one) => valueWords(field, one, currency)).join("; "));
  if (typeof value === "object")
    return short(
      Object.entries(value)
        .map(([name, of]) => `${fieldWords(name).toLowerCase()} ${valueWords(name, of, currency)}`)
        .join(", "),
    );
  return short(String(value));
}

const longest = 160;
const short = (words: string): string => (words.length > longest ? `${words.slice(0, longest - 1)}…` : words);
