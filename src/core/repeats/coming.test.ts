import fc from "fast-check";
import { addDays, type LocalDate, weekdayOf } from "../time/dates";
import { type Coming, type ComingDate, comingDates, onClosedWays } from "./coming";
import { datesOfRule, readRule } from "./recurrence";
import { recurrenceWords } from "./rule-words";

const plan = (rule: string, more: Partial<Coming> = {}): Coming => ({
  rule: readRule(rule),
  start: "2027-03-09",
  exceptions: [],
  pauses: [],
  comes: () => true,
  onClosed: "nearest",
  ...more,
});
/** "12 moved to 13", by days of the month. */
const said = (coming: Coming, from: LocalDate, to: LocalDate) =>
  comingDates(coming, from, to).map((date) => {
    const day = (text: LocalDate) => Number(text.slice(8));
    return "day" in date && date.state === "moved"
      ? `${day(date.date)} to ${day(date.day)}`
      : `${day(date.date)} ${date.state}`;
  });
const closedOn =
  (...days: LocalDate[]) =>
  (day: LocalDate) =>
    !days.includes(day);

describe("what becomes of the dates of a repeat", () => {
  it("are left out, moved or given another window by exceptions; a pause is stronger than all but a day", () => {
    const coming = plan("FREQ=WEEKLY", {
      exceptions: [
        { date: "2027-03-16", skip: true },
        { date: "2027-03-23", to: "2027-03-25" },
        { date: "2027-04-06", skip: true },
        { date: "2027-04-13", to: "2027-04-14" },
        { date: "2027-04-20", window: [780, 900] },
      ],
      pauses: [["2027-04-01", "2027-04-15"]],
    });
    expect(said(coming, "2027-03-01", "2027-04-20")).toEqual([
      "9 planned",
      "16 skipped",
      "23 to 25",
      "30 planned",
      "6 paused",
      "13 to 14",
      "20 planned",
    ]);
    expect(comingDates(coming, "2027-04-20", "2027-04-20")).toMatchObject([{ state: "planned", window: [780, 900] }]);
  });

  it("move from days on which nobody comes, as was agreed, and keep their place in the rule", () => {
    const closed = { comes: closedOn("2027-03-16") };
    const days = (onClosed: Coming["onClosed"]) =>
      said(plan("FREQ=WEEKLY", { ...closed, onClosed }), "2027-03-09", "2027-03-23");
    expect(days("later")).toEqual(["9 planned", "16 to 17", "23 planned"]);
    expect(days("earlier")).toEqual(["9 planned", "16 to 15", "23 planned"]);
    expect(days("nearest")).toEqual(["9 planned", "16 to 17", "23 planned"]);
    expect(days("skip")).toEqual(["9 planned", "16 skipped", "23 planned"]);
    expect(days("ask")).toEqual(["9 planned", "16 no day", "23 planned"]);
  });

  it("come once: not on a date of the rule itself, and not where an earlier one was moved to", () => {
    const daily = plan("FREQ=DAILY", { comes: closedOn("2027-03-10"), onClosed: "later" });
    expect(said(daily, "2027-03-09", "2027-03-11")).toEqual(["9 planned", "10 skipped", "11 planned"]);
    const every = plan("FREQ=DAILY;INTERVAL=2", {
      comes: closedOn("2027-03-11", "2027-03-12", "2027-03-13", "2027-03-15"),
      onClosed: "later",
    });
    expect(said(every, "2027-03-09", "2027-03-15")).toEqual(["9 planned", "11 to 14", "13 skipped", "15 to 16"]);
  });

  it("find no day where nobody comes for ten days around", () => {
    const never = plan("FREQ=WEEKLY", { comes: (day) => day < "2027-03-12" || day > "2027-04-02" });
    expect(said(never, "2027-03-16", "2027-03-30")).toEqual(["16 to 11", "23 no day", "30 to 3"]);
  });

  it("are those of a plain walk from the first date on, wherever one begins to look", () => {
    const range = fc.tuple(fc.nat(500), fc.nat(40));
    fc.assert(
      fc.property(
        fc.constantFrom(
          "FREQ=DAILY",
          "FREQ=DAILY;INTERVAL=3",
          "FREQ=WEEKLY;BYDAY=MO,TH,SU",
          "FREQ=WEEKLY;INTERVAL=2",
          "FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1",
          "FREQ=MONTHLY;BYDAY=2TU,-1FR",
          "FREQ=WEEKLY;COUNT=30",
        ),
        fc.nat(400),
        fc.array(fc.record({ nth: fc.nat(80), skip: fc.boolean(), by: fc.integer({ min: -30, max: 30 }) }), {
          maxLength: 6,
        }),
        fc.array(range, { maxLength: 2 }),
        fc.array(range, { maxLength: 4 }),
        fc.subarray([0, 1, 2, 3, 4, 5, 6], { minLength: 1 }),
        fc.constantFrom(...onClosedWays),
        range,
        (text, first, changes, pauses, closed, weekdays, onClosed, [later, length]) => {
          const rule = readRule(text);
          const start = datesOfRule(rule, addDays("2026-01-01", first), "2026-01-01", "2028-01-01", 1)[0]!;
          const all = datesOfRule(rule, start, start, addDays(start, 700));
          const at = ([from, days]: [number, number]) => [addDays(start, from), addDays(start, from + days)] as const;
          const exceptions = changes.flatMap(({ nth, skip, by }, i) => {
            const date = all[nth % all.length]!;
            const again = changes.slice(0, i).some((other) => all[other.nth % all.length] === date);
            return again ? [] : [skip ? { date, skip } : { date, to: addDays(date, by) }];
          });
          const shut = closed.map(at);
          const coming: Coming = {
            rule,
            start,
            exceptions,
            pauses: pauses.map(at),
            comes: (day) => weekdays.includes(weekdayOf(day)) && !shut.some(([a, b]) => a <= day && day <= b),
            onClosed,
          };
          const [from, to] = at([later, length]);
          expect(comingDates(coming, from, to)).toEqual(
            plainly(coming, all).filter(({ date }) => from <= date && date <= to),
          );
        },
      ),
      { numRuns: 100 },
    );
  });
});

