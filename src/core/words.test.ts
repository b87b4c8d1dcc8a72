import { counted } from "./words";

it("numbers agree with their nouns", () => {
  expect([counted(0, "visit"), counted(1, "visit"), counted(3, "person", "people")]).toEqual([
    "no visits",
    "1 visit",
    "3 people",
  ]);
});
