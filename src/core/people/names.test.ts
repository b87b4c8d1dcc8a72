import { shortName } from "./names";

it("shortens people and leaves companies whole", () => {
  expect(["Luca Arden", "Tern & Slate", "Petra", "Brome and Sons", "Sandra Dahl"].map(shortName)).toEqual([
    "Luca",
    "Tern & Slate",
    "Petra",
    "Brome and Sons",
    "Sandra",
  ]);
});
