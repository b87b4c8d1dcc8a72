import { missing, tick, type TickedItem } from "./checklist";

const list: TickedItem[] = [
  { id: "a", words: "Smoke test", required: true, done: false },
  { id: "b", words: "Photo of the pot", required: false, done: true },
];

it("is ticked by what is done, and says what is still missing", () => {
  expect(missing(list).map((i) => i.id)).toEqual(["a"]);
  expect(tick(list, ["a"]).map((i) => i.done)).toEqual([true, false]);
  expect(missing(tick(list, ["a", "gone"]))).toEqual([]);
});
