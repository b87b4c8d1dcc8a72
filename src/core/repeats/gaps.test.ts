import { addDays, type LocalDate } from "../time/dates";
import fc from "fast-check";
import { beginsAfter, oddGaps } from "./gaps";
import { datesOfRule, readRule } from "./recurrence";

const begun = (rule: string, start: LocalDate) => ({ rule: readRule(rule), start });

describe("days of a repeat", () => {
  it("are said where one is visited twice for once, or not at all", () => {
    const weekly = begun("FREQ=WEEKLY", "2027-03-10");
    const days = ["2027-03-10", "2027-03-12", "2027-03-19", "2027-04-02", "2027-04-09"];
    expect(oddGaps(weekly, days)).toEqual([
      { kind: "twice", from: "2027-03-10", to: "2027-03-12" },
      { kind: "none", from: "2027-03-19", to: "2027-04-02" },
    ]);
    const twiceAWeek = begun("FREQ=WEEKLY;BYDAY=MO,TH", "2027-03-08");
    expect(oddGaps(twiceAWeek, ["2027-03-08", "2027-03-11", "2027-03-15"])).toEqual([]);
  });

  it("go on by new terms after what is promised, neither twice in a turn nor leaving one out", () => {
    const turn = fc.constantFrom("DAILY;INTERVAL=5", "WEEKLY", "WEEKLY;INTERVAL=2", "MONTHLY");
    fc.assert(
      fc.property(turn, fc.nat(6), fc.nat(27), (freq, weekday, nth) => {
        const old = begun(`FREQ=${freq}`, "2027-03-10");
        const last = datesOfRule(old.rule, old.start, old.start, "2037-01-01", nth + 1).at(-1)!;
        const anew = begun(`FREQ=${freq}`, addDays("2027-03-08", weekday));
        const begins = beginsAfter(last, old, anew);
        const days = [last, ...datesOfRule(anew.rule, anew.start, begins, addDays(begins, 80))];
        expect(oddGaps(old, days)).toEqual([]);
      }),
    );
  });
});
