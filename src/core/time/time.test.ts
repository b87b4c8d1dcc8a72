import fc from "fast-check";
import { Temporal } from "temporal-polyfill";
import { addDays, datesFrom, daysBetween, servesWeekday, weekdayOf } from "./dates";
import { epochMinute, localOf, minuteOn } from "./local";
import { intersectSpans, joinSpans, minutesIn, type Span, subtractSpans } from "./spans";
import { clock, daysWords, durationWords, parseClock, weekdaysWords, windowWords, writeTimesBy } from "./words";

const lisbon = "Europe/Lisbon";
const dates = fc.integer({ min: 0, max: 4000 }).map((n) => addDays("2024-01-01", n));
const manySpans = fc.array(
  fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 300 })).map(([a, b]): Span => [a, b]),
  { maxLength: 6 },
);
const covers = (spans: readonly Span[], minute: number) =>
  spans.some(([open, close]) => open <= minute && minute < close);

describe("local time", () => {
  it("comes back as it went in, every day but for the hour that spring skips", () => {
    fc.assert(
      fc.property(
        dates,
        fc.integer({ min: 0, max: 1439 }),
        fc.constantFrom(lisbon, "UTC", "America/New_York", "Asia/Kolkata"),
        (date, minute, zone) => {
          const there = localOf(epochMinute(date, minute, zone), zone);
          if (there.minute === minute + 60) return;
          expect(there).toEqual({ date, minute });
        },
      ),
    );
  });

  it("is what the calendar of the zone says at any moment, also where a day is missing or clocks change by half an hour", () => {
    const zones = [lisbon, "UTC", "America/St_Johns", "Australia/Lord_Howe", "Pacific/Apia", "Pacific/Kiritimati"];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40_000_000 }), fc.constantFrom(...zones), (epoch, zone) => {
        const zoned = Temporal.Instant.fromEpochMilliseconds(epoch * 60_000).toZonedDateTimeISO(zone);
        expect(localOf(epoch, zone)).toEqual({
          date: zoned.toPlainDate().toString(),
          minute: zoned.hour * 60 + zoned.minute,
        });
      }),
    );
    fc.assert(
      fc.property(dates, fc.integer({ min: -4000, max: 4000 }), (date, days) => {
        expect(addDays(date, days)).toBe(Temporal.PlainDate.from(date).add({ days }).toString());
        expect([weekdayOf(date), daysBetween(date, addDays(date, days))]).toEqual([
          Temporal.PlainDate.from(date).dayOfWeek - 1,
          days,
        ]);
      }),
    );
  });

  it("makes the day of the spring change an hour shorter, and that of autumn an hour longer", () => {
    const length = (date: string) => epochMinute(date, 1440, lisbon) - epochMinute(date, 0, lisbon);
    expect([length("2027-03-28"), length("2027-10-31"), length("2027-03-27")]).toEqual([1380, 1500, 1440]);
    expect(epochMinute("2027-03-28", 540, lisbon) - epochMinute("2027-03-28", 0, lisbon)).toBe(480);
  });

  it("knows weekdays, from Monday", () => {
    expect(weekdayOf("2027-03-11")).toBe(3);
    expect(servesWeekday(2 + 8, "2027-03-11")).toBe(true);
    expect(servesWeekday(2 + 8, "2027-03-12")).toBe(false);
    expect(datesFrom("2027-02-27", "2027-03-01")).toEqual(["2027-02-27", "2027-02-28", "2027-03-01"]);
  });
});

describe("spans", () => {
  it("join, subtract and intersect minute by minute", () => {
    fc.assert(
      fc.property(manySpans, manySpans, fc.integer({ min: 0, max: 300 }), (a, b, minute) => {
        expect(covers(joinSpans(a), minute)).toBe(covers(a, minute));
        expect(covers(subtractSpans(a, b), minute)).toBe(covers(a, minute) && !covers(b, minute));
        expect(covers(intersectSpans(a, b), minute)).toBe(covers(a, minute) && covers(b, minute));
        expect(minutesIn(subtractSpans(a, b)) + minutesIn(intersectSpans(a, b))).toBe(minutesIn(joinSpans(a)));
      }),
    );
  });
});

describe("words", () => {
  it("says windows, lengths and weekdays shortly", () => {
    expect([
      windowWords(540, 660),
      windowWords(510, 600),
      windowWords(570, 570),
      durationWords(75),
      durationWords(120),
      durationWords(45),
      durationWords(4 * 1440),
    ]).toEqual(["9–11", "8:30–10", "09:30", "1 h 15 min", "2 h", "45 min", "4 days"]);
    expect([weekdaysWords(127), weekdaysWords(31), weekdaysWords(10), weekdaysWords(4)]).toEqual([
      "daily",
      "weekdays",
      "Tue and Thu",
      "Wednesdays",
    ]);
  });

  it("says on which days", () => {
    expect(daysWords(["2027-03-11"])).toBe("Thursday 11 March");
    expect(daysWords(["2027-03-11", "2027-03-12", "2027-03-15"])).toBe(
      "Thursday 11 March, Friday 12 March and Monday 15 March",
    );
  });

  it("reads times as people type them, and nothing else", () => {
    expect(["9:00", "09.30", "24:00", "24:01", "9", "25:00"].map(parseClock)).toEqual([
      540,
      570,
      1440,
      null,
      null,
      null,
    ]);
  });
});

describe("a minute beyond the end of a day", () => {
  it("is that of the day that follows, also where the clocks change between them", () => {
    const date = fc.integer({ min: 0, max: 365 }).map((n) => addDays("2027-01-01", n));
    fc.assert(
      fc.property(
        date,
        fc.integer({ min: 1441, max: 2880 }),
        fc.constantFrom("Europe/Lisbon", "UTC"),
        (on, minute, zone) => {
          expect(epochMinute(on, minute, zone)).toBe(epochMinute(addDays(on, 1), minute - 1440, zone));
        },
      ),
    );
  });

  it("is what a moment of the night has on the date before it", () => {
    const at = epochMinute("2027-03-11", 90, "Europe/Lisbon");
    expect([minuteOn("2027-03-10", at, "Europe/Lisbon"), minuteOn("2027-03-11", at, "Europe/Lisbon")]).toEqual([
      1530, 90,
    ]);
  });
});

describe("the clock a business reads", () => {
  afterEach(() => writeTimesBy(24));

  it("has twelve hours or twenty-four", () => {
    const said = () => [0, 570, 720, 810, 1440].map(clock);
    expect(said()).toEqual(["00:00", "09:30", "12:00", "13:30", "24:00"]);
    writeTimesBy(12);
    expect(said()).toEqual(["12:00 am", "9:30 am", "12:00 pm", "1:30 pm", "12:00 am"]);
    expect([windowWords(540, 660), windowWords(660, 780), windowWords(570, 570), windowWords(810, 930)]).toEqual([
      "9–11 am",
      "11 am–1 pm",
      "9:30 am",
      "1:30–3:30 pm",
    ]);
  });

  it("of a night shows the hours of the next day", () => {
    expect([clock(1560), windowWords(1200, 1560), windowWords(1380, 1380)]).toEqual(["02:00", "20–2", "23:00"]);
    writeTimesBy(12);
    expect(windowWords(1200, 1560)).toBe("8 pm–2 am");
  });

  it("is understood either way", () => {
    expect(
      ["9:00", "09.30", "9 pm", "12:15 AM", "12 pm", "24:00", "25:00", "13 pm", "9", "noon"].map(parseClock),
    ).toEqual([540, 570, 1260, 15, 720, 1440, null, null, null, null]);
  });
});
