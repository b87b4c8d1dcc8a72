import fc from "fast-check";
import { RRuleTemporal } from "rrule-temporal";
import { Temporal } from "temporal-polyfill";
import { addDays, dateOf, isDate, numberOf } from "../time/dates";
import { datesOfRule, isDateOf, OddRule, type Recurrence, readRule, ruleText } from "./recurrence";

const dates = (rule: string, start: string, to: string) => datesOfRule(readRule(rule), start, start, to);

describe("the dates of a rule", () => {
  it("are those of the examples of RFC 5545", () => {
    const year = "1998-12-31";
    expect(dates("FREQ=MONTHLY;COUNT=10;BYDAY=1FR", "1997-09-05", year).slice(0, 4)).toEqual([
      "1997-09-05",
      "1997-10-03",
      "1997-11-07",
      "1997-12-05",
    ]);
    expect(dates("FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU", "1997-09-07", year).slice(0, 4)).toEqual([
      "1997-09-07",
      "1997-09-28",
      "1997-11-02",
      "1997-11-30",
    ]);
    expect(dates("FREQ=MONTHLY;BYMONTHDAY=-3", "1997-09-28", "1998-02-28")).toEqual([
      "1997-09-28",
      "1997-10-29",
      "1997-11-28",
      "1997-12-29",
      "1998-01-29",
      "1998-02-26",
    ]);
    expect(dates("FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200", "1997-01-01", "2001-01-01")).toEqual([
      "1997-01-01",
      "1997-04-10",
      "1997-07-19",
      "2000-01-01",
      "2000-04-09",
      "2000-07-18",
    ]);
    expect(dates("FREQ=YEARLY;BYDAY=20MO", "1997-05-19", "1999-12-31")).toEqual([
      "1997-05-19",
      "1998-05-18",
      "1999-05-17",
    ]);
    expect(dates("FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "1997-05-12", "1999-12-31")).toEqual([
      "1997-05-12",
      "1998-05-11",
      "1999-05-17",
    ]);
    expect(dates("FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13", "1998-02-13", "1999-12-31")).toEqual([
      "1998-02-13",
      "1998-03-13",
      "1998-11-13",
      "1999-08-13",
    ]);
    expect(
      dates("FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8", "1996-11-05", "2004-12-31"),
    ).toEqual(["1996-11-05", "2000-11-07", "2004-11-02"]);
    expect(dates("FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3", "1997-09-04", year)).toEqual([
      "1997-09-04",
      "1997-10-07",
      "1997-11-06",
    ]);
    expect(dates("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO", "1997-08-05", year)).toEqual([
      "1997-08-05",
      "1997-08-10",
      "1997-08-19",
      "1997-08-24",
    ]);
    expect(dates("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU", "1997-08-05", year)).toEqual([
      "1997-08-05",
      "1997-08-17",
      "1997-08-19",
      "1997-08-31",
    ]);
  });

  it("pass over months that are too short, unless the rule says that the last day will do", () => {
    expect(dates("FREQ=MONTHLY", "2027-01-31", "2027-06-01")).toEqual(["2027-01-31", "2027-03-31", "2027-05-31"]);
    expect(dates("FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1", "2027-01-31", "2027-05-01")).toEqual([
      "2027-01-31",
      "2027-02-28",
      "2027-03-31",
      "2027-04-30",
    ]);
  });

  it("are counted from the first one, wherever one begins to look", () => {
    const rule = readRule("FREQ=WEEKLY;COUNT=5");
    expect(datesOfRule(rule, "2027-03-01", "2027-03-15", "2028-01-01")).toEqual([
      "2027-03-15",
      "2027-03-22",
      "2027-03-29",
    ]);
    expect([isDateOf(rule, "2027-03-01", "2027-03-29"), isDateOf(rule, "2027-03-01", "2027-04-05")]).toEqual([
      true,
      false,
    ]);
  });
});

// ---------------------------------------------------------------- against other ways to the same dates

const some = <T>(values: readonly T[], maxLength: number) => fc.uniqueArray(fc.constantFrom(...values), { maxLength });
const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const sometimes = <T>(list: fc.Arbitrary<T[]>) => fc.oneof({ weight: 2, arbitrary: fc.constant<T[]>([]) }, list);

