import fc from "fast-check";
import { isDealtWith, meaningsOf, ownWords } from "./answers";

describe("an answer", () => {
  it.each(["C", "c", "Yes", "yes!", "OK", "Sí", "si, gracias", "vale", "👍", "Yes, see you then", "Confirmed."])(
    "confirms: %s",
    (text) => expect(meaningsOf(text)).toEqual(["confirms"]),
  );

  it.each([
    ["C. But could you come an hour later? The little one has school.", ["confirms", "wishes to move"]],
    ["Could we do another day?", ["wishes to move"]],
    ["no", ["wishes to move"]],
    ["I can't make it on Thursday", ["wishes to move"]],
    ["No puedo el jueves", ["wishes to move"]],
    ["Please cancel", ["wishes to cancel"]],
    ["ok, cancel it", ["wishes to cancel"]],
    ["ya no lo necesito", ["wishes to cancel"]],
  ] as const)("is read, and stands before a person: %s", (text, meanings) => {
    expect(meaningsOf(text)).toEqual(meanings);
    expect(isDealtWith(meaningsOf(text))).toBe(false);
  });

  it.each([
    ["STOP", "stop"],
    ["stop.", "stop"],
    ["Unsubscribe", "stop"],
    ["START", "start"],
    ["Help!", "help"],
    ["Thank you!", "thanks"],
  ])("%s is a command or needs nobody", (text, meaning) => expect(meaningsOf(text)).toEqual([meaning]));

  it.each([
    "Stop by the back door please",
    "Do you also do gas boilers?",
    "The code is 4471",
    "",
    "Could you bring the rope",
  ])("waits for a person where it is none of these: %s", (text) => expect(meaningsOf(text)).toEqual([]));

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
