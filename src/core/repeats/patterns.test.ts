import fc from "fast-check";
import { patternAt, patternsWords } from "./patterns";

describe("the patterns of a repeat", () => {
  it("are another one the first time, and every so many times", () => {
    const patterns = { usual: 1, first: 2, nth: { every: 4, pattern: 3 } };
    expect([0, 1, 2, 3, 4, 5, 6, 7].map((place) => patternAt(patterns, place))).toEqual([2, 1, 1, 3, 1, 1, 1, 3]);
  });

  it("come so often among any dates in a row, wherever one begins to look", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 60 }),
        fc.nat(500),
        fc.integer({ min: 1, max: 8 }),
        (every, from, times) => {
          const patterns = { usual: null, first: null, nth: { every, pattern: 7 } };
          const row = Array.from({ length: every * times }, (_, i) => patternAt(patterns, from + i));
          expect(row.filter((pattern) => pattern === 7)).toHaveLength(times);
        },
      ),
    );
  });

  it("are said in a line", () => {
    const names: Record<number, string> = { 1: "Small sweep", 2: "Full service", 3: "Big sweep" };
    const words = (usual: number | null) =>
      patternsWords({ usual, first: 2, nth: { every: 4, pattern: 3 } }, (id) => names[id]!, "Chimney sweep");
    expect(words(1)).toBe("Small sweep; the first time Full service; every 4th Big sweep");
    expect(words(null)).toBe("Chimney sweep; the first time Full service; every 4th Big sweep");
  });
});