/** The words of the agreement one by one, from the first date on. */
function plainly({ exceptions, pauses, comes, onClosed }: Coming, all: readonly LocalDate[]): ComingDate[] {
  const movedTo: LocalDate[] = [];
  const near = (date: LocalDate): LocalDate | null => {
    const days = Array.from({ length: 21 }, (_, i) => i - 10)
      .filter((by) => (onClosed === "later" ? by > 0 : onClosed === "earlier" ? by < 0 : true))
      .sort((a, b) => Math.abs(a) - Math.abs(b) || b - a);
    const by = days.find((n) => comes(addDays(date, n)));
    return by === undefined ? null : addDays(date, by);
  };
  return all.map((date): ComingDate => {
    const exception = exceptions.find((e) => e.date === date);
    if (exception?.to === date) return { date, state: "planned", day: date, window: null };
    if (exception?.to) {
      movedTo.push(exception.to);
      return { date, state: "moved", day: exception.to, window: null };
    }
    if (pauses.some(([a, b]) => a <= date && date <= b)) return { date, state: "paused" };
    if (exception?.skip) return { date, state: "skipped" };
    if (comes(date)) return { date, state: "planned", day: date, window: null };
    if (onClosed === "skip") return { date, state: "skipped" };
    if (onClosed === "ask") return { date, state: "no day" };
    const day = near(date);
    if (!day) return { date, state: "no day" };
    if (all.includes(day) || movedTo.includes(day)) return { date, state: "skipped" };
    movedTo.push(day);
    return { date, state: "moved", day, window: null };
  });
}

describe("a rule in words", () => {
  const words = (text: string, start = "2027-03-09") => recurrenceWords(readRule(text), start);

  it("says what people say", () => {
    expect([
      words("FREQ=DAILY"),
      words("FREQ=WEEKLY;INTERVAL=4"),
      words("FREQ=WEEKLY;BYDAY=MO,TH"),
      words("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR"),
      words("FREQ=MONTHLY;BYDAY=2TU"),
      words("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1"),
      words("FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1"),
      words("FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=1,15"),
      words("FREQ=MONTHLY;BYMONTHDAY=-1"),
      words("FREQ=YEARLY"),
      words("FREQ=YEARLY;BYMONTH=9;BYMONTHDAY=3"),
      words("FREQ=WEEKLY;BYMONTH=4,5,6,7,8,9"),
      words("FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU"),
      words("FREQ=WEEKLY;UNTIL=20280503"),
      words("FREQ=MONTHLY;COUNT=6"),
    ]).toEqual([
      "every day",
      "every 4 weeks on Tuesday",
      "every week on Monday and Thursday",
      "every week on working days",
      "every month on the second Tuesday",
      "every month on the last working day",
      "every month on the 31st, or the last day of a shorter month",
      "every 3 months on the 1st and 15th",
      "every month on the last day",
      "every year on 9 March",
      "every year on 3 September",
      "every week on Tuesday in April, May, June, July, August and September",
      "every year on the last Sunday in October",
      "every week on Tuesday, until 3 May 2028",
      "every month on the 9th, 6 times",
    ]);
  });

  it("finds words for odd rules too", () => {
    expect([
      words("FREQ=YEARLY;BYWEEKNO=20,-1;BYDAY=MO"),
      words("FREQ=YEARLY;BYDAY=20MO"),
      words("FREQ=YEARLY;BYYEARDAY=1,-1"),
      words("FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13"),
      words("FREQ=MONTHLY;BYDAY=TU,WE,TH;BYSETPOS=3"),
    ]).toEqual([
      "every year in weeks 20 and the last one on Monday",
      "every year on the 20th Monday of the year",
      "every year on the first and last day of the year",
      "every month on the 13th on Friday",
      "every month on Tuesday, Wednesday and Thursday (the third of these days)",
    ]);
  });
});
