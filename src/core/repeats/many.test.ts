import { addDays, daysBetween, weekdayOf } from "../time/dates";
import fc from "fast-check";
import { changedRule } from "./many";
import { datesOfRule, readRule, ruleText } from "./recurrence";

const fridays = { weekday: { from: 4, to: 3 }, until: null };
const changed = (rule: string, start: string, change: Parameters<typeof changedRule>[2], from = "2027-05-01") => {
  const after = changedRule(readRule(rule), start, change, from);
  return after && ("odd" in after ? after.odd : [ruleText(after.rule), after.begins]);
};

describe("many repeats changed at once", () => {
  it("come on Thursdays in place of Fridays", () => {
    expect(changed("FREQ=WEEKLY", "2027-03-05", fridays)).toEqual(["FREQ=WEEKLY;BYDAY=TH", "2027-05-06"]);
    expect(changed("FREQ=WEEKLY;BYDAY=MO,FR", "2027-03-05", fridays)).toEqual([
      "FREQ=WEEKLY;BYDAY=MO,TH",
      "2027-05-03",
    ]);
    expect(changed("FREQ=MONTHLY;BYDAY=2FR", "2027-03-12", fridays)).toEqual(["FREQ=MONTHLY;BYDAY=2TH", "2027-06-10"]);
  });

  it("are left alone where they do not come on that weekday by their rule", () => {
    expect(changed("FREQ=WEEKLY;BYDAY=TU", "2027-03-02", fridays)).toBeNull();
    expect(changed("FREQ=MONTHLY;BYMONTHDAY=15", "2027-03-15", fridays)).toBeNull();
  });

  it("say why it cannot be", () => {
    expect(changed("FREQ=WEEKLY;BYDAY=TH,FR", "2027-03-05", fridays)).toBe("It comes on a Thursday already.");
    expect(changed("FREQ=MONTHLY;BYDAY=FR;BYSETPOS=-1", "2027-03-26", fridays)).toContain("on its own page");
  });

  it("end with the season, or are better ended", () => {
    const season = { weekday: null, until: "2027-10-31" };
    expect(changed("FREQ=WEEKLY", "2027-03-05", season)).toEqual(["FREQ=WEEKLY;UNTIL=20271031", "2027-05-07"]);
    expect(changed("FREQ=YEARLY", "2026-11-20", season)).toContain("end it instead");
  });

  it("do not go on longer than they would have, when others end with a season", () => {
    const season = { weekday: null, until: "2027-10-31" };
    expect(changed("FREQ=WEEKLY;UNTIL=20270630", "2027-03-05", season)).toBeNull();
    expect(changed("FREQ=WEEKLY;COUNT=12", "2027-03-05", season)).toBeNull();
    expect(changed("FREQ=WEEKLY;COUNT=60", "2027-03-05", season)).toEqual(["FREQ=WEEKLY;UNTIL=20271031", "2027-05-07"]);
    expect(changed("FREQ=WEEKLY;COUNT=12", "2027-03-05", { ...fridays, until: "2027-10-31" })).toEqual([
      "FREQ=WEEKLY;COUNT=3;BYDAY=TH",
      "2027-05-06",
    ]);
  });

  it("stay in their weeks, and lose none of the visits that were agreed", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.nat(6),
        fc.nat(60),
        fc.option(fc.integer({ min: 1, max: 30 })),
        (interval, to, days, count) => {
          const start = "2027-03-05";
          fc.pre(to !== 4);
          const rule = { ...readRule(`FREQ=WEEKLY;INTERVAL=${interval}`), count };
          const from = addDays(start, days);
          const after = changedRule(rule, start, { weekday: { from: 4, to }, until: null }, from);
          const before = datesOfRule(rule, start, from, "2030-01-01");
          if (after === null || "odd" in after) return expect(before).toEqual([]);
          const now = datesOfRule(after.rule, after.begins, after.begins, "2030-01-01");
          const week = (date: string) => daysBetween("2027-03-01", addDays(date, -weekdayOf(date)));
          expect(now.slice(0, 20).map(week)).toEqual(before.slice(0, 20).map(week));
          if (count !== null) expect(now.length).toBe(before.length);
        },
      ),
    );
  });
});
