import { addDays, daysBetween, type LocalDate, weekdayOf } from "../time/dates";
import fc from "fast-check";
import { askStep, offeredAround } from "./asking";
import { canCountFromVisits, countedFrom } from "./counted";
import { bestFit, daysNear, isClearlyBetter } from "./flexible";
import { datesOfRule, readRule } from "./recurrence";

const someDate = fc.integer({ min: 0, max: 4000 }).map((days) => addDays("2026-01-01", days));

describe("a flexible date", () => {
  it("may stand in its week, or so many days around it, nearest first", () => {
    expect(daysNear("2027-03-10", null)).toEqual([
      "2027-03-10",
      "2027-03-11",
      "2027-03-09",
      "2027-03-12",
      "2027-03-08",
      "2027-03-13",
      "2027-03-14",
    ]);
    expect(daysNear("2027-03-01", 1)).toEqual(["2027-03-01", "2027-03-02", "2027-02-28"]);
  });

  it("never leaves its week or its leeway", () => {
    fc.assert(
      fc.property(someDate, fc.option(fc.integer({ min: 1, max: 30 })), (date, leeway) => {
        const days = daysNear(date, leeway);
        const monday = (day: LocalDate) => addDays(day, -weekdayOf(day));
        for (const day of days)
          if (leeway === null) expect(monday(day)).toBe(monday(date));
          else expect(Math.abs(daysBetween(date, day))).toBeLessThanOrEqual(leeway);
        expect([days[0], new Set(days).size]).toEqual([date, leeway === null ? 7 : 2 * leeway + 1]);
      }),
    );
  });

  it("goes where it adds the least driving, and to the emptier of two days that are alike", () => {
    const near = { extraDriving: 4, load: 300 };
    const far = { extraDriving: 30, load: 0 };
    const empty = { extraDriving: 4, load: 60 };
    expect(bestFit([far, near])).toBe(near);
    expect(bestFit([near, empty])).toBe(empty);
    expect(bestFit([])).toBeNull();
  });

  it("is moved again only where that saves five minutes", () => {
    expect(isClearlyBetter({ extraDriving: 10, load: 0 }, { extraDriving: 14, load: 0 })).toBe(false);
    expect(isClearlyBetter({ extraDriving: 9, load: 0 }, { extraDriving: 14, load: 0 })).toBe(true);
  });
});

describe("asking first", () => {
  const asking = { date: "2027-06-30", askDays: 28, againDays: 7, byLink: true, times: 0, askedOn: null };

  it("begins so many days before the date, asks once more, then leaves it to a person", () => {
    expect(askStep(asking, "2027-06-01")).toEqual({ step: "wait", until: "2027-06-02" });
    expect(askStep(asking, "2027-06-02")).toEqual({ step: "ask" });
    const once = { ...asking, times: 1, askedOn: "2027-06-02" };
    expect(askStep(once, "2027-06-08")).toEqual({ step: "wait", until: "2027-06-09" });
    expect(askStep(once, "2027-06-09")).toEqual({ step: "ask" });
    const twice = { ...asking, times: 2, askedOn: "2027-06-09" };
    expect(askStep(twice, "2027-06-16")).toEqual({ step: "for us" });
  });

  it("is for us at once where there is no way to ask by a link", () => {
    expect(askStep({ ...asking, byLink: false }, "2027-06-02")).toEqual({ step: "for us" });
  });

  it("offers days around the date, none of them past, also when it is late", () => {
    expect(offeredAround("2027-06-30", "2027-06-02")).toEqual({ from: "2027-06-20", to: "2027-07-21" });
    fc.assert(
      fc.property(someDate, someDate, (date, today) => {
        const { from, to } = offeredAround(date, today);
        expect(from > today && daysBetween(from, to) >= 10).toBe(true);
      }),
    );
  });
});

describe("counted from the last visit", () => {
  const after = (rule: string, day: string, passed = 0) =>
    datesOfRule(countedFrom(readRule(rule), day, passed), day, addDays(day, 1), addDays(day, 400), 3);

  it("begins anew with each visit, on the last day of a month that is too short", () => {
    expect(after("FREQ=WEEKLY;INTERVAL=6", "2027-03-11")).toEqual(["2027-04-22", "2027-06-03", "2027-07-15"]);
    expect(after("FREQ=MONTHLY", "2027-01-31")).toEqual(["2027-02-28", "2027-03-31", "2027-04-30"]);
    expect(after("FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1", "2027-02-10")[0]).toBe("2027-03-10");
  });

  it("counts down what is agreed for so many visits, and ends", () => {
    expect(after("FREQ=WEEKLY;COUNT=3", "2027-03-10", 1)).toEqual(["2027-03-17"]);
    expect(after("FREQ=WEEKLY;COUNT=3", "2027-03-17", 2)).toEqual([]);
  });

  it("knows only how often: weekdays and days of the month are for the calendar", () => {
    const can = (rule: string) => canCountFromVisits(readRule(rule));
    expect(["FREQ=DAILY;INTERVAL=10", "FREQ=MONTHLY;BYMONTHDAY=28,29;BYSETPOS=-1"].map(can)).toEqual([true, true]);
    expect(["FREQ=WEEKLY;BYDAY=MO,TH", "FREQ=MONTHLY;BYMONTHDAY=15", "FREQ=DAILY;BYMONTH=5"].map(can)).toEqual([
      false,
      false,
      false,
    ]);
  });
});
