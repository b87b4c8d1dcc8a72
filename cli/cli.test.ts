import fc from "fast-check";
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { plainArrivals } from "../bench/plain-checker";
import { plan } from "./plan";
import { type QuoteInput, answerTo as quoteOf } from "./quote";
import { BadInput, readJson } from "./read-json";
import { answerTo as collectionOf, type CollectInput } from "./collect";
import { answerTo as remindersOf, type RemindInput } from "./remind";
import { answerTo as repeatOf, type RepeatInput } from "./repeat";
import { answerTo, WindowsInput } from "./windows";

const sample: WindowsInput = {
  timeZone: "Europe/Lisbon",
  now: "2027-03-01T08:00",
  from: "2027-03-01",
  to: "2027-03-01",
  windows: [
    ["09:00", "11:00"],
    ["11:00", "13:00"],
  ],
  rules: { notice: 120, furthestDays: 30, mode: "route", perWindow: null, perDay: null },
  request: { place: 3, minutes: 60, before: 0, after: 15, skills: ["gas"], crew: 1 },
  technicians: [
    {
      id: "t1",
      skills: [{ skill: "gas", until: "2027-03-10" }],
      start: 0,
      end: 0,
      week: {
        mon: [
          ["08:00", "12:00"],
          ["13:00", "17:00"],
        ],
        sun: [["00:30", "12:00"]],
      },
      off: ["2027-03-05"],
    },
  ],
  stops: [
    {
      technician: "t1",
      place: 2,
      earliest: "2027-03-01T09:00",
      latest: "2027-03-01T11:00",
      minutes: 45,
      before: 0,
      after: 0,
    },
  ],
  travel: [
    [0, 10, 12, 9],
    [10, 0, 5, 7],
    [12, 5, 0, 6],
    [9, 7, 6, 0],
  ],
};
const folder = mkdtempSync(path.join(tmpdir(), "hogar-cli-"));
afterAll(() => rmSync(folder, { recursive: true }));
const fileOf = (content: unknown): string => {
  const file = path.join(folder, "input.json");
  writeFileSync(file, typeof content === "string" ? content : JSON.stringify(content));
  return file;
};

