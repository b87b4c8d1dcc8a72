import { isOver, suits, type Wish, wishWords } from "./wishes";

const wish = (more: Partial<Wish> = {}): Wish => ({ weekdays: 127, from: 0, to: 1440, until: null, ...more });
// A Wednesday.
const window = { date: "2027-03-10", from: 540, to: 660 };

describe("a wish", () => {
  it("is met by a window of its days, within its times, until its last day", () => {
    expect(suits(wish(), window)).toBe(true);
    expect(
      [wish({ weekdays: 4 }), wish({ from: 540, to: 660 }), wish({ until: "2027-03-10" })].map((w) => suits(w, window)),
    ).toEqual([true, true, true]);
    expect(
      [wish({ weekdays: 3 }), wish({ from: 541 }), wish({ to: 659 }), wish({ until: "2027-03-09" })].map((w) =>
        suits(w, window),
      ),
    ).toEqual([false, false, false, false]);
  });

  it("is over when its last day has passed", () => {
    expect(
      [wish({ until: "2027-03-09" }), wish({ until: "2027-03-10" }), wish()].map((w) => isOver(w, "2027-03-10")),
    ).toEqual([true, false, false]);
  });

  it("is said in a few words", () => {
    expect(wishWords(wish())).toBe("any day, any time");
    expect(wishWords(wish({ weekdays: 10, from: 780, to: 1020 }))).toBe("Tue and Thu, 13–17");
    expect(wishWords(wish({ until: "2027-03-30" }))).toBe("any day, any time, until 30 March 2027");
  });
});
