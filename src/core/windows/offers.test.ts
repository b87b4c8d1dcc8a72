import { prepareDay } from "../routes/insertion";
import type { Stop } from "../routes/timing";
import { addDays } from "../time/dates";
import { epochMinute, localOf } from "../time/local";
import { clockIn } from "../time/local-words";
import { type Calendar, calendarRefusal } from "./calendar";
import { keepingRoom } from "./forecasts";
import { type Limit, takenOf } from "./limits";
import { answerWindows, explainWindows } from "./offers";
import { windowsOn, withFollowingDays } from "./patterns";
import { type PromiseWindow } from "./promise-window";
import { type CandidateTechnician, type WindowsQuestion } from "./question";
import { mostTelling, type Reason } from "./reasons";
import { reasonWords, remedyWords } from "./words";

const date = "2027-03-11";
const byDistance = (from: number, to: number) => Math.abs(from - to) * 10;
const nine = { date, from: 540, to: 660 };
const eleven = { date, from: 660, to: 780 };
const dayAfter = (window: PromiseWindow): PromiseWindow => ({ ...window, date: "2027-03-12" });

interface Shape {
  skills?: CandidateTechnician["skills"];
  stops?: Stop[];
  spans?: [number, number][];
  start?: number;
  end?: number;
  bar?: CandidateTechnician["bar"];
  limits?: Limit[];
  off?: string[];
}

const technician = (
  id: string,
  {
    skills = [{ skill: "gas" }],
    stops = [],
    spans = [[480, 1020]],
    start = 0,
    end = 0,
    bar,
    limits,
    off = [],
  }: Shape = {},
): CandidateTechnician => ({
  id,
  skills,
  bar,
  limits,
  day: (on) => {
    if (off.includes(on)) return { works: false, code: "off" };
    if (spans.length === 0) return { works: false, code: "outside-hours" };
    const day = prepareDay({ start, end, spans, stops }, byDistance);
    return day ? { works: true, day, load: day.stops.length } : { works: false, code: "day-not-feasible" };
  },
});
const visitAt = (place: number, from: number, to: number, minutes = 60): Stop => ({
  place,
  earliest: from,
  latest: to,
  before: 0,
  minutes,
  after: 0,
});

const rules: WindowsQuestion["rules"] = { notice: 120, furthestDays: 30, capacity: { mode: "route" }, limits: [] };
const question = (more: Partial<WindowsQuestion> = {}): WindowsQuestion => ({
  now: 0,
  today: "2027-03-10",
  rules,
  visit: { place: 3, minutes: 60, before: 0, after: 0, skills: [{ skill: "gas" }], crew: 1 },
  windows: [nine, eleven],
  refusal: () => [],
  technicians: [technician("t1")],
  travel: byDistance,
  ...more,
});
const names = {
  technician: (id: string) => ({ t1: "Petra", t2: "Bram", t3: "Luca" })[id] ?? id,
  skill: (id: string) => id,
};
const words = (q: WindowsQuestion) =>
  answerWindows(q).map((a) =>
    a.offered
      ? `offered by ${a.technicians.map((t) => names.technician(t.id)).join(", ") || "somebody"}`
      : a.reasons.map((r) => reasonWords(r, names)).join("; "),
  );

