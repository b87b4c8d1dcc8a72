import fc from "fast-check";
import { RRuleTemporal } from "rrule-temporal";
import { Temporal } from "temporal-polyfill";
import { addDays, daysBetween, weekdayOf } from "../time/dates";
import { datesOf, nearestDay, ruleWords } from "./rule";

describe("a repeat", () => {
  it("comes every four weeks, on the same weekday, through daylight saving", () => {
    expect(datesOf({ every: 4, unit: "week", start: "2027-03-11" }, "2027-03-11", "2027-07-01")).toEqual([
      "2027-04-08",
      "2027-05-06",
      "2027-06-03",
      "2027-07-01",
    ]);
  });

  it("keeps a monthly visit on the last day where a month is too short", () => {
    expect(datesOf({ every: 1, unit: "month", start: "2027-01-31" }, "2027-01-31", "2027-05-01")).toEqual([
      "2027-02-28",
      "2027-03-31",
      "2027-04-30",
    ]);
    expect(datesOf({ every: 1, unit: "year", start: "2024-02-29" }, "2024-02-29", "2028-12-31")).toEqual([
      "2025-02-28",
      "2026-02-28",
      "2027-02-28",
      "2028-02-29",
    ]);
  });

  it("stops at its last day", () => {
    expect(
      datesOf({ every: 1, unit: "week", start: "2027-03-01", until: "2027-03-15" }, "2027-03-01", "2028-01-01"),
    ).toEqual(["2027-03-08", "2027-03-15"]);
  });

  it("has the dates of the same rule by RFC 5545, where every month has the day", () => {
    const frequencies = { day: "DAILY", week: "WEEKLY", month: "MONTHLY", year: "YEARLY" } as const;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.constantFrom("day" as const, "week" as const, "month" as const, "year" as const),
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: -50, max: 700 }),
        (every, unit, first, later) => {
          const start = addDays("2024-01-01", first);
          fc.pre(Number(start.slice(8)) <= 28);
          const [after, to] = [addDays(start, later), addDays(start, later + 900)];
          const noon = (date: string) => new Date(`${date}T12:00:00Z`);
          const rule = new RRuleTemporal({
            freq: frequencies[unit],
            interval: every,
            dtstart: Temporal.PlainDate.from(start).toZonedDateTime("UTC") as never,
            tzid: "UTC",
          });
          const expected = rule
            .between(noon(after), noon(to), true)
            .map((zoned) => zoned.toPlainDate().toString())
            .filter((date) => date > after);
          expect(datesOf({ every, unit, start }, after, to, 2000)).toEqual(expected);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("never skips or repeats a date, wherever one begins to look", () => {
    const units = fc.constantFrom("day" as const, "week" as const);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        units,
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: 0, max: 200 }),
        (every, unit, first, later) => {
          const start = addDays("2026-01-01", first);
          const after = addDays(start, later);
          const dates = datesOf({ every, unit, start }, after, addDays(start, 600), 5);
          const step = every * (unit === "week" ? 7 : 1);
          dates.forEach((date, i) => {
            expect(daysBetween(start, date) % step).toBe(0);
            if (i) expect(daysBetween(dates[i - 1]!, date)).toBe(step);
          });
          if (dates[0]) expect(daysBetween(after, dates[0])).toBeLessThanOrEqual(step);
          if (unit === "week") for (const date of dates) expect(weekdayOf(date)).toBe(weekdayOf(start));
        },
      ),
    );
  });

  it("moves from a day on which nobody comes to the nearest one on which somebody does", () => {
    const on =
      (...weekdays: number[]) =>
      (date: string) =>
        weekdays.includes(weekdayOf(date));
    // 2027-03-14 is a Sunday.
    expect([
      nearestDay("2027-03-14", on(0, 1, 2, 3, 4, 5)),
      nearestDay("2027-03-14", on(2)),
      nearestDay("2027-03-14", on(3, 6)),
      nearestDay("2027-03-14", on(4, 1)),
      nearestDay("2027-03-14", () => false),
    ]).toEqual(["2027-03-15", "2027-03-17", "2027-03-14", "2027-03-16", null]);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 900 }),
        fc.subarray([0, 1, 2, 3, 4, 5, 6], { minLength: 1 }),
        (n, weekdays) => {
          const date = addDays("2026-01-01", n);
          const day = nearestDay(date, on(...weekdays))!;
          expect(weekdays).toContain(weekdayOf(day));
          for (let away = 0; away < Math.abs(daysBetween(date, day)); away++)
            for (const nearer of [addDays(date, away), addDays(date, -away)])
              expect(weekdays).not.toContain(weekdayOf(nearer));
        },
      ),
    );
  });

  it("is said plainly", () => {
    expect([ruleWords({ every: 1, unit: "year" }), ruleWords({ every: 2, unit: "week", until: "2028-05-03" })]).toEqual(
      ["yearly", "every 2 weeks until 3 May 2028"],
    );
  });
});
