import fc from "fast-check";
import { slugOf, sourceOf, sourceWords } from "./sources";

const known = (slug: string) => slug === "harbour-fair";

describe("sources", () => {
  it("are known by their slug, however it is written, and otherwise kept as other", () => {
    expect(["harbour-fair", "Harbour Fair!", "van-door", "", null, " — "].map((from) => sourceOf(from, known))).toEqual(
      ["harbour-fair", "harbour-fair", "other: van-door", "", "", ""],
    );
    expect(
      ["harbour-fair", "other: van-door", ""].map((source) =>
        sourceWords(source, (slug) => (known(slug) ? "Harbour fair" : undefined)),
      ),
    ).toEqual(["Harbour fair", "other: van-door", "not known"]);
  });

  it("are plain letters, whatever stands in the link", () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(sourceOf(text, known)).toMatch(/^(harbour-fair|other: [a-z0-9-]{1,50}|)$/);
        expect(slugOf(slugOf(text))).toBe(slugOf(text));
      }),
    );
  });
});
