import fc from "fast-check";
import { fieldWords, isSame, mergeDrafts, valueWords } from "./merging";

const draft = fc.record({
  name: fc.constantFrom("a", "b", "c"),
  priceMinor: fc.constantFrom(1, 2, 3),
  skills: fc.constantFrom([], ["gas"], ["gas", "roof"]),
  late: fc.constantFrom(null, { hours: 1, kind: "none" }, { kind: "none", hours: 1 }),
});

describe("two people in one form", () => {
  it("keep what each of them alone has changed; what both have is named, and mine stays until it is chosen", () => {
    fc.assert(
      fc.property(draft, draft, draft, (base, mine, theirs) => {
        const merged = mergeDrafts(base, mine, theirs);
        for (const field of Object.keys(base) as (keyof typeof base)[]) {
          const [iDid, theyDid] = [!isSame(mine[field], base[field]), !isSame(theirs[field], base[field])];
          const differs = !isSame(mine[field], theirs[field]);
          expect(merged.both.some((one) => one.field === field)).toBe(iDid && theyDid && differs);
          expect(isSame(merged.draft[field], theyDid && !iDid ? theirs[field] : mine[field])).toBe(true);
        }
      }),
    );
  });

  it("read the two side by side in words", () => {
    const words = (field: string, value: unknown) => valueWords(field, value, "EUR");
    expect(valueWords("priceMinor", 7950, "JPY")).toContain("7,950");
    expect([fieldWords("priceMinor"), fieldWords("noticeMinutes"), fieldWords("otherNames")]).toEqual([
      "Price",
      "Notice",
      "Other names",
    ]);
    expect([
      words("priceMinor", 7950),
      words("taxBp", 2100),
      words("active", false),
      words("skills", []),
      words("late", { hours: 24, kind: "none" }),
      words("tags", ["a", "b"]),
    ]).toEqual(["€79.50", "21%", "no", "nothing", "hours 24, kind none", "a; b"]);
  });
});
