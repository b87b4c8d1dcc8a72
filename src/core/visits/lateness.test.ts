import { lateBy } from "./lateness";

const visit = { state: "promised" as const, windowTo: 600, arrives: 580 };

describe("a visit is late", () => {
  it("by what its window has passed, when nobody is there yet", () => expect(lateBy(visit, 625)).toBe(25));

  it("already before, when nobody can be there in time any more", () =>
    expect(lateBy({ ...visit, arrives: 610 }, 500)).toBe(10));

  it("not while somebody can still be there in time", () => expect(lateBy(visit, 590)).toBe(0));

  it("not when somebody has been there", () =>
    expect(
      ["on site", "done", "no access", "cancelled"].map((state) => lateBy({ ...visit, state: state as "done" }, 700)),
    ).toEqual([0, 0, 0, 0]));
});
