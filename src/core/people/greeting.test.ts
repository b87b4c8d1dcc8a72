import { greetingOf } from "./greeting";

it.each([
  ["Mira Okonjo", "Mira"],
  [" José-María Núñez ", "José-María"],
  ["O’Neil", "O’Neil"],
  ["https://example.com", null],
  ["www.example.com wins", null],
  ["1000€ for you", null],
  ["Supercalifragilisticexpialidocious", null],
  ["", null],
])("a stranger who types “%s” is greeted as %s", (typed, greeted) => expect(greetingOf(typed)).toBe(greeted));
