import { addDays } from "../time/dates";
import fc from "fast-check";
import { datesOfRule, isDateOf, readRule, ruleText } from "./recurrence";
import { ruleFrom } from "./rule";
import { shiftedRule } from "./shift";

const shifted = (rule: string, start: string, date: string, to: string) => {
  const after = shiftedRule(readRule(rule), start, date, to);
  return after && ruleText(after);
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
    expect(shifted("FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=9", "2027-03-09", "2028-03-09", "2028-04-02")).toBe(
      "FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=2",
    );
  });

  it("keeps the number of visits that was agreed", () => {
    expect(shifted("FREQ=WEEKLY;COUNT=10", "2027-03-10", "2027-03-24", "2027-03-25")).toBe("FREQ=WEEKLY;COUNT=8");
  });

  it("is not guessed where the rule does not say its days one by one", () => {
    expect(
      shifted("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "2027-03-31", "2027-04-30", "2027-05-03"),
    ).toBeNull();
  });

  it("has the new day as a date, and as many dates as before", () => {
    const some = fc.record({
      start: fc.integer({ min: 0, max: 2000 }).map((n) => addDays("2026-01-01", n)),
      unit: fc.constantFrom("day" as const, "week" as const, "month" as const, "year" as const),
      every: fc.integer({ min: 1, max: 4 }),
      nth: fc.nat(5),
      by: fc.integer({ min: -3, max: 3 }),
      count: fc.option(fc.integer({ min: 7, max: 20 })),
    });
    fc.assert(
      fc.property(some, ({ start, unit, every, nth, by, count }) => {
        const rule = { ...ruleFrom({ every, unit }, start), count };
        const date = datesOfRule(rule, start, start, addDays(start, 40_000)).at(nth)!;
        const to = addDays(date, by);
        const after = shiftedRule(rule, start, date, to);
        if (!after) return;
        expect(isDateOf({ ...after, count: null }, to, to)).toBe(true);
        if (count !== null) expect(datesOfRule(after, to, to, addDays(to, 40_000)).length).toBe(count - nth);
      }),
    );
  });
});