describe("which windows can be promised", () => {
  it("offers what somebody with the skill can reach", () => {
    expect(words(question())).toEqual(["offered by Petra", "offered by Petra"]);
  });

  it("does not offer a window that begins before the notice is up", () => {
    expect(words(question({ now: 480 }))[0]).toBe("1 h too soon for the notice we need");
  });

  it("does not look further ahead than the horizon", () => {
    expect(words(question({ today: "2027-02-01" }))[0]).toBe("8 days further ahead than we take bookings");
  });

  it("tells every rule that stands against a window, not only the first", () => {
    expect(words(question({ now: 480, refusal: () => [{ code: "closed", date }] }))[0]).toBe(
      "1 h too soon for the notice we need; we are closed that day",
    );
  });

  describe("where a time has several seats", () => {
    const seats = (asked: number, taken: number): WindowsQuestion["seats"] => ({
      asked,
      of: 8,
      at: ({ from }) => (from === nine.from ? { id: "7", taken, technicians: ["t1"], begins: 540 } : null),
    });

    it("joins who is there already, though their technician has no more room, and opens another time elsewhere", () => {
      const asked = question({ seats: seats(2, 5), technicians: [technician("t1", { spans: [[480, 600]] })] });
      expect(answerWindows(asked)).toMatchObject([
        { offered: true, technicians: [{ id: "t1" }], seats: { left: 3, joins: "7" } },
        { offered: false },
      ]);
      expect(answerWindows(question({ seats: seats(2, 5) }))[1]).toMatchObject({ seats: { left: 8, joins: null } });
    });

    it("refuses with the seats that are left", () => {
      expect(words(question({ seats: seats(4, 5) }))[0]).toBe("only 3 of 8 seats are left");
      expect(words(question({ seats: seats(1, 8) }))[0]).toBe("all 8 seats are taken");
    });

    it("still keeps the rules, but counts no visit that is there already", () => {
      const limits: Limit[] = [{ of: "business", per: "day", most: 1, taken: () => 1 }];
      const full = question({ seats: seats(1, 5), rules: { ...rules, limits } });
      expect(words(full)[0]).toBe("offered by Petra");
      expect(words({ ...full, now: 480 })[0]).toBe("1 h too soon for the notice we need");
    });
  });

  it("names the skill that nobody has, and the day on which one expired", () => {
    expect(words(question({ technicians: [technician("t1", { skills: [] })] }))[0]).toBe(
      "Petra does not have the skill “gas”",
    );
    expect(
      words(question({ technicians: [technician("t1", { skills: [{ skill: "gas", until: "2027-03-10" }] })] }))[0],
    ).toBe("Petra had “gas” only until 10 March 2027");
    expect(words(question({ technicians: [technician("t1", { skills: [{ skill: "gas", until: date }] })] }))[0]).toBe(
      "offered by Petra",
    );
  });

  it("asks for the level of a skill", () => {
    const visit = { ...question().visit, skills: [{ skill: "gas", level: 2 }] };
    expect(words(question({ visit }))[0]).toBe("Petra does not have the skill “gas” at level 2");
    expect(
      words(question({ visit, technicians: [technician("t1", { skills: [{ skill: "gas", level: 3 }] })] }))[0],
    ).toBe("offered by Petra");
  });

  it("says how many minutes are missing between what is promised already", () => {
    const busy = technician("t1", { stops: [visitAt(5, 540, 540), visitAt(5, 660, 660, 200)] });
    expect(words(question({ technicians: [busy] }))).toEqual([
      "Petra would be 40 min short",
      "Petra would be 1 h 20 min short",
    ]);
  });

  it("does not sell a day that already cannot be kept", () => {
    expect(words(question({ technicians: [technician("t1", { stops: [visitAt(9, 480, 490)] })] }))[0]).toBe(
      "Petra already cannot keep that day’s promises",
    );
  });

  it("puts the least extra driving first, then the least loaded, then the id", () => {
    const near = technician("t2", { stops: [visitAt(3, 600, 700)] });
    expect(words(question({ technicians: [technician("t1"), near] }))[0]).toBe("offered by Bram, Petra");
    expect(words(question({ technicians: [technician("t2"), technician("t1")] }))[0]).toBe("offered by Petra, Bram");
  });

  it("keeps out those who do not go to the zone, do not do the service, are off or do not work that day", () => {
    const team = [
      technician("t1", { bar: "other-zone" }),
      technician("t2", { bar: "other-services" }),
      technician("t3", { off: [date] }),
      technician("t4", { spans: [] }),
    ];
    expect(words(question({ technicians: team }))[0]).toBe(
      "Petra does not go to this zone; Bram does not do this service; Luca is off that day; t4 does not work that day",
    );
  });

  it("gives the earliest and the latest arrival that keep everything else", () => {
    const [answer] = answerWindows(question({ technicians: [technician("t1", { stops: [visitAt(5, 700, 720)] })] }));
    expect(answer).toMatchObject({ offered: true, technicians: [{ extraDriving: 0, arrive: [540, 640] }] });
  });

  it("pauses the driving over a gap in the day, but never the work", () => {
    const shifts = technician("t1", {
      spans: [
        [480, 600],
        [660, 1020],
      ],
    });
    const [morning, late] = answerWindows(
      question({ technicians: [shifts], windows: [nine, { date, from: 570, to: 660 }] }),
    );
    expect(morning).toMatchObject({ technicians: [{ arrive: [540, 660] }] });
    expect(late).toMatchObject({ technicians: [{ arrive: [660, 660] }] });
  });

  it("counts buffers before and after as time at the door", () => {
    const closing = technician("t1", { spans: [[480, 680]] });
    expect(words(question({ technicians: [closing], windows: [nine] }))).toEqual(["offered by Petra"]);
    expect(
      words(
        question({ technicians: [closing], windows: [nine], visit: { ...question().visit, before: 25, after: 30 } }),
      ),
    ).toEqual(["Petra would be 5 min short"]);
  });

  it("knows that some begin and end the day at different places", () => {
    const far = technician("t1", { start: 9, end: 3, spans: [[530, 660]] });
    expect(answerWindows(question({ technicians: [far], windows: [nine] }))[0]).toMatchObject({
      technicians: [{ arrive: [590, 600], extraDriving: 0 }],
    });
  });
});

