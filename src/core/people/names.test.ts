import { nameWithin, shortForms, shortName } from "./names";

it("shortens people and leaves companies whole", () => {
  expect(["Luca Arden", "Tern & Slate", "Petra", "Brome and Sons", "Sandra Dahl"].map(shortName)).toEqual([
    "Luca",
    "Tern & Slate",
    "Petra",
    "Brome and Sons",
    "Sandra",
  ]);
});

describe("a name on a small card", () => {
  it("is whole, the family name, or initials", () => {
    expect([shortForms("Mira Okonjo"), shortForms("Ana Maria de Souza"), shortForms("Cher")]).toEqual([
      ["Mira Okonjo", "Okonjo", "MO"],
      ["Ana Maria de Souza", "Souza", "AMDS"],
      ["Cher", "C"],
    ]);
  });

  it("is the longest form that there is room for", () => {
    expect([20, 8, 3, 0].map((letters) => nameWithin("Mira Okonjo", letters))).toEqual([
      "Mira Okonjo",
      "Okonjo",
      "MO",
      "MO",
    ]);
  });
});