describe("hogar windows", () => {
  it("answers every window of every day in the range", () => {
    expect(answerTo(sample).windows).toEqual([
      { date: "2027-03-01", from: "09:00", to: "11:00", offered: false, reasons: [{ code: "too-soon", minutes: 60 }] },
      {
        date: "2027-03-01",
        from: "11:00",
        to: "13:00",
        offered: true,
        technicians: [{ id: "t1", extraDriving: 3, arrive: ["13:00", "13:00"] }],
      },
    ]);
    expect(answerTo({ ...sample, to: "2027-03-14" }).windows).toHaveLength(28);
  });

  it("counts bookings where capacity is by count, and holds limits of a day", () => {
    const codes = (rules: WindowsInput["rules"]) =>
      answerTo({ ...sample, now: "2027-02-28T08:00", rules }).windows.map((w) =>
        w.offered ? "offered" : w.reasons[0]!.code,
      );
    expect(codes({ mode: "count", perWindow: 1 })).toEqual(["limit-reached", "offered"]);
    expect(codes({ mode: "route", perDay: 1 })).toEqual(["limit-reached", "limit-reached"]);
    expect(codes({ mode: "route", perWindow: 1 })).toEqual(["limit-reached", "offered"]);
    expect(codes({ mode: "ask" })).toEqual(["asks-first", "asks-first"]);
  });

  it("keeps wall-clock times on the days on which the clocks change", () => {
    for (const date of ["2027-03-28", "2027-10-31"]) {
      const { windows } = answerTo({
        ...sample,
        now: "2027-03-10T08:00",
        from: date,
        to: date,
        stops: [],
        rules: { furthestDays: 400 },
        request: { place: 3, minutes: 60 },
        windows: [
          ["01:00", "02:00"],
          ["09:00", "11:00"],
        ],
      });
      expect(windows.at(-1)).toMatchObject({
        from: "09:00",
        to: "11:00",
        technicians: [{ arrive: ["09:00", "10:51"] }],
      });
      // In spring there is no time between one and two; in autumn there is twice as much.
      expect(windows).toHaveLength(date === "2027-03-28" ? 1 : 2);
    }
  });

  it("offers exactly what a minute-by-minute walk of the day can keep", () => {
    const minute = (m: number) => `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
    const stop = fc.record({
      place: fc.integer({ min: 0, max: 3 }),
      from: fc.integer({ min: 480, max: 900 }),
      wide: fc.integer({ min: 0, max: 120 }),
      minutes: fc.integer({ min: 1, max: 90 }),
    });
    fc.assert(
      fc.property(
        fc.array(stop, { maxLength: 3 }),
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 0, max: 40 }),
        (list, minutes, after) => {
          const stops = list.sort((a, b) => a.from - b.from);
          const { windows } = answerTo({
            ...sample,
            now: "2027-02-20T08:00",
            rules: {},
            request: { place: 3, minutes, after },
            stops: stops.map((s) => ({
              technician: "t1",
              place: s.place,
              earliest: `2027-03-01T${minute(s.from)}`,
              latest: `2027-03-01T${minute(s.from + s.wide)}`,
              minutes: s.minutes,
            })),
          });
          const day = {
            start: 0,
            end: 0,
            spans: [
              [480, 720],
              [780, 1020],
            ] as const,
            stops: stops.map((s) => ({
              place: s.place,
              earliest: s.from,
              latest: s.from + s.wide,
              before: 0,
              minutes: s.minutes,
              after: 0,
            })),
          };
          const arrivals = [
            [540, 660],
            [660, 780],
          ].map(([earliest, latest]) =>
            Array.from({ length: stops.length + 1 }, (_, k) =>
              plainArrivals(
                day,
                k,
                { place: 3, earliest: earliest!, latest: latest!, before: 0, minutes, after },
                (a, b) => sample.travel[a]![b]!,
              ),
            ),
          );
          expect(windows.map((w) => w.offered)).toEqual(
            arrivals.map((positions) => positions.some((p) => p.length > 0)),
          );
          windows.forEach((w, i) => {
            if (w.offered)
              expect(
                arrivals[i]!.filter((p) => p.length).map((p) => [minute(p[0]!), minute(p.at(-1)!)]),
              ).toContainEqual(w.technicians[0]!.arrive);
          });
        },
      ),
      { numRuns: 200 },
    );
  });

  it.each<[string, unknown, string]>([
    ["text that is no JSON", '{ "timeZone":\n "x", }', "line 2, column 7: this is not JSON"],
    [
      "a time that is none",
      { ...sample, windows: [["09:00", "25:00"]] },
      'windows[0][1]: wanted a time such as 09:00, found "25:00"',
    ],
    ["a missing entry", { ...sample, request: { minutes: 60 } }, "request: “place” is missing"],
    ["an entry of another name", { ...sample, rule: {} }, "“rule” is not known here"],
    [
      "a place beyond the table",
      { ...sample, request: { place: 9, minutes: 60 } },
      "request.place: there is no place 9: travel has 4",
    ],
    [
      "a table that is not square",
      { ...sample, travel: [[0, 1], [1]] },
      "travel[1]: 1 numbers where there are 2 places",
    ],
    [
      "a stop of somebody unknown",
      { ...sample, stops: [{ ...sample.stops![0]!, technician: "t7" }] },
      "stops[0].technician: there is no technician “t7”",
    ],
    [
      "overlapping hours",
      {
        ...sample,
        technicians: [
          {
            ...sample.technicians[0]!,
            week: {
              tue: [
                ["08:00", "12:00"],
                ["11:00", "13:00"],
              ],
            },
          },
        ],
      },
      "technicians[0].week.tue[1]: spans come in order and do not overlap",
    ],
    ["a range that runs backwards", { ...sample, to: "2027-02-01" }, "to: the range ends before it begins"],
  ])("refuses %s, and says where and what", (_, content, sentence) => {
    expect(() => answerTo(readJson(fileOf(content), WindowsInput))).toThrow(new BadInput("", sentence));
  });
});

describe("hogar plan", () => {
  const day = {
    technicians: [{ id: "t1", skills: ["gas"], spans: [[0, 2300]], start: 0, end: 0 }],
    visits: [{ id: "v1", place: 1, minutes: 100, earliest: 1610, latest: 1710 }],
    travel: [
      [0, 152],
      [152, 0],
    ],
  };

  it("writes routes, and ends with code 0", () => {
    const { status, stdout } = spawnSync("npx", ["tsx", "cli/hogar.ts", "plan", "-", "--seed", "1"], {
      input: JSON.stringify(day),
      encoding: "utf8",
    });
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({
      routes: [{ technician: "t1", stops: [{ visit: "v1", arrive: 1610, leave: 1710 }], driving: 304 }],
      unplaced: [],
      cost: { total: 304 },
    });
  });

  it("ends with code 2 and one line where the input cannot be used", () => {
    const { status, stderr } = spawnSync("npx", ["tsx", "cli/hogar.ts", "plan"], {
      input: JSON.stringify({ ...day, travel: [[0]] }),
      encoding: "utf8",
    });
    expect([status, stderr.trim().split("\n").at(-1)]).toEqual([
      2,
      "hogar plan: visits[0].place: there is no place 1: travel has 1",
    ]);
  });

  it("refuses options and visits that make no sense", () => {
    expect(() => plan(["--seed", "soon"])).toThrow("--seed: wanted a whole number, found “soon”");
    expect(() => plan([fileOf({ ...day, visits: [day.visits[0], day.visits[0]] })])).toThrow(
      "visits[1]: “v1” is there twice",
    );
  });
});

describe("hogar quote", () => {
  const sweep: QuoteInput = {
    service: {
      name: "Chimney sweep",
      priceMinor: 7900,
      taxBp: 1300,
      minutes: 45,
      skills: ["sweep"],
      deposit: { kind: "percent", value: 2500 },
      questions: [
        {
          id: "flues",
          words: "How many flues?",
          required: true,
          kind: "count",
          min: 1,
          max: 8,
          included: 1,
          each: { price: { how: "add", minor: 4500 }, minutes: 30 },
        },
        {
          id: "nest",
          words: "A nest?",
          required: false,
          kind: "yes-no",
          yes: { skills: [{ skill: "roof access" }], crew: 2 },
        },
      ],
      extras: [{ id: "alarm", name: "Carbon monoxide alarm", priceMinor: 3400, taxBp: 2100 }],
    },
    answers: { flues: 3, nest: true },
    extras: [{ id: "alarm", quantity: 1 }],
    zone: { name: "Moor Edge", surchargeMinor: 1800 },
  };

  it("answers lines that add up to the total, minutes, skills and crew", () => {
    const order = quoteOf(sweep);
    expect(order).toMatchObject({
      totalMinor: 7900 + 9000 + 3400 + 1800,
      minutes: 105,
      crew: 2,
      skills: [
        { skill: "sweep", level: 1 },
        { skill: "roof access", level: 1 },
      ],
      depositMinor: 5525,
      problems: {},
    });
    expect(order.lines.reduce((sum, line) => sum + line.amountMinor, 0)).toBe(order.totalMinor);
  });

  it("says what is still to be answered, and refuses what is not there", () => {
    expect(quoteOf({ ...sweep, answers: {} }).problems).toEqual({ flues: "Please answer this." });
    expect(() => quoteOf({ ...sweep, extras: [{ id: "cowl", quantity: 1 }] })).toThrow(
      "extras[0].id: there is no extra “cowl”",
    );
    expect(() =>
      quoteOf({
        ...sweep,
        service: {
          ...sweep.service,
          questions: [{ id: "a", words: "?", required: true, kind: "yes-no", shownIf: { question: "gone", is: true } }],
        },
      }),
    ).toThrow(/^service.questions\[0\].shownIf/);
  });

  it("reads a file and writes one line", () => {
    const run = spawnSync("npx", ["--no-install", "tsx", "cli/hogar.ts", "quote", fileOf(sweep)], { encoding: "utf8" });
    expect([run.status, JSON.parse(run.stdout).totalMinor]).toEqual([0, 22_100]);
  });
});

describe("hogar repeat", () => {
  const second: RepeatInput = {
    timeZone: "Europe/Lisbon",
    rule: "FREQ=MONTHLY;BYDAY=2TU",
    start: "2027-03-09",
    window: ["09:00", "11:00"],
    exceptions: [
      { date: "2027-04-13", skip: true },
      { date: "2027-05-11", to: "2027-05-12", window: ["13:00", "15:00"] },
    ],
    pauses: [["2027-07-01", "2027-08-31"]],
    closed: [["2027-09-14", "2027-09-14"]],
    weekdays: 62,
    onClosed: "later",
    from: "2027-01-01",
    to: "2027-09-30",
  };

  it("answers each date of the rule with what becomes of it, at its local time through daylight saving", () => {
    expect(repeatOf(second)).toEqual({
      words: "every month on the second Tuesday, 9-11",
      dates: [
        {
          date: "2027-03-09",
          state: "planned",
          day: "2027-03-09",
          from: "2027-03-09T09:00:00Z",
          to: "2027-03-09T11:00:00Z",
        },
        { date: "2027-04-13", state: "skipped" },
        {
          date: "2027-05-11",
          state: "moved",
          day: "2027-05-12",
          from: "2027-05-12T12:00:00Z",
          to: "2027-05-12T14:00:00Z",
        },
        {
          date: "2027-06-08",
          state: "planned",
          day: "2027-06-08",
          from: "2027-06-08T08:00:00Z",
          to: "2027-06-08T10:00:00Z",
        },
        { date: "2027-07-13", state: "paused" },
        { date: "2027-08-10", state: "paused" },
        {
          date: "2027-09-14",
          state: "moved",
          day: "2027-09-15",
          from: "2027-09-15T08:00:00Z",
          to: "2027-09-15T10:00:00Z",
        },
      ],
    });
  });

  it.each<[string, object, string]>([
    [
      "a rule that is none",
      { rule: "FREQ=SOMETIMES" },
      "rule: A rule begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.",
    ],
    [
      "a first date that is not of the rule",
      { start: "2027-03-10" },
      "rule: the first date, 2027-03-10, is not one of its dates.",
    ],
    [
      "a date that is left out and moved",
      { exceptions: [{ date: "2027-04-13", skip: true, to: "2027-04-14" }] },
      "exceptions[0]: a date is left out or takes place on another day, not both",
    ],
    [
      "a pause that ends before it begins",
      { pauses: [["2027-08-31", "2027-07-01"]] },
      "pauses[0]: a pause ends before it begins",
    ],
  ])("refuses %s", (_, more, words) => expect(() => repeatOf({ ...second, ...more })).toThrow(words));

  it("reads a file and writes one line", () => {
    const run = spawnSync("npx", ["--no-install", "tsx", "cli/hogar.ts", "repeat", fileOf(second)], {
      encoding: "utf8",
    });
    expect([run.status, JSON.parse(run.stdout).dates.length]).toEqual([0, 7]);
  });
});

describe("hogar collect", () => {
  const march: CollectInput = {
    timeZone: "Europe/Lisbon",
    weekdays: 17,
    time: "09:00",
    daysPastDue: 0,
    smallest: 500,
    now: "2027-03-01T10:00",
    until: "2027-04-01T00:00",
    invoices: [
      { id: "i1", open: 12_000, due: "2027-03-03", known: "2027-02-20T12:00" },
      { id: "i2", open: 9_900, due: "2027-03-02", known: "2027-03-04T15:00", date: "2027-03-20" },
      { id: "i3", open: 4_000, due: "2027-03-02", known: "2027-02-20T12:00", never: true },
    ],
  };

  it("answers which run takes what, in UTC through daylight saving, and what is left", () => {
    const later = { id: "i4", open: 700, due: "2027-03-27", known: "2027-03-27T12:00" };
    expect(collectionOf({ ...march, invoices: [...march.invoices, later] })).toEqual({
      runs: [
        { at: "2027-03-05T09:00:00Z", invoices: ["i1"], sum: 12_000 },
        { at: "2027-03-22T09:00:00Z", invoices: ["i2"], sum: 9_900 },
        { at: "2027-03-29T08:00:00Z", invoices: ["i4"], sum: 700 },
      ],
      left: [{ id: "i3", why: "never" }],
    });
  });

  it.each<[string, Partial<CollectInput>, string]>([
    [
      "an invoice that is there twice",
      { invoices: [march.invoices[0]!, march.invoices[0]!] },
      "invoices[1]: “i1” is there twice",
    ],
    ["an end before its beginning", { until: "2027-02-01T00:00" }, "until: it is not before now"],
  ])("refuses %s", (_, change, words) => expect(() => collectionOf({ ...march, ...change })).toThrow(words));
});

describe("hogar remind", () => {
  const spring: RemindInput = {
    timeZone: "Europe/Lisbon",
    hours: ["08:00", "20:00"],
    rules: [
      { id: "early", daysBefore: 3, at: "17:00" },
      { id: "day", hoursBefore: 24, outside: "earlier" },
      { id: "soon", hoursBefore: 2, outside: "drop" },
    ],
    visits: [
      {
        id: "v1",
        customer: "c1",
        from: "2027-03-28T09:00",
        told: "2027-03-20T10:00",
        cancelled: null,
        moved: [{ at: "2027-03-26T12:00", from: "2027-03-29T13:00" }],
      },
    ],
    now: "2027-03-20T10:00",
    until: "2027-03-31T00:00",
  };

  it("answers when each message falls, and what is dropped and why", () => {
    const { messages, dropped } = remindersOf(spring);
    expect(messages.map(({ rule, at, from }) => [rule, at, from])).toEqual([
      ["early", "2027-03-25T17:00:00Z", "2027-03-28T08:00:00Z"],
      ["early", "2027-03-26T17:00:00Z", "2027-03-29T12:00:00Z"],
      ["day", "2027-03-28T12:00:00Z", "2027-03-29T12:00:00Z"],
      ["soon", "2027-03-29T10:00:00Z", "2027-03-29T12:00:00Z"],
    ]);
    expect(dropped).toEqual([{ visit: "v1", rule: "soon", why: "outside" }]);
  });

  it.each<[string, Partial<RemindInput>, string]>([
    ["a rule of both kinds", { rules: [{ id: "a", daysBefore: 1, at: "08:00", hoursBefore: 2 }] }, "rules[0]: either"],
    ["a day without a time", { rules: [{ id: "a", daysBefore: 1 }] }, "rules[0]: “at” is missing"],
    ["hours that end before they begin", { hours: ["20:00", "08:00"] }, "hours: they end after they begin"],
  ])("refuses %s", (_, change, words) => expect(() => remindersOf({ ...spring, ...change })).toThrow(words));
});