describe("a wanted technician", () => {
  const both = [technician("t1"), technician("t2", { stops: [visitAt(3, 600, 700)] })];
  const wish = (technicianId: string, only: boolean) =>
    words(question({ technicians: both, windows: [nine], wanted: { technician: technicianId, only } }))[0];

  it("comes first where preferred, whatever the driving", () => {
    expect(wish("t1", false)).toBe("offered by Petra, Bram");
  });

  it("is the only one asked where nobody else will do", () => {
    expect(wish("t2", true)).toBe("offered by Bram");
    expect(
      words(
        question({
          technicians: [technician("t1", { off: [date] }), both[1]!],
          windows: [nine],
          wanted: { technician: "t1", only: true },
        }),
      ),
    ).toEqual(["Petra is off that day"]);
  });

  it("is part of the crew", () => {
    const three = [technician("t1", { start: 3, end: 3 }), technician("t2", { start: 3, end: 3 }), technician("t3")];
    const visit = { ...question().visit, crew: 2 };
    expect(words(question({ technicians: three, visit, windows: [nine] }))).toEqual(["offered by Petra, Bram"]);
    expect(
      words(question({ technicians: three, visit, windows: [nine], wanted: { technician: "t3", only: false } })),
    ).toEqual(["offered by Luca, Petra"]);
    const early = technician("t3", { spans: [[480, 500]] });
    expect(
      words(
        question({
          technicians: [three[0]!, three[1]!, early],
          visit,
          windows: [nine],
          wanted: { technician: "t3", only: true },
        }),
      )[0],
    ).toContain("the job needs 2 people");
  });
});

describe("a crew", () => {
  const visit = { ...question().visit, crew: 2 };

  it("of two is offered where both can begin together, with that moment", () => {
    const late = technician("t2", { stops: [visitAt(3, 480, 540, 30)] });
    const [answer] = answerWindows(question({ visit, technicians: [technician("t1"), late] }));
    expect(answer).toMatchObject({ offered: true, meetAt: 540, technicians: [{ id: "t2" }, { id: "t1" }] });
  });

  it("is refused where one is missing, and says who could", () => {
    expect(words(question({ visit, windows: [nine] }))[0]).toBe("the job needs 2 people and only one of them is free");
  });

  it("is refused where both are free, but never at the same time", () => {
    const early = technician("t1", { spans: [[480, 660]] });
    const late = technician("t2", { spans: [[600, 1020]] });
    expect(words(question({ visit, windows: [nine], technicians: [early, late] }))[0]).toBe(
      "Petra and Bram are free, but never at the same time",
    );
  });

  it("of three finds the one start that all three have", () => {
    const three = [
      technician("t1", { spans: [[480, 690]] }),
      technician("t2", { spans: [[580, 1020]] }),
      technician("t3", { stops: [visitAt(3, 480, 540, 60)] }),
    ];
    expect(
      answerWindows(question({ visit: { ...visit, crew: 3 }, windows: [nine], technicians: three }))[0],
    ).toMatchObject({ offered: false });
    three[0] = technician("t1", { spans: [[480, 705]], end: 3 });
    expect(
      answerWindows(question({ visit: { ...visit, crew: 3 }, windows: [nine], technicians: three }))[0],
    ).toMatchObject({ offered: true, meetAt: 610 });
  });
});

