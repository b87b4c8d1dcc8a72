import fc from "fast-check";
import { contrast, mended, textContrast } from "./contrast";

const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, "0")}`);

describe("contrast", () => {
  it("is 21 for black on white, 1 for a colour on itself, and the same from either side", () => {
    expect(contrast("#000000", "#ffffff")).toBeCloseTo(21);
    expect(contrast("#767676", "#ffffff")).toBeCloseTo(4.54, 2);
    fc.assert(
      fc.property(
        colour,
        colour,
        (a, b) => contrast(a, a) === 1 && contrast(a, b) === contrast(b, a) && contrast(a, b) >= 1,
      ),
    );
  });

  it("is mended by as little as is needed, and not at all where it is enough", () => {
    expect(mended("#24443f", "#ffffff")).toBe("#24443f");
    fc.assert(
      fc.property(
        colour,
        fc.constantFrom("#ffffff", "#fbfaf6", "#000000"),
        (a, against) => contrast(mended(a, against), against) >= textContrast,
      ),
    );
  });
});
