/** What is looked for, as an index of three letters in a row (SQLite's FTS5, tokenizer `trigram`) and a plain comparison can answer it. */
export interface SearchWords {
  /** A query of FTS5 for all words of three letters and more; null where there is none. */
  match: string | null;
  /** Shorter words, as patterns of LIKE with ESCAPE '\'. */
  short: string[];
}

/** At most so many words: more than that nobody types to find somebody. */
const mostWords = 8;

/**
 * Words as they are typed: each must be found in one of `columns`, in any part. What can be a phone number is looked for
 * in `phones` by its digits too, however it is written.
 */
export function searchWords(text: string, columns: readonly string[], phones: boolean): SearchWords {
  const words = text.replaceAll("\0", "").trim().split(/\s+/).filter(Boolean).slice(0, mostWords);
  const long = words.filter((word) => lengthOf(word) >= 3);
  const short = words.filter((word) => lengthOf(word) < 3);
  const inPhone = (written: string): string[] => {
    const digits = phones ? phoneDigits(written) : null;
    return digits === null ? [] : [`phone : ${quoted(digits)}`];
  };
  const anywhere = (word: string) => [`{${columns.join(" ")}} : ${quoted(word)}`, ...inPhone(word)].join(" OR ");
  const every = long.length ? long.map((word) => `(${anywhere(word)})`).join(" AND ") : null;
  // All of it may be one number, written in groups.
  const [whole] = words.length > 1 ? inPhone(text) : [];
  if (whole) return { match: every && short.length === 0 ? `(${every}) OR (${whole})` : whole, short: [] };
  return { match: every, short: short.map((word) => `%${word.replace(/[\\%_]/g, "\\$&")}%`) };
}

/** The digits of what can be a phone number, without what stands before them at home or abroad (0, 00, +); null where it is none. */
export function phoneDigits(text: string): string | null {
  if (!/^[+\d\s()./\p{Dash}]+$/u.test(text.trim())) return null;
  const digits = text.replace(/\(0\)/g, "").replace(/\D/g, "").replace(/^0+/, "");
  return digits.length >= 3 ? digits : null;
}

const lengthOf = (word: string): number => [...word].length;
const quoted = (word: string): string => `"${word.replaceAll('"', '""')}"`;