describe("work of several days", () => {
  const window = { ...nine, followingDays: [dayAfter(nine)] };

  it("is offered where the same technician can come on every day of it", () => {
    const team = [technician("t1", { off: ["2027-03-12"] }), technician("t2")];
    expect(words(question({ windows: [window], technicians: team }))).toEqual(["offered by Bram"]);
    expect(words(question({ windows: [window], technicians: [team[0]!] }))).toEqual(["Petra is off that day"]);
  });

  it("needs the same crew throughout, with a common start on each day", () => {
    const visit = { ...question().visit, crew: 2 };
    const [answer] = answerWindows(
      question({
        windows: [window],
        visit,
        technicians: [technician("t1"), technician("t2"), technician("t3", { off: ["2027-03-12"] })],
      }),
    );
    expect(answer).toMatchObject({ offered: true, meetAt: 540, followingDays: [{ date: "2027-03-12", meetAt: 540 }] });
    expect(
      words(
        question({
          windows: [window],
          visit,
          technicians: [technician("t1"), technician("t2", { off: [date] }), technician("t3", { off: ["2027-03-12"] })],
        }),
      )[0],
    ).toContain("the job needs 2 people and only one of them is free");
  });

  it("goes on at the same time on the working days that follow, over a weekend and a change of clocks", () => {
    const zone = "Europe/Lisbon";
    const friday = {
      date: "2027-03-26",
      from: epochMinute("2027-03-26", 540, zone),
      to: epochMinute("2027-03-26", 660, zone),
    };
    const weekday = (on: string) => !["2027-03-27", "2027-03-28"].includes(on);
    const { followingDays } = withFollowingDays(friday, 3, weekday, zone);
    expect(followingDays!.map((w) => [w.date, clockIn(w.from, zone), clockIn(w.to, zone)])).toEqual([
      ["2027-03-29", "09:00", "11:00"],
      ["2027-03-30", "09:00", "11:00"],
    ]);
    expect(followingDays![0]!.from - friday.from).toBe(3 * 1440 - 60);
    expect(words(question({ windows: [withFollowingDays(nine, 2, () => false, zone)] }))[0]).toBe(
      "the work goes on for several days, and none follows soon enough",
    );
  });
});

describe("capacity by count", () => {
  const booked = (n: number) => takenOf(Array.from({ length: n }, () => ({ date, from: 540 })));
  const counting = (most: number, taken: number, technicians: CandidateTechnician[]) =>
    words(
      question({
        rules: { ...rules, capacity: { mode: "count", most, taken: booked(taken) } },
        technicians,
        windows: [nine],
      }),
    )[0];

  it("offers a window until so many bookings begin in it, whether a route has room or not", () => {
    const full = technician("t1", { stops: [visitAt(3, 480, 480, 300)] });
    expect(counting(2, 1, [full])).toBe("offered by somebody");
    expect(counting(2, 2, [full])).toContain("2 of at most 2 visits are booked in that window");
  });

  it("takes fewer when some of those who are able are off, rounded down", () => {
    const team = [
      technician("t1"),
      technician("t2"),
      technician("t3", { off: [date] }),
      technician("t4", { skills: [] }),
    ];
    expect(counting(4, 1, team)).toBe("offered by Petra, Bram");
    expect(counting(4, 2, team)).toContain(
      "2 of at most 2 visits are booked in that window (4 when everybody is there)",
    );
  });

  it("offers nothing where nobody able is there", () => {
    expect(counting(4, 0, [technician("t1", { off: [date] })])).toContain("0 of at most 0 visits");
  });
});

describe("other capacity modes", () => {
  const inMode = (mode: "open" | "ask") =>
    words(
      question({
        rules: { ...rules, capacity: { mode } },
        windows: [nine],
        technicians: [technician("t1", { spans: [] })],
      }),
    )[0];

  it("open promises always, ask never without a person", () => {
    expect(inMode("open")).toBe("offered by somebody");
    expect(inMode("ask")).toBe("times are agreed with a person, not chosen from windows");
  });
});

