import { Refusal } from "@/core/problems";
import { checkInput } from "@/kernel/check-input";
import { type Schema, textsIn } from "@demo/schema-inputs";
import { operationNamed, operations } from "./operations";
import { viewNamed, views } from "./views";

const doors = [
  ...Object.keys(operations).map((name) => ({ name, schema: operationNamed(name)!.input })),
  ...Object.keys(views).map((name) => ({ name, schema: viewNamed(name)!.input })),
];

/** Texts that make a careless pattern look again and again: one letter, what is nearly a name of a host, a sign of HTML, what is nearly a number. */
const pieces = ["a", "a.", "<", "1-"];
const longest = 200_000;

/** What is said of the field in which a text stands; null where it was taken. */
function saidOf(schema: (typeof doors)[number]["schema"], at: string, input: unknown): string | null {
  try {
    checkInput(schema, input);
    return null;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const { fields = {} } = error.problem;
    return Object.entries(fields).find(([field]) => at.startsWith(field) || field.startsWith(at))?.[1] ?? null;
  }
}

// A pattern that took longer than the length of the text has it would not end here within minutes: of each field, all of them.
it.each(pieces)(
  "200,000 letters of %j are refused in every field of every operation and view, before anything looks into them",
  (piece) => {
    const text = piece.repeat(longest / piece.length);
    const taken: string[] = [];
    let fields = 0;
    for (const { name, schema } of doors)
      for (const { at, input } of textsIn(schema as Schema, text)) {
        fields++;
        if (saidOf(schema, at, input) === null) taken.push(`${name}${at}`);
      }
    expect(taken).toEqual([]);
    expect(fields).toBeGreaterThan(300);
  },
);
