/** How many, with the noun that agrees: "1 visit", "2 visits", "no visits". */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  n === 0 ? `no ${many}` : n === 1 ? `1 ${one}` : `${n} ${many}`;

/** "1st", "22nd", "13th". */
export function ordinal(n: number): string {
  const tens = n % 100;
  const ending = tens >= 11 && tens <= 13 ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th");
  return `${n}${ending}`;
}

/** A text in one line, without spaces around it or two in a row. */
export const tidy = (text: string): string => text.trim().replace(/\s+/g, " ");

/** With a capital at the beginning, as a sentence begins. */
export const upper = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** A text without the signs of a kind at its end. */
export function withoutEnd(text: string, kind: RegExp): string {
  const signs = [...text];
  while (signs.length && kind.test(signs.at(-1)!)) signs.pop();
  return signs.join("");
}
