"use client";
import { type Question } from "@/core/catalogue/questions";

export const kinds: Record<Question["kind"], string> = {
  "yes-no": "yes or no",
  one: "one choice",
  several: "several choices",
  count: "a count",
  number: "a measure",
  text: "a few words",
  tick: "a tick",
  photo: "photos",
};

/** What a field that changes nothing can be answered with. */
export const plainKinds: Question["kind"][] = ["text", "one", "yes-no", "tick"];

export type Wrong = (path: string) => string | undefined;

export function ofKind(kind: Question["kind"], { id, words, help, billed, required, shownIf }: Question): Question {
  const common = { id, words, required, ...(help && { help }), ...(billed && { billed }), ...(shownIf && { shownIf }) };
  switch (kind) {
    case "yes-no":
      return { ...common, kind };
    case "one":
    case "several":
      return {
        ...common,
        kind,
        choices: [
          { id: "a", words: "" },
          { id: "b", words: "" },
        ],
      };
    case "count":
      return { ...common, kind, min: 1, max: 10, included: 1 };
    case "number":
      return { ...common, kind, min: 0, max: 100, step: 1, unit: "m" };
    case "text":
      return { ...common, kind, most: 300 };
    case "tick":
      return { ...common, kind };
    case "photo":
      return { ...common, kind, most: 3 };
  }
}

/** An id that no other of the list has. */
export function freshId(list: readonly { id: string }[]): string {
  let n = list.length + 1;
  while (list.some((entry) => entry.id === `q${n}`)) n++;
  return `q${n}`;
}
