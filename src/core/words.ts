/** How many, with the noun that agrees: "1 visit", "2 visits", "no visits". */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  n === 0 ? `no ${many}` : n === 1 ? `1 ${one}` : `${n} ${many}`;

/** A text in one line, without spaces around it or two in a row. */
export const tidy = (text: string): string => text.trim().replace(/\s+/g, " ");

/** With a capital at the beginning, as a sentence begins. */
export const upper = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
