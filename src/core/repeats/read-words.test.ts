import { ruleFromWords } from "./read-words";
import { ruleText } from "./recurrence";

describe("how often, as people write it", () => {
  it.each([
    ["last Friday", "FREQ=MONTHLY;BYDAY=-1FR"],
    ["Last Friday of the month", "FREQ=MONTHLY;BYDAY=-1FR"],
    ["every 6 weeks on Tuesday or Thursday", "FREQ=WEEKLY;INTERVAL=6;BYDAY=TU"],
    ["every 6 weeks on Monday or Wednesday", "FREQ=WEEKLY;INTERVAL=6;BYDAY=WE"],
    ["every week on Tuesday and Thursday", "FREQ=WEEKLY;BYDAY=TU,TH"],
    ["31st", "FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1"],
    ["the 15th", "FREQ=MONTHLY;BYMONTHDAY=15"],
    ["15th of every month", "FREQ=MONTHLY;BYMONTHDAY=15"],
    ["monthly on the 15th", "FREQ=MONTHLY;BYMONTHDAY=15"],
    ["Monthly, on the 15th", "FREQ=MONTHLY;BYMONTHDAY=15"],
    ["every 3 months on the 1st", "FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=1"],
    ["every two weeks", "FREQ=WEEKLY;INTERVAL=2"],
    ["every three months", "FREQ=MONTHLY;INTERVAL=3"],
    ["every other Tuesday", "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU"],
    ["weekly on Tuesday", "FREQ=WEEKLY;BYDAY=TU"],
    ["monthly on the second Tuesday", "FREQ=MONTHLY;BYDAY=2TU"],
    ["twice a year", "FREQ=MONTHLY;INTERVAL=6"],
    ["once a month", "FREQ=MONTHLY"],
  ])("%s", (text, rule) => expect(ruleText(ruleFromWords(text, "2027-03-10")!)).toBe(rule));

  it.each(["15", "32nd", "sometimes", "Tuesday or whenever", "every 0 weeks", "", "on the"])(
    "is asked about where it says nothing certain: “%s”",
    (text) => expect(ruleFromWords(text, "2027-03-10")).toBeNull(),
  );
});
