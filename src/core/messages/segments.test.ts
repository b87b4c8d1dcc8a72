import fc from "fast-check";
import { cheaperSpelling, segmentsOf } from "./segments";

const of = (text: string) => {
  const { alphabet, parts, left } = segmentsOf(text);
  return [alphabet, parts, left];
};

it.each([
  ["nothing", "", ["GSM-7", 1, 160]],
  ["as much as one holds", "a".repeat(160), ["GSM-7", 1, 0]],
  ["one letter more, which makes two joined parts", "a".repeat(161), ["GSM-7", 2, 145]],
  ["two full joined parts", "a".repeat(306), ["GSM-7", 2, 0]],
  ["a euro, which counts twice", `${"a".repeat(158)}€`, ["GSM-7", 1, 0]],
  [
    "a euro that would be cut in two, which goes into the next part",
    `${"a".repeat(152)}€${"a".repeat(10)}`,
    ["GSM-7", 2, 141],
  ],
  ["a letter that is in no table of 7 bits", "ł", ["UCS-2", 1, 69]],
  ["as many of those as one holds", "ł".repeat(70), ["UCS-2", 1, 0]],
  ["one more of those", "ł".repeat(71), ["UCS-2", 2, 63]],
  ["a pair of surrogates that would be cut in two", `${"ł".repeat(66)}😀${"ł".repeat(5)}`, ["UCS-2", 2, 60]],
])("counts %s", (_, text, expected) => {
  expect(of(text)).toEqual(expected);
});

/** The tables of the standard, as they are printed: column by column. */
const table =
  "@Δ 0¡P¿p£_!1AQaq$Φ\"2BRbr¥Γ#3CScsèΛ¤4DTdtéΩ%5EUeuùΠ&6FVfvìΨ'7GWgwòΣ(8HXhxÇΘ)9IYiy\nΞ*:JZjzØ+;KÄkäøÆ,<LÖlö\ræ-=MÑmñÅß.>NÜnüåÉ/?O§oà";

it("knows each character of the standard’s table, and no other", () => {
  expect(new Set(table).size).toBe(127);
  for (let code = 0; code < 0x2_500; code++) {
    const letter = String.fromCharCode(code);
    const expected = table.includes(letter) ? 159 : "\f^{}\\[~]|€".includes(letter) ? 158 : null;
    const { alphabet, left } = segmentsOf(letter);
    expect([letter, alphabet === "GSM-7" ? left : null]).toEqual([letter, expected]);
  }
});

it("needs no more parts than any cutting that keeps characters whole, and says how many units are left", () => {
  const letter = fc.constantFrom("a", "é", "€", "[", "ł", "😀", " ");
  fc.assert(
    fc.property(fc.array(letter, { maxLength: 400 }), (letters) => {
      const { alphabet, parts, left } = segmentsOf(letters.join(""));
      const size = (one: string) => (alphabet === "UCS-2" ? one.length : "€[".includes(one) ? 2 : 1);
      const [alone, joined] = alphabet === "UCS-2" ? [70, 67] : [160, 153];
      const all = letters.reduce((sum, one) => sum + size(one), 0);
      if (all <= alone) return expect([parts, left]).toEqual([1, alone - all]);
      const filled = [0];
      for (const one of letters) {
        if (filled.at(-1)! + size(one) > joined) filled.push(0);
        filled[filled.length - 1]! += size(one);
      }
      expect([parts, left]).toEqual([filled.length, joined - filled.at(-1)!]);
    }),
  );
});

it("names the letters that make a message dear, and offers a spelling without them where there is one", () => {
  const text = "Zofia Łukasik’s visit – tomorrow, 9–11…";
  expect(segmentsOf(text).dear).toEqual(["Ł", "’", "–", "…"]);
  expect(cheaperSpelling(text)).toBe("Zofia Lukasik's visit - tomorrow, 9-11...");
  expect(segmentsOf(cheaperSpelling(text)).alphabet).toBe("GSM-7");
  expect(cheaperSpelling("是 é ñ š")).toBe("是 é ñ s");
});