describe("limits", () => {
  const bookings = takenOf([
    { date, from: 540 },
    { date, from: 600 },
    { date: "2027-03-09", from: -2000 },
  ]);
  const limited = (limit: Omit<Limit, "taken">) =>
    words(question({ rules: { ...rules, limits: [{ ...limit, taken: bookings }] } }));

  it("hold per window, per day and per week", () => {
    expect(limited({ of: "zone", per: "window", most: 2 })).toEqual([
      "2 of at most 2 visits in this zone are booked in that window",
      "offered by Petra",
    ]);
    expect(limited({ of: "service", per: "day", most: 2 })[1]).toBe(
      "2 of at most 2 visits of this service are booked that day",
    );
    expect(limited({ of: "business", per: "week", most: 3 })[1]).toBe("3 of at most 3 visits are booked that week");
    expect(limited({ of: "business", per: "week", most: 4 })[1]).toBe("offered by Petra");
  });

  it("of one technician leave the others free", () => {
    const most: Limit = { of: "technician", per: "day", most: 2, taken: bookings };
    expect(words(question({ technicians: [technician("t1", { limits: [most] }), technician("t2")] }))).toEqual([
      "offered by Bram",
      "offered by Bram",
    ]);
    expect(words(question({ technicians: [technician("t1", { limits: [most] })] }))[0]).toBe(
      "Petra has 2 of at most 2 visits that day",
    );
  });

  it("of hours a day count work, and stand beside those whom customers are not offered", () => {
    const visits = question({
      technicians: [
        { ...technician("t1"), mostMinutes: 30 },
        { ...technician("t2"), bar: "not-offered" as const },
      ],
    });
    expect(answerWindows(visits)[0]).toMatchObject({
      offered: false,
      reasons: expect.arrayContaining([
        expect.objectContaining({ technician: "t1", code: "hours-full", most: 30 }),
        { technician: "t2", code: "not-offered" },
      ]),
    });
    expect(words(question({ technicians: [{ ...technician("t1"), mostMinutes: 1440 }] }))[0]).toMatch(/^offered/);
  });
});

describe("the calendar", () => {
  const zone = "Europe/Lisbon";
  const thursday = { date, from: epochMinute(date, 540, zone), to: epochMinute(date, 660, zone) };
  const calendar: Calendar = {
    timeZone: zone,
    opening: { hours: [], special: [] },
    zone: { weekdays: 127, from: 0, to: 1440 },
    serviceHours: [],
  };
  const says = (more: Partial<Calendar>) =>
    calendarRefusal({ ...calendar, ...more })(thursday).map((r) =>
      [reasonWords(r, names), remedyWords(r, names)].join(" → "),
    );

  it("has nothing against an ordinary day", () => {
    expect(says({})).toEqual([]);
  });

  it("says what is closed, not served or at the wrong hours, and what would open it", () => {
    expect(
      says({
        opening: { hours: [], special: [{ name: "Harbour fair", first: date, last: date, yearly: false, spans: [] }] },
      }),
    ).toEqual(["we are closed that day, Harbour fair → opening the business on that day"]);
    expect(says({ opening: { hours: [{ weekday: 3, opens: 540, closes: 600 }], special: [] } })).toEqual([
      "we are not open then → longer opening hours",
    ]);
    expect(says({ opening: { hours: [{ weekday: 3, opens: 540, closes: 660 }], special: [] } })).toEqual([]);
    expect(says({ zone: { weekdays: 1, from: 0, to: 1440 } })).toEqual([
      "this zone is not served on Thursdays → serving the zone on Thursdays",
    ]);
    expect(says({ zone: { weekdays: 127, from: 570, to: 1440 } })).toEqual([
      "this zone is not served at that time → longer hours of the zone",
    ]);
    expect(says({ serviceHours: [[{ weekday: 3, opens: 600, closes: 900 }]] })).toEqual([
      "this service is not done at that time → longer hours of the service",
    ]);
    expect(says({ zone: null, nearest: { name: "Northfield", km: 2.1 } })).toEqual([
      "the address is outside our zones, 2.1 km from Northfield → adding the address to a zone, such as Northfield",
    ]);
  });
});

describe("the most telling reason", () => {
  const short = (technician: string, shortBy: number | null): Reason => ({
    technician,
    code: "out-of-reach",
    shortBy,
    late: "window",
    position: 1,
    date,
  });
  it("is a rule before any person, then whoever came nearest, and a missing skill last", () => {
    const skill: Reason = { technician: "t1", code: "no-skill", skill: "gas" };
    expect(mostTelling([skill, short("t2", 40), short("t3", 12), short("t4", null)])).toEqual(short("t3", 12));
    expect(mostTelling([short("t3", 12), { code: "closed", date }, skill])).toEqual({ code: "closed", date });
    expect([mostTelling([skill]), mostTelling([])]).toEqual([skill, null]);
  });
});

