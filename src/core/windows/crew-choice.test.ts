import { crewWith } from "./crew-choice";

describe("a crew that is put down on somebody's row", () => {
  it("begins with that one, and keeps whoever had the visit", () =>
    expect(crewWith(3, 2, [1, 2], [4])).toEqual([3, 1]));

  it("is filled up by whoever could come, nobody twice", () =>
    expect(crewWith(1, 3, [1, 2], [2, 4])).toEqual([1, 2, 4]));

  it("is one alone where one is enough", () => expect(crewWith(5, 1, [1], [])).toEqual([5]));
});
