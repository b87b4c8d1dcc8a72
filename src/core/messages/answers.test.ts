import fc from "fast-check";
import { isDealtWith, type Meaning, meaningsOf, ownWords } from "./answers";
import heard from "./answers-heard.json";

describe("an answer", () => {
  const known = { names: ["Mira Okonjo", "Odile Brandt", "Marrowick Hearth & Flue"] };
  const all = Object.entries(heard as Record<Meaning | "", Record<string, string[]>>).flatMap(([meaning, byLanguage]) =>
    Object.values(byLanguage).flatMap((texts) => texts.map((text) => [text, meaning] as const)),
  );

  it("is one of 400 that people write, in two languages", () => expect(all.length).toBeGreaterThanOrEqual(400));

  it.each(all)("%s", (text, meaning) => {
    const meanings = meaningsOf(text, known);
    if (meaning === "") expect(meanings).toEqual([]);
    else expect(meanings).toContain(meaning);
    // Only what is certain needs nobody.
    const isCertain = ["confirms", "thanks", "stop", "start", "help"].includes(meaning);
    expect(isDealtWith(meanings)).toBe(isCertain);
  });

  it("calls danger what the owner has named, and nothing else", () => {
    const owners = { dangers: ["no power"] };
    expect(meaningsOf("There is no power in the house", owners)).toEqual(["danger"]);
    expect(meaningsOf("I smell gas", owners)).toEqual([]);
  });

  it("means the same in capitals, with accents and signs around it", () => {
    const words = fc.constantFrom("yes", "stop", "cancel", "another day please", "si", "gracias", "where is my key");
    fc.assert(
      fc.property(words, fc.constantFrom("", "!", ".", " :)", "\n"), fc.boolean(), (text, sign, loud) => {
        expect(meaningsOf(`${loud ? text.toUpperCase() : text}${sign}`)).toEqual(meaningsOf(text));
      }),
    );
  });
});

describe("an email", () => {
  it.each([
    "Yes\n\n> On Tuesday we come\n> between 9 and 11",
    "Yes\n\nOn Tue, 3 Mar 2027 at 10:02, Marrowick <office@marrowick.example> wrote:\n> Hello",
    "Yes\n\nOn Tue, 3 Mar 2027 at 10:02, Marrowick Hearth & Flue\n<office@marrowick.example> wrote:\nHello",
    "Yes\r\n\r\n-----Original Message-----\r\nFrom: office",
    "Yes\n-- \nMira Okonjo\n12 Beacon Street",
    "Yes\n\nEl mar, 3 mar 2027, Marrowick escribió:\nHola",
  ])("is read without what it quotes", (mail) => expect(ownWords(mail)).toBe("Yes"));
});
