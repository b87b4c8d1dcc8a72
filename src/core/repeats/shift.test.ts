import { addDays, daysBetween, type LocalDate } from "../time/dates";
import fc from "fast-check";
import { datesOfRule, isDateOf, readRule, ruleText } from "./recurrence";
import { ruleFrom, waysOfMonth, plainRule } from "./rule";
import { shiftedRule, waysAlong, waysToShift } from "./shift";

const shifted = (rule: string, start: string, date: string, to: string, along = waysAlong[0]!) => {
  const after = shiftedRule(readRule(rule), start, date, to, along);
  return after && ruleText(after.rule);
};

describe("a date that is moved for good", () => {
  it("takes the days of its rule along", () => {
    expect(shifted("FREQ=WEEKLY;BYDAY=WE", "2027-03-10", "2027-03-24", "2027-03-25")).toBe("FREQ=WEEKLY;BYDAY=TH");
    expect(shifted("FREQ=WEEKLY;BYDAY=MO,TH", "2027-03-08", "2027-03-11", "2027-03-12")).toBe(
      "FREQ=WEEKLY;BYDAY=MO,FR",
    );
    expect(shifted("FREQ=MONTHLY;BYDAY=2TU", "2027-03-09", "2027-04-13", "2027-04-14")).toBe("FREQ=MONTHLY;BYDAY=2WE");
    expect(shifted("FREQ=MONTHLY;BYMONTHDAY=15", "2027-03-15", "2027-04-15", "2027-04-16")).toBe(
      "FREQ=MONTHLY;BYMONTHDAY=16",
    );
    expect(shifted("FREQ=MONTHLY;BYMONTHDAY=1,15", "2027-03-01", "2027-04-15", "2027-04-16")).toBe(
      "FREQ=MONTHLY;BYMONTHDAY=1,16",
    );
    expect(shifted("FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=9", "2027-03-09", "2028-03-09", "2028-04-02")).toBe(
      "FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=2",
    );
    expect(shifted("FREQ=WEEKLY;BYMONTH=4,5,6,7,8,9;BYDAY=WE", "2027-04-07", "2027-05-05", "2027-05-06")).toBe(
      "FREQ=WEEKLY;BYMONTH=4,5,6,7,8,9;BYDAY=TH",
    );
  });

  it("keeps the number of visits that was agreed, and the last one of those until a day", () => {
    expect(shifted("FREQ=WEEKLY;COUNT=10", "2027-03-10", "2027-03-24", "2027-03-25")).toBe("FREQ=WEEKLY;COUNT=8");
    expect(shifted("FREQ=WEEKLY;UNTIL=20270630", "2027-03-10", "2027-03-24", "2027-03-25")).toBe(
      "FREQ=WEEKLY;UNTIL=20270701",
    );
  });

  it("moves past another of its week without losing one", () => {
    const after = shiftedRule(
      readRule("FREQ=WEEKLY;BYDAY=WE,FR"),
      "2027-03-10",
      "2027-03-24",
      "2027-03-27",
      "its day",
    )!;
    expect(datesOfRule(after.rule, after.start, "2027-03-24", "2027-04-03")).toEqual([
      "2027-03-26",
      "2027-03-27",
      "2027-04-02",
      "2027-04-03",
    ]);
  });

  it("is asked about where one rule cannot say it: onto another day of its week, or by working days", () => {
    const ways = (rule: string, start: string, date: string, to: string) =>
      waysToShift(readRule(rule), start, date, to);
    expect(ways("FREQ=WEEKLY;BYDAY=WE,FR", "2027-03-10", "2027-03-24", "2027-03-26")).toEqual(["every day"]);
    expect(ways("FREQ=WEEKLY;BYDAY=WE,FR", "2027-03-10", "2027-03-24", "2027-03-25")).toEqual(waysAlong);
    expect(ways("FREQ=WEEKLY", "2027-03-10", "2027-03-24", "2027-03-25")).toEqual(["its day"]);
    expect(ways("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "2027-03-31", "2027-04-30", "2027-05-03")).toEqual([]);
  });

  it("stays once a month where it is moved to a fifth weekday, and once a year on the last day of February", () => {
    expect(shifted("FREQ=MONTHLY;BYDAY=4TU", "2027-03-23", "2027-04-27", "2027-05-31")).toBe("FREQ=MONTHLY;BYDAY=-1MO");
    const leap = shiftedRule(readRule("FREQ=YEARLY"), "2027-02-10", "2028-02-10", "2028-02-29", "its day")!;
    expect(datesOfRule(leap.rule, leap.start, "2028-01-01", "2031-12-31")).toEqual([
      "2028-02-29",
      "2029-02-28",
      "2030-02-28",
      "2031-02-28",
    ]);
  });

  it("has the new day as a date, and one date for each that was to come, by whatever rule", () => {
    const start = fc.integer({ min: 0, max: 2000 }).map((n) => addDays("2026-01-01", n));
    const someDays = fc
      .uniqueArray(fc.nat(6), { minLength: 1, maxLength: 4 })
      .map((days) => [...days].sort((a, b) => a - b));
    const rules = start.chain((first) =>
      fc
        .oneof(
          fc
            .record({
              unit: fc.constantFrom("day" as const, "week" as const, "month" as const, "year" as const),
              every: fc.integer({ min: 1, max: 4 }),
            })
            .map((often) => ruleFrom(often, first)),
          fc.record({ every: fc.integer({ min: 1, max: 3 }), days: someDays }).map(({ every, days }) => ({
            ...plainRule({ every, unit: "week" as const }),
            weekdays: days.map((weekday) => ({ weekday, nth: null })),
          })),
          fc.record({ way: fc.nat(5), every: fc.integer({ min: 1, max: 3 }) }).map(({ way, every }) => ({
            ...plainRule({ every, unit: "month" as const }),
            ...waysOfMonth(first)[way]!,
          })),
          fc.uniqueArray(fc.integer({ min: 1, max: 31 }), { minLength: 1, maxLength: 3 }).map((daysOfMonth) => ({
            ...plainRule({ every: 1, unit: "month" as const }),
            daysOfMonth: [...daysOfMonth].sort((a, b) => a - b),
          })),
          fc
            .uniqueArray(fc.record({ weekday: fc.nat(6), nth: fc.constantFrom(1, 2, 3, 4, 5, -1) }), {
              minLength: 1,
              maxLength: 2,
              selector: (one) => `${one.weekday} ${one.nth}`,
            })
            .map((weekdays) => ({ ...plainRule({ every: 1, unit: "month" as const }), weekdays })),
        )
        .map((rule) => ({ rule, first })),
    );
    const ends = fc.oneof(
      fc.constant({ count: null, until: null }),
      fc.integer({ min: 8, max: 20 }).map((count) => ({ count, until: null })),
      fc.integer({ min: 60, max: 900 }).map((days) => ({ count: null, until: days })),
    );
    const cases = fc.record({
      of: rules,
      end: ends,
      nth: fc.nat(5),
      by: fc.integer({ min: -12, max: 12 }),
      along: fc.constantFrom(...waysAlong),
    });
    let found = 0;
    fc.assert(
      fc.property(cases, ({ of, end, nth, by, along }) => {
        const begins = datesOfRule(of.rule, of.first, of.first, addDays(of.first, 4000), 1)[0];
        if (!begins) return;
        const rule = { ...of.rule, count: end.count, until: end.until === null ? null : addDays(begins, end.until) };
        const date = datesOfRule(rule, begins, begins, addDays(begins, 4000), 6).at(nth);
        if (!date) return;
        const to = addDays(date, by);
        const after = shiftedRule(rule, begins, date, to, along);
        if (!after) return;
        found++;
        const first = date < to ? date : to;
        const isEndless = rule.count === null && rule.until === null;
        const far = addDays(first, 366 * (isEndless ? 3 : 90));
        const of_ = (one: LocalDate[]) => one.slice(0, 40);
        const was = datesOfRule(rule, begins, first, far, 1000);
        const is = datesOfRule(after.rule, after.start, first, addDays(far, 20), 1000);
        expect(isDateOf({ ...after.rule, count: null, until: null }, after.start, to)).toBe(true);
        if (!isEndless) expect(is.length).toBe(was.length);
        for (const [i, day] of of_(was).entries())
          expect(Math.abs(daysBetween(day, is[i]!))).toBeLessThanOrEqual(Math.abs(by) + 7);
      }),
      { numRuns: 150 },
    );
    expect(found).toBeGreaterThan(30);
  });
});
