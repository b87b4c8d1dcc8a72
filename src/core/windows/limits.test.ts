import fc from "fast-check";
import { addDays, weekdayOf } from "../time/dates";
import { type Booking, mondayOf, reached, takenOf } from "./limits";

// Tuesday 9 March 2027.
const tuesday = "2027-03-09";
const nine = { date: tuesday, from: 540, to: 660 };
const bookings = fc.array(
  fc.record({ date: fc.nat(20).map((n) => addDays(tuesday, n - 10)), from: fc.integer({ min: 0, max: 1440 }) }),
  { maxLength: 30 },
);

describe("a limit", () => {
  it("counts a booking in the window in which it begins: the end belongs to the next one", () => {
    const taken = takenOf([539, 540, 600, 659, 660].map((from) => ({ date: tuesday, from })));
    expect([taken(nine, "window"), taken({ ...nine, from: 660, to: 780 }, "window"), taken(nine, "day")]).toEqual([
      3, 1, 5,
    ]);
  });

  it("counts at an exact time what begins at that very moment", () => {
    const taken = takenOf([540, 541].map((from) => ({ date: tuesday, from })));
    expect(taken({ date: tuesday, from: 540, to: 540 }, "window")).toBe(1);
  });

  it("counts the week from Monday to Sunday", () => {
    const taken = takenOf(
      ["2027-03-07", "2027-03-08", "2027-03-14", "2027-03-15"].map((date) => ({ date, from: 600 })),
    );
    expect([mondayOf(tuesday), mondayOf("2027-03-14"), mondayOf("2027-03-08"), taken(nine, "week")]).toEqual([
      "2027-03-08",
      "2027-03-08",
      "2027-03-08",
      2,
    ]);
  });

  it("of a week counts the earlier days of the same work in that week", () => {
    const limit = {
      of: "zone" as const,
      per: "week" as const,
      most: 3,
      taken: takenOf([{ date: tuesday, from: 600 }]),
    };
    const on = (date: string) => ({ ...nine, date });
    const earlier = [on("2027-03-10"), on("2027-03-11")];
    expect([reached(limit, on("2027-03-12"), earlier), reached(limit, on("2027-03-12"), earlier.slice(1))]).toEqual([
      { of: "zone", per: "week", most: 3, taken: 3 },
      null,
    ]);
    expect(reached(limit, on("2027-03-15"), earlier)).toBeNull();
    expect(reached({ ...limit, per: "day" }, on("2027-03-12"), earlier)).toBeNull();
  });

  it("is reached when as many are there as it allows, and says how many", () => {
    const limit = (most: number) => ({
      of: "zone" as const,
      per: "day" as const,
      most,
      taken: takenOf([{ date: tuesday, from: 600 }]),
    });
    expect([
      reached(limit(1), nine),
      reached(limit(2), nine),
      reached(limit(0), { ...nine, date: "2027-03-10" }),
    ]).toEqual([{ of: "zone", per: "day", most: 1, taken: 1 }, null, { of: "zone", per: "day", most: 0, taken: 0 }]);
  });

  it("counts as one does by hand, whatever was booked and in whatever order it is asked", () => {
    fc.assert(
      fc.property(
        bookings,
        fc.array(
          fc.record({
            day: fc.nat(20),
            per: fc.constantFrom("window" as const, "day" as const, "week" as const),
            from: fc.integer({ min: 0, max: 1400 }),
            length: fc.integer({ min: 1, max: 300 }),
          }),
          { minLength: 1, maxLength: 8 },
        ),
        (booked, asked) => {
          const taken = takenOf(booked);
          for (const { day, per, from, length } of asked) {
            const window = { date: addDays(tuesday, day - 10), from, to: from + length };
            const monday = addDays(window.date, -weekdayOf(window.date));
            const counts = (b: Booking) =>
              per === "week"
                ? b.date >= monday && b.date <= addDays(monday, 6)
                : b.date === window.date && (per === "day" || (b.from >= from && b.from < window.to));
            expect(taken(window, per)).toBe(booked.filter(counts).length);
          }
        },
      ),
    );
  });
});
