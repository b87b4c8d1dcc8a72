import fc from "fast-check";
import { addDays, addMonths } from "../time/dates";
import { datesOfRule, isDateOf } from "./recurrence";
import { recurrenceWords } from "./rule-words";
import { commonRepeats, everyWords, nthWorkingDay, plainRule, ruleFrom, waysOfMonth, workingDayOf } from "./rule";

describe("how often a visit comes back", () => {
  it("knows any working day of a month, and tells it from other days", () => {
    const monthly = plainRule({ every: 1, unit: "month" });
    const third = { ...monthly, ...nthWorkingDay(3) };
    expect(datesOfRule(third, "2027-03-03", "2027-03-03", "2027-12-31", 3)).toEqual([
      "2027-03-03",
      "2027-04-05",
      "2027-05-05",
    ]);
    expect([workingDayOf(third), workingDayOf({ ...third, positions: [1, 2] }), workingDayOf(monthly)]).toEqual([
      3,
      null,
      null,
    ]);
  });

  it("is said plainly", () => {
    expect([everyWords({ every: 1, unit: "year" }), everyWords({ every: 2, unit: "week" })]).toEqual([
      "yearly",
      "every 2 weeks",
    ]);
  });

  it("never loses a date to a short month or to a year without a leap day", () => {
    fc.assert(
      fc.property(
        fc.nat(1500),
        fc.integer({ min: 1, max: 24 }),
        fc.constantFrom("month" as const, "year" as const),
        (n, every, unit) => {
          const start = addDays("2024-01-01", n);
          const dates = datesOfRule(ruleFrom({ every, unit }, start), start, start, addMonths(start, 60));
          const step = every * (unit === "year" ? 12 : 1);
          const expected = Array.from({ length: Math.floor(60 / step) + 1 }, (_, i) => addMonths(start, i * step));
          expect(dates).toEqual(expected);
        },
      ),
      { numRuns: 200 },
    );
  });

  it("begins on the day of the visit", () => {
    fc.assert(
      fc.property(
        fc.nat(1500),
        fc.constantFrom("day", "week", "month", "year"),
        fc.integer({ min: 1, max: 20 }),
        (n, unit, every) => {
          const start = addDays("2024-01-01", n);
          expect(isDateOf(ruleFrom({ every, unit }, start), start, start)).toBe(true);
        },
      ),
    );
  });

  it("may mean a day of the month in several ways", () => {
    const monthly = plainRule({ every: 1, unit: "month" });
    expect(waysOfMonth("2027-03-30").map((way) => recurrenceWords({ ...monthly, ...way }, "2027-03-30"))).toEqual([
      "every month on the 30th, or the last day of a shorter month",
      "every month on the fourth Tuesday",
      "every month on the last Tuesday",
      "every month on the first working day",
      "every month on the last working day",
      "every month on the last day",
    ]);
  });

  it("is what all services that are booked together let", () => {
    const [yearly, weekly] = [
      { every: 1, unit: "year" as const },
      { every: 1, unit: "week" as const },
    ];
    expect(commonRepeats([[yearly, weekly], [weekly]])).toEqual([weekly]);
  });
});
