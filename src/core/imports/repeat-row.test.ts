import { recurrenceWords } from "../repeats/rule-words";
import { ruleText } from "../repeats/recurrence";
import { ruleFromWords } from "../repeats/read-words";
import fc from "fast-check";
import { repeatOf } from "./repeat-row";

const told = (text: string, start = "2027-03-10") => {
  const rule = ruleFromWords(text, start);
  return rule && ruleText(rule);
};

describe("a rule as people write it in a list", () => {
  it.each([
    ["every 4 weeks", "FREQ=WEEKLY;INTERVAL=4"],
    ["Monthly", "FREQ=MONTHLY"],
    ["fortnightly", "FREQ=WEEKLY;INTERVAL=2"],
    ["quarterly", "FREQ=MONTHLY;INTERVAL=3"],
    ["every other week on Monday and Thursday", "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH"],
    ["every Tuesday", "FREQ=WEEKLY;BYDAY=TU"],
    ["Second Tuesday of the month", "FREQ=MONTHLY;BYDAY=2TU"],
    ["last Friday of every 3 months", "FREQ=MONTHLY;INTERVAL=3;BYDAY=-1FR"],
    ["the last working day", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1"],
    ["RRULE:FREQ=YEARLY;BYMONTH=9;BYMONTHDAY=1", "FREQ=YEARLY;BYMONTH=9;BYMONTHDAY=1"],
  ])("%s", (text, rule) => expect(told(text)).toBe(rule));

  it("says nothing where nothing is understood", () => {
    expect(
      ["now and then", "", "every 0 weeks", "FREQ=HOURLY", "every week on Someday"].map((text) => told(text)),
    ).toEqual([null, null, null, null, null]);
    fc.assert(fc.property(fc.string(), (text) => void expect(() => told(text)).not.toThrow()));
  });

  it("reads back most of what we say ourselves", () => {
    for (const rule of ["FREQ=WEEKLY;INTERVAL=4", "FREQ=WEEKLY;BYDAY=MO,TH"]) {
      const words = recurrenceWords(ruleFromWords(rule, "2027-03-10")!, "2027-03-08").replace(/ on Monday$/, "");
      expect(told(words)).toBe(rule);
    }
  });
});

describe("a row of repeats", () => {
  const read = (values: Record<string, string>) =>
    repeatOf(
      {
        name: "Mira Okonjo",
        service: "Chimney sweep",
        rule: "every 4 weeks",
        start: "10.03.2027",
        window: "9–11",
        ...values,
      },
      { dates: "day first", currency: "EUR", today: "2027-03-20" },
    );

  it("begins with the next date of what has begun already, and keeps its rhythm", () => {
    expect(read({}).draft).toMatchObject({ start: "2027-04-07", window: { from: 540, to: 660 } });
  });

  it("tells cell by cell what cannot be read", () => {
    const { problems } = read({ rule: "now and then", window: "morning", price: "a lot" });
    expect(problems.map(({ field }) => field)).toEqual(["rule", "window", "price"]);
    expect(read({ name: "" }).problems).toHaveLength(1);
    expect(read({ start: "soon" }).problems.map(({ field }) => field)).toEqual(["start"]);
  });
});
