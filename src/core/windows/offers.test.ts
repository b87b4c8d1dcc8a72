import { prepareDay } from "../routes/insertion";
import type { Stop } from "../routes/timing";
import { answerWindows, type CandidateTechnician, type WindowsQuestion } from "./offers";
import { reasonWords } from "./words";

const date = "2027-03-11";
const byDistance = (from: number, to: number) => Math.abs(from - to) * 10;
const nine = { date, from: 540, to: 660 };
const eleven = { date, from: 660, to: 780 };

const technician = (id: string, more: { skills?: CandidateTechnician["skills"]; stops?: Stop[]; spans?: [number, number][]; goesThere?: boolean } = {}): CandidateTechnician => ({
  id,
  skills: more.skills ?? [{ skill: "gas" }],
  goesThere: more.goesThere ?? true,
  day: () => {
    const day = prepareDay({ start: 0, end: 0, spans: more.spans ?? [[480, 1020]], stops: more.stops ?? [] }, byDistance);
    return day ? { works: true, day, load: day.stops.length } : { works: false, code: "day-not-feasible" };
  },
});
const visitAt = (place: number, from: number, to: number, minutes = 60): Stop => ({ place, earliest: from, latest: to, before: 0, minutes, after: 0 });

const question = (more: Partial<WindowsQuestion> = {}): WindowsQuestion => ({
  now: 0, today: "2027-03-10", rules: { notice: 120, furthestDays: 30 },
  visit: { place: 3, minutes: 60, before: 0, after: 0, skills: [{ skill: "gas" }], crew: 1 },
  windows: [nine, eleven], refusal: () => null, technicians: [technician("t1")], travel: byDistance, ...more,
});
const names = { technician: (id: string) => ({ t1: "Petra", t2: "Bram" })[id] ?? id, skill: (id: string) => id };
const words = (q: WindowsQuestion) => answerWindows(q).map((a) => (a.offered ? `offered by ${a.technicians.map((t) => names.technician(t.id)).join(", ")}` : a.reasons.map((r) => reasonWords(r, names)).join("; ")));

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

  it("names the skill that nobody has, and the day on which one expired", () => {
    expect(words(question({ technicians: [technician("t1", { skills: [] })] }))[0]).toBe("Petra does not have the skill “gas”");
    expect(words(question({ technicians: [technician("t1", { skills: [{ skill: "gas", until: "2027-03-10" }] })] }))[0]).toBe("Petra had “gas” only until 10 March 2027");
    expect(words(question({ technicians: [technician("t1", { skills: [{ skill: "gas", until: date }] })] }))[0]).toBe("offered by Petra");
  });

  it("asks for the level of a skill", () => {
    const visit = { ...question().visit, skills: [{ skill: "gas", level: 2 }] };
    expect(words(question({ visit }))[0]).toBe("Petra does not have the skill “gas” at level 2");
    expect(words(question({ visit, technicians: [technician("t1", { skills: [{ skill: "gas", level: 3 }] })] }))[0]).toBe("offered by Petra");
  });

  it("says how many minutes are missing between what is promised already", () => {
    const busy = technician("t1", { stops: [visitAt(5, 540, 540), visitAt(5, 660, 660, 200)] });
    expect(words(question({ technicians: [busy] }))).toEqual(["Petra would be 40 min short", "Petra would be 1 h 20 min short"]);
  });

  it("does not sell a day that already cannot be kept", () => {
    expect(words(question({ technicians: [technician("t1", { stops: [visitAt(9, 480, 490)] })] }))[0]).toBe("Petra already cannot keep that day’s promises");
  });

  it("puts the least extra driving first, then the least loaded, then the id", () => {
    const near = technician("t2", { stops: [visitAt(3, 600, 700)] });
    expect(words(question({ technicians: [technician("t1"), near] }))[0]).toBe("offered by Bram, Petra");
    expect(words(question({ technicians: [technician("t2"), technician("t1")] }))[0]).toBe("offered by Petra, Bram");
  });

  it("keeps out those who do not go to the zone", () => {
    expect(words(question({ technicians: [technician("t1", { goesThere: false })] }))[0]).toBe("Petra does not go to this zone");
  });

  it("gives the earliest and the latest arrival that keep everything else", () => {
    const [answer] = answerWindows(question({ technicians: [technician("t1", { stops: [visitAt(5, 700, 720)] })] }));
    expect(answer).toMatchObject({ offered: true, technicians: [{ extraDriving: 0, arrive: [540, 640] }] });
  });
});

describe("a crew of two", () => {
  const visit = { ...question().visit, crew: 2 };

  it("is offered where both can begin together, with that moment", () => {
    const late = technician("t2", { stops: [visitAt(3, 480, 540, 30)] });
    const [answer] = answerWindows(question({ visit, technicians: [technician("t1"), late] }));
    expect(answer).toMatchObject({ offered: true, meetAt: 540, technicians: [{ id: "t2" }, { id: "t1" }] });
  });

  it("is refused where one is missing, and says who could", () => {
    expect(words(question({ visit, windows: [nine] }))[0]).toBe("the job needs 2 people and 1 of them is free");
  });

  it("is refused where both are free, but never at the same time", () => {
    const early = technician("t1", { spans: [[480, 660]] });
    const late = technician("t2", { spans: [[600, 1020]] });
    expect(words(question({ visit, windows: [nine], technicians: [early, late] }))[0]).toBe("Petra and Bram are free, but never at the same time");
  });
});