describe("patterns", () => {
  const zone = "Europe/Lisbon";
  const cut = (pattern: Parameters<typeof windowsOn>[0], on = date, soonest?: Parameters<typeof windowsOn>[3]) =>
    windowsOn(pattern, [on], zone, soonest).map((w) => `${clockIn(w.from, zone)}–${clockIn(w.to, zone)}`);

  it("make overlapping windows that step", () => {
    expect(cut([{ kind: "stepping", weekdays: 127, from: 540, to: 720, length: 120, step: 30 }])).toEqual([
      "09:00–11:00",
      "09:30–11:30",
      "10:00–12:00",
    ]);
  });

  it("make exact times on the hour, half or quarter", () => {
    expect(cut([{ kind: "exact", weekdays: 127, from: 540, to: 660, step: 60 }])).toEqual([
      "09:00–09:00",
      "10:00–10:00",
      "11:00–11:00",
    ]);
    expect(cut([{ kind: "exact", weekdays: 127, from: 540, to: 555, step: 15 }])).toHaveLength(2);
  });

  it("make exact times right after the visit before", () => {
    expect(
      cut([{ kind: "continuous", weekdays: 127, from: 540, to: 720 }], date, (span) => [span.from + 5, span.from + 95]),
    ).toEqual(["09:05–09:05", "10:35–10:35"]);
  });

  it("differ by weekday, and name each window once", () => {
    const parts = [
      { kind: "window" as const, weekdays: 8, from: 540, to: 660 },
      { kind: "window" as const, weekdays: 127, from: 540, to: 660 },
      { kind: "window" as const, weekdays: 1, from: 780, to: 900 },
    ];
    expect(cut(parts)).toEqual(["09:00–11:00"]);
  });

  it("leave out what a change of clocks swallows, and keep wall-clock times on both changes", () => {
    const night = [
      { kind: "window" as const, weekdays: 127, from: 60, to: 120 },
      { kind: "window" as const, weekdays: 127, from: 540, to: 660 },
    ];
    expect(cut(night, "2027-03-28")).toEqual(["09:00–11:00"]);
    expect(cut(night, "2027-10-31")).toEqual(["01:00–02:00", "09:00–11:00"]);
    const [autumn] = windowsOn([night[0]!], ["2027-10-31"], zone);
    expect(autumn!.to - autumn!.from).toBe(120);
  });

  it("belong to the business's time zone, wherever the server stands", () => {
    for (const elsewhere of ["Pacific/Auckland", "America/St_Johns", "UTC"]) {
      const [window] = windowsOn([{ kind: "window", weekdays: 127, from: 540, to: 660 }], [date], elsewhere);
      expect(localOf(window!.from, elsewhere)).toEqual({ date, minute: 540 });
    }
  });
});

describe("forecasts of repeats", () => {
  const stops = [
    { forecast: true, n: 1 },
    { forecast: false, n: 2 },
    { forecast: true, n: 3 },
    { forecast: true, n: 4 },
  ];
  it("keep all of their room, that of every other one, or none, and promises always keep theirs", () => {
    const kept = (room: "full" | "half" | "none") => keepingRoom(stops, room).map((s) => s.n);
    expect([kept("full"), kept("half"), kept("none")]).toEqual([[1, 2, 3, 4], [1, 2, 4], [2]]);
  });
});

describe("why not?", () => {
  it("opens every window and every technician, whatever the rules say, with what would change it", () => {
    const team = [
      technician("t1", { skills: [{ skill: "gas", until: "2027-03-01" }] }),
      technician("t2"),
      technician("t3", { stops: [visitAt(5, 540, 540), visitAt(5, 660, 660, 200)] }),
    ];
    const [early] = explainWindows(question({ now: 480, technicians: team }));
    expect(early!.answer.offered).toBe(false);
    expect(early!.rules).toEqual([{ code: "too-soon", minutes: 60 }]);
    expect(remedyWords(early!.rules[0]!, names)).toBe("a notice that is 1 h shorter");
    expect(early!.technicians.map((t) => [t.id, t.fits?.arrive ?? remedyWords(t.reason!, names)])).toEqual([
      ["t1", "renewing “gas”"],
      ["t2", [540, 660]],
      ["t3", "what follows 40 min later, or a visit 40 min shorter"],
    ]);
  });

  it("gives the same answers as are sold", () => {
    const q = question({ technicians: [technician("t1", { off: [addDays(date, 1)] }), technician("t2")] });
    expect(explainWindows(q).map((w) => w.answer)).toEqual(answerWindows(q));
  });
});
