import { isPencilled } from "./promises";

describe("a promise", () => {
  it("is pencilled in while its job waits for a yes", () =>
    expect(isPencilled({ endedAt: null }, { approval: "waiting", givenAt: null })).toBe(true));

  it("was only pencilled in where it had ended by the time of the yes", () => {
    const job = { approval: "given" as const, givenAt: 1000 };
    expect([isPencilled({ endedAt: 1000 }, job), isPencilled({ endedAt: 1001 }, job)]).toEqual([true, false]);
  });

  it("is a promise where nobody has to say yes", () =>
    expect(isPencilled({ endedAt: 5 }, { approval: "given", givenAt: null })).toBe(false));
});