/** Rules as people make them, and odder ones. */
const rules: fc.Arbitrary<Recurrence> = fc
  .record({
    freq: fc.constantFrom("DAILY" as const, "WEEKLY" as const, "MONTHLY" as const, "YEARLY" as const),
    interval: fc.integer({ min: 1, max: 6 }),
    count: fc.option(fc.integer({ min: 1, max: 30 })),
    until: fc.constant(null),
    months: sometimes(some(range(1, 12), 4)),
    weeks: sometimes(some([1, 2, 20, 52, 53, -1], 2)),
    daysOfYear: sometimes(some([1, 60, 100, 366, -1, -200], 2)),
    daysOfMonth: sometimes(some([...range(1, 31), -1, -2, -31], 4)),
    weekdays: sometimes(
      fc.uniqueArray(
        fc.record({ weekday: fc.integer({ min: 0, max: 6 }), nth: fc.constantFrom(null, null, 1, 2, 5, -1, -2) }),
        { maxLength: 3, selector: ({ weekday, nth }) => `${weekday} ${nth}` },
      ),
    ),
    positions: sometimes(some([1, 2, -1, -2], 2)),
    weekStart: fc.constantFrom(0, 6),
  })
  .map((rule) => ({
    ...rule,
    daysOfYear: rule.freq === "YEARLY" ? rule.daysOfYear : [],
    weeks: rule.freq === "YEARLY" ? rule.weeks : [],
    daysOfMonth: rule.freq === "WEEKLY" ? [] : rule.daysOfMonth,
    weekdays: rule.weekdays.map((day) =>
      rule.freq === "MONTHLY" || (rule.freq === "YEARLY" && !rule.weeks.length) ? day : { ...day, nth: null },
    ),
  }))
  .map((rule) => ({
    ...rule,
    positions: [rule.months, rule.weeks, rule.daysOfYear, rule.daysOfMonth, rule.weekdays].some((list) => list.length)
      ? rule.positions
      : [],
  }));

/**
 * A plain model: each day is asked by itself, from the words of the RFC, with the calendar of the language. Nothing is
 * shared with the engine but the shape of a rule.
 */
function plainDates(rule: Recurrence, start: string, to: string): string[] {
  const utc = (date: string) => new Date(`${date}T00:00:00Z`);
  const parts = (date: string) => date.split("-").map(Number) as [number, number, number];
  const weekday = (date: string) => (utc(date).getUTCDay() + 6) % 7;
  const days = (a: string, b: string) => Math.round((+utc(b) - +utc(a)) / 86_400_000);
  const next = (date: string, n = 1) => new Date(+utc(date) + n * 86_400_000).toISOString().slice(0, 10);
  const [y0, m0, d0] = parts(start);
  const periodOf = (date: string): string => {
    const [y, m] = parts(date);
    if (rule.freq === "YEARLY") return (y - y0) % rule.interval ? "" : `${y}`;
    if (rule.freq === "MONTHLY") return ((y - y0) * 12 + m - m0) % rule.interval ? "" : `${y}-${m}`;
    if (rule.freq === "DAILY") return days(start, date) % rule.interval ? "" : date;
    const opens = next(date, -((weekday(date) - rule.weekStart + 7) % 7));
    const first = next(start, -((weekday(start) - rule.weekStart + 7) % 7));
    return (days(first, opens) / 7) % rule.interval ? "" : opens;
  };
  const nothingSaid = !rule.weekdays.length && !rule.daysOfMonth.length && !rule.daysOfYear.length;
  const lets = (date: string): boolean => {
    const [y, m, d] = parts(date);
    const inMonth = days(
      `${date.slice(0, 8)}01`,
      m === 12 ? `${y + 1}-01-01` : `${y}-${String(m + 1).padStart(2, "0")}-01`,
    );
    const inYear = days(`${y}-01-01`, `${y + 1}-01-01`);
    const ofYear = days(`${y}-01-01`, date) + 1;
    const either = (list: readonly number[], n: number, all: number) => list.some((v) => v === n || v === n - all - 1);
    if (rule.months.length && !rule.months.includes(m)) return false;
    if (rule.daysOfMonth.length && !either(rule.daysOfMonth, d, inMonth)) return false;
    if (rule.daysOfYear.length && !either(rule.daysOfYear, ofYear, inYear)) return false;
    if (rule.weeks.length) {
      const fourth = next(date, 3 - ((weekday(date) - rule.weekStart + 7) % 7));
      const weekOf = (day: string) => Math.floor(days(`${day.slice(0, 4)}-01-01`, day) / 7) + 1;
      const isLast = next(fourth, 7).slice(0, 4) !== fourth.slice(0, 4);
      if (!rule.weeks.some((week) => week === weekOf(fourth) || (week === -1 && isLast))) return false;
      if (nothingSaid) return weekday(date) === weekday(start);
    }
    if (nothingSaid) {
      if (rule.freq === "WEEKLY") return weekday(date) === weekday(start);
      if (rule.freq === "MONTHLY") return d === d0;
      if (rule.freq === "YEARLY") return d === d0 && (rule.months.length > 0 || m === m0);
      return true;
    }
    const [n, all] = rule.freq === "MONTHLY" || rule.months.length ? [d, inMonth] : [ofYear, inYear];
    return (
      !rule.weekdays.length ||
      rule.weekdays.some(
        (wanted) =>
          wanted.weekday === weekday(date) &&
          (wanted.nth === null || wanted.nth === Math.ceil(n / 7) || -wanted.nth === Math.ceil((all - n + 1) / 7)),
      )
    );
  };
  const found: string[] = [];
  let set: string[] = [];
  let key = "";
  const close = () => {
    const picked = rule.positions.length
      ? set.filter((_, i) => rule.positions.includes(i + 1) || rule.positions.includes(i - set.length))
      : set;
    found.push(...picked.filter((date) => date >= start));
    set = [];
  };
  for (let date = `${y0 - 1}-12-01`; date <= next(to, 400); date = next(date)) {
    const period = periodOf(date);
    if (period !== key) close();
    key = period;
    if (period && lets(date)) set.push(date);
  }
  close();
  return found.slice(0, rule.count ?? undefined).filter((date) => date <= to);
}

