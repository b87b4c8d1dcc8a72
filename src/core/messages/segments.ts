/** The 7-bit default alphabet and its extension table (3GPP TS 23.038, 6.2.1): the latter's characters take two septets. */
const basic =
  "@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !\"#¤%&'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà";
const extension = "\f^{}\\[~]|€";
const septets = new Map<string, number>([
  ...[...basic].map((letter): [string, number] => [letter, 1]),
  ...[...extension].map((letter): [string, number] => [letter, 2]),
]);

/** Units of a message alone, and of each part of several, which carry a header that joins them (3GPP TS 23.040, 9.2.3.24.1). */
const sizes = { "GSM-7": { alone: 160, joined: 153 }, "UCS-2": { alone: 70, joined: 67 } } as const;

/** How a text message is sent: in which alphabet, in how many parts that are paid for, and what fits into the last of them. */
export interface Segments {
  alphabet: "GSM-7" | "UCS-2";
  parts: number;
  /** Septets or 16-bit units that are still free in the last part. */
  left: number;
  /** Letters because of which it is sent in 16 bits each, once each; none in GSM-7. */
  dear: string[];
}

/** Counts a text message as networks do: no character is cut in two, neither an escaped one nor a pair of surrogates. */
export function segmentsOf(text: string): Segments {
  const letters = [...text];
  const dear = [...new Set(letters.filter((letter) => !septets.has(letter)))];
  const alphabet = dear.length ? "UCS-2" : "GSM-7";
  const units = letters.map((letter) => (alphabet === "GSM-7" ? septets.get(letter)! : letter.length));
  const { alone, joined } = sizes[alphabet];
  const all = units.reduce((sum, n) => sum + n, 0);
  if (all <= alone) return { alphabet, parts: 1, left: alone - all, dear };
  let [parts, left] = [1, joined];
  for (const n of units) {
    if (n > left) [parts, left] = [parts + 1, joined];
    left -= n;
  }
  return { alphabet, parts, left, dear };
}

/** What stands for letters that have no plain one beneath their marks. */
const plainer: Record<string, string> = {
  "‘": "'",
  "’": "'",
  "‚": ",",
  "“": '"',
  "”": '"',
  "„": '"',
  "–": "-",
  "—": "-",
  "−": "-",
  "…": "...",
  "•": "-",
  "·": "-",
  "×": "x",
  "\u00a0": " ",
  "\u202f": " ",
  "→": "->",
  ł: "l",
  Ł: "L",
  đ: "d",
  Đ: "D",
  œ: "oe",
  Œ: "OE",
};

/** A letter as the 7-bit alphabet has it, or null where it has nothing like it. */
function cheaperLetter(letter: string): string | null {
  if (septets.has(letter)) return letter;
  const bare = plainer[letter] ?? letter.normalize("NFKD").replace(/\p{M}/gu, "");
  return bare !== "" && [...bare].every((one) => septets.has(one)) ? bare : null;
}

/** The same words in the 7-bit alphabet, where that can be; letters that have nothing like them stay. */
export const cheaperSpelling = (text: string): string =>
  [...text].map((letter) => cheaperLetter(letter) ?? letter).join("");

/** The same words with plain dashes, quotes and points: signs that only make a text dear, and no letter of a name. */
export const plainSigns = (text: string): string =>
  [...text].map((sign) => (/\p{L}/u.test(sign) ? sign : (plainer[sign] ?? sign))).join("");
