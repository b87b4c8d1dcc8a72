import { keptOf, markOf, markWords } from "./strip";

const forecast = { state: "forecast" as const, elsewhere: false, placed: true, asked: false };

describe("the marks of a year", () => {
  it("say what became of a date", () => {
    expect(markOf({ ...forecast, state: "done" })).toBe("done");
    expect(markOf({ ...forecast, state: "done", elsewhere: true })).toBe("moved");
    expect(markOf({ ...forecast, state: "no access" })).toBe("missed");
    expect(markOf({ ...forecast, state: null })).toBe("skipped");
    expect(markOf({ ...forecast, state: "on the way" })).toBe("promised");
  });

  it("tell a forecast from one without room, and from one that waits for an answer", () => {
    expect([markOf(forecast), markOf({ ...forecast, placed: false }), markOf({ ...forecast, asked: true })]).toEqual([
      "forecast",
      "no room",
      "asked",
    ]);
  });

  it("are told apart without colour", () => {
    const glyphs = Object.values(markWords).map(({ glyph }) => glyph);
    expect(new Set(glyphs).size).toBe(glyphs.length);
  });

  it("count what was kept of all that was due", () => {
    expect(keptOf(["done", "moved", "skipped", "missed", "promised"])).toEqual({ kept: 2, of: 4 });
    expect(keptOf(["forecast"])).toBeNull();
  });
});