describe("any rule", () => {
  const starts = fc.integer({ min: 0, max: 900 }).map((n) => addDays("2023-10-01", n));

  it("has the dates that a plain walk through all days finds, over leap days and ends of months", () => {
    fc.assert(
      fc.property(rules, starts, fc.integer({ min: -400, max: 900 }), (rule, start, later) => {
        const to = addDays(start, 1100);
        const all = plainDates(rule, start, to);
        const from = addDays(start, later);
        expect(datesOfRule(rule, start, from, to)).toEqual(all.filter((date) => date >= from));
      }),
      { numRuns: 150 },
    );
  });

  it("has the dates that a calendar program computes from its text, where it begins on one of them", () => {
    fc.assert(
      fc.property(rules, starts, (loose, around) => {
        // That program takes one way to name days at a time, and weeks within their year only.
        const ways = [loose.daysOfYear, loose.daysOfMonth, loose.weekdays.filter(({ nth }) => nth !== null)];
        fc.pre(!loose.weeks.length && ways.filter((list) => list.length).length < 2);
        fc.pre(new Set(loose.weekdays.map(({ nth }) => nth === null)).size < 2);
        const start = datesOfRule({ ...loose, count: null }, around, around, addDays(around, 800), 1)[0];
        fc.pre(start !== undefined);
        // What it begins with is then said by the rule, and not by another first date.
        const rule = { ...loose, count: loose.count ?? 40 };
        const to = addDays(start!, 1200);
        const other = new RRuleTemporal({
          rruleString: `DTSTART;TZID=UTC:${start!.replaceAll("-", "")}T120000\nRRULE:${ruleText(rule)}`,
        });
        const noon = (date: string) => new Date(`${date}T12:00:00Z`);
        const expected = other
          .between(noon(start!), noon(to), true)
          .map((at) => Temporal.PlainDate.from(at.toPlainDate().toString()).toString());
        expect(datesOfRule(rule, start!, start!, to)).toEqual(expected);
      }),
      { numRuns: 60 },
    );
  });

  it("is read again as it was written", () => {
    fc.assert(fc.property(rules, (rule) => expect(readRule(ruleText(rule))).toEqual(rule)));
  });

  it("of weeks has their days, in long years and short ones", () => {
    for (const year of range(2019, 2032)) {
      const monday = datesOfRule(
        readRule("FREQ=YEARLY;BYWEEKNO=1;BYDAY=TH"),
        `${year}-01-01`,
        `${year}-01-01`,
        `${year}-01-31`,
      );
      // The first week is the one with the fourth of January.
      expect(Math.abs(numberOf(monday[0]!) - numberOf(`${year}-01-04`))).toBeLessThanOrEqual(3);
      expect(isDate(dateOf(numberOf(monday[0]!)))).toBe(true);
    }
    expect(dates("FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO", "2020-12-28", "2033-01-01")).toEqual([
      "2020-12-28",
      "2026-12-28",
      "2032-12-27",
    ]);
  });
});

it("says in a sentence why a rule cannot be used", () => {
  const said = (text: string) => {
    try {
      readRule(text);
      return "is used";
    } catch (error) {
      if (!(error instanceof OddRule)) throw error;
      return error.message;
    }
  };
  expect([
    said("BYDAY=TU"),
    said("FREQ=HOURLY"),
    said("FREQ=DAILY;BYHOUR=9"),
    said("FREQ=DAILY;COUNT=3;UNTIL=20270101"),
    said("FREQ=WEEKLY;BYDAY=2TU"),
    said("FREQ=WEEKLY;BYDAY=XX"),
    said("FREQ=MONTHLY;BYMONTHDAY=32"),
    said("FREQ=DAILY;UNTIL=20270230"),
    said("FREQ=DAILY;INTERVAL=0"),
    said("FREQ=MONTHLY;BYSETPOS=-1"),
    said("RRULE:FREQ=MONTHLY;BYDAY=-1FR"),
  ]).toEqual([
    "A rule begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.",
    "A rule begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.",
    "BYHOUR is about times: a repeat has dates, and its window says when.",
    "A rule ends by COUNT or by UNTIL, not by both.",
    "A counted weekday such as 2TU needs FREQ=MONTHLY or YEARLY.",
    "“XX” is no day such as TU, 2TU or -1FR.",
    "BYMONTHDAY: “32” is not between 1 and 31, or counted from the end.",
    "UNTIL: “20270230” is no date such as 20271231.",
    "INTERVAL is a whole number above 0.",
    "BYSETPOS chooses among the days of another part: add BYDAY or BYMONTHDAY.",
    "is used",
  ]);
});
