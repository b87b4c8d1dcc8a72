import fc from "fast-check";
import { prepareDay } from "../routes/insertion";
import type { Stop } from "../routes/timing";
import { soonestArrivals } from "./continuous";
import { answerWindows } from "./offers";
import { type CandidateTechnician, type WindowsQuestion } from "./question";

const date = "2027-03-11";
const span = { date, from: 480, to: 1020 };
const byDistance = (from: number, to: number) => Math.abs(from - to) * 7;
const visitAt = (place: number, at: number): Stop => ({
  place,
  earliest: at,
  latest: at + 90,
  before: 0,
  minutes: 40,
  after: 0,
});
const technician = (id: string, stops: Stop[], more: Partial<CandidateTechnician> = {}): CandidateTechnician => ({
  id,
  skills: [{ skill: "gas" }],
  ...more,
  day: () => {
    const day = prepareDay(
      {
        start: 0,
        end: 0,
        spans: [
          [480, 720],
          [780, 1020],
        ],
        stops,
      },
      byDistance,
    );
    return day ? { works: true, day, load: 0 } : { works: false, code: "day-not-feasible" };
  },
});
const question = (technicians: CandidateTechnician[]): WindowsQuestion => ({
  now: 0,
  today: date,
  rules: { notice: 0, furthestDays: 30, capacity: { mode: "route" }, limits: [] },
  visit: { place: 3, minutes: 50, before: 0, after: 10, skills: [{ skill: "gas" }], crew: 1 },
  windows: [],
  refusal: () => [],
  technicians,
  travel: byDistance,
});
const soonest = (...technicians: CandidateTechnician[]): readonly number[] =>
  soonestArrivals(question(technicians))(span);

describe("exact times right after the visit before", () => {
  it("are the drive from the start of the day, and the drive from each visit, in steps of five minutes", () => {
    expect(soonest(technician("t1", []))).toEqual([505]);
    expect(soonest(technician("t1", [visitAt(5, 560)]))).toEqual([505, 615]);
  });

  it("of several technicians stand once each, in time order", () => {
    expect(soonest(technician("t1", []), technician("t2", [visitAt(5, 560)]), technician("t3", []))).toEqual([
      505, 615,
    ]);
  });

  it("are nobody's who cannot do it, does not go there, or whose day cannot be kept", () => {
    expect(
      soonest(
        technician("t1", [], { skills: [] }),
        technician("t2", [], { bar: "other-zone" }),
        technician("t3", [visitAt(5, 560), visitAt(90, 560)]),
      ),
    ).toEqual([]);
  });

  it("can all be promised to the minute, and lie within the span", () => {
    const days = fc
      .array(fc.record({ place: fc.nat(10), at: fc.integer({ min: 480, max: 900 }) }), { maxLength: 4 })
      .map((list) => list.sort((a, b) => a.at - b.at).map(({ place, at }) => visitAt(place, at)));
    fc.assert(
      fc.property(fc.array(days, { minLength: 1, maxLength: 3 }), (team) => {
        const asked = question(team.map((stops, i) => technician(`t${i}`, stops)));
        const times = soonestArrivals(asked)(span);
        for (const answer of answerWindows({ ...asked, windows: times.map((at) => ({ date, from: at, to: at })) }))
          expect(answer.offered).toBe(true);
        for (const at of times) expect([at % 5, at >= span.from, at <= span.to]).toEqual([0, true, true]);
      }),
    );
  });
});
