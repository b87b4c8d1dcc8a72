import fc from "fast-check";
import { plainDay } from "../../../bench/plain-checker";
import { days, travelTables } from "../../../bench/random-days";
import { prepareDay } from "../routes/insertion";
import type { Day, Stop, Travel } from "../routes/timing";
import { fillUp } from "./filling";
import { takenOf } from "./limits";
import type { PromiseWindow } from "./promise-window";
import type { WindowsQuestion } from "./question";

const date = "2027-03-11";
const nine: PromiseWindow = { date, from: 540, to: 660 };
const eleven: PromiseWindow = { date, from: 660, to: 780 };
const byDistance: Travel = (from, to) => Math.abs(from - to) * 5;

const technician = (id: string, day: Day, travel: Travel = byDistance): WindowsQuestion["technicians"][number] => ({
  id,
  skills: [],
  day: () => {
    const prepared = prepareDay(day, travel);
    return prepared ? { works: true, day: prepared, load: 0 } : { works: false, code: "day-not-feasible" };
  },
});
const dayOf = (from: number, to: number): Day => ({ start: 0, end: 0, spans: [[from, to]], stops: [] });
const question = (more: Partial<WindowsQuestion> = {}, minutes = 60): WindowsQuestion => ({
  now: 0,
  today: "2027-03-10",
  rules: { notice: 0, furthestDays: 30, capacity: { mode: "route" }, limits: [] },
  visit: { place: 1, minutes, before: 0, after: 0, skills: [], crew: 1 },
  windows: [nine, eleven],
  refusal: () => [],
  technicians: [technician("t1", dayOf(540, 780))],
  travel: byDistance,
  ...more,
});
const times = (questions: WindowsQuestion[]) => fillUp(questions).map((window) => window && window.from);

describe("room for visits that are asked for one after the other", () => {
  it("is given soonest first, until the day is full", () => {
    expect(times(Array.from({ length: 5 }, () => question()))).toEqual([540, 540, 660, null, null]);
  });

  it("is that of everybody who could come", () => {
    const technicians = [technician("t1", dayOf(540, 660)), technician("t2", dayOf(540, 660))];
    expect(times(Array.from({ length: 3 }, () => question({ technicians }, 90)))).toEqual([540, 540, null]);
  });

  it("ends where a limit does", () => {
    const rules = {
      ...question().rules,
      limits: [{ of: "business" as const, per: "day" as const, most: 2, taken: takenOf([]) }],
    };
    expect(times(Array.from({ length: 3 }, () => question({ rules }, 15)))).toEqual([540, 540, null]);
  });

  it("counts seats of one time, not visits", () => {
    const seats = { asked: 2, of: 5, at: () => null };
    const technicians = [technician("t1", dayOf(540, 665))];
    expect(times(Array.from({ length: 3 }, () => question({ seats, technicians, windows: [nine] }, 90)))).toEqual([
      540,
      540,
      null,
    ]);
  });

  it("is kept for the whole crew", () => {
    const technicians = [technician("t1", dayOf(540, 780)), technician("t2", dayOf(540, 700))];
    const crewOfTwo = question({ technicians, visit: { ...question().visit, minutes: 120, crew: 2 } });
    expect(times([crewOfTwo, crewOfTwo])).toEqual([540, null]);
  });

  it("holds calls too, which have no place", () => {
    const call = question({ visit: { ...question().visit, place: null, minutes: 100 }, windows: [nine] });
    expect(times([call, call, call])).toEqual([540, 540, null]);
  });
});

it("gives only what one day can hold together, whatever stands in it already", () => {
  const visit = fc.record({ place: fc.integer({ min: 0, max: 6 }), minutes: fc.integer({ min: 1, max: 60 }) });
  const windows = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 120 })), { minLength: 1, maxLength: 3 })
    .map((list) => list.map(([from, length]) => ({ date, from, to: from + length })));
  fc.assert(
    fc.property(
      days,
      fc.array(visit, { minLength: 1, maxLength: 3 }),
      windows,
      travelTables,
      (day, visits, asked, travel) => {
        const given = fillUp(
          visits.map((one) =>
            question({
              now: -1e6,
              today: date,
              windows: asked,
              technicians: [technician("t1", day, travel)],
              travel,
              visit: { ...one, before: 0, after: 0, skills: [], crew: 1 },
            }),
          ),
        );
        const stops = given.flatMap((window, i) =>
          window ? [{ ...visits[i]!, before: 0, after: 0, earliest: window.from, latest: window.to }] : [],
        );
        expect(
          stops.length === 0 || orders(day.stops, stops).some((order) => plainDay({ ...day, stops: order }, travel)),
        ).toBe(true);
      },
    ),
    { numRuns: 300 },
  );
});

/** Every order in which the new stops can stand among those that are there. */
function orders(there: readonly Stop[], more: readonly Stop[]): Stop[][] {
  const [first, ...rest] = more;
  if (!first) return [[...there]];
  return Array.from({ length: there.length + 1 }, (_, at) =>
    orders([...there.slice(0, at), first, ...there.slice(at)], rest),
  ).flat();
}
