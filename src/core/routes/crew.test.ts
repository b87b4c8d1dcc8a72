import fc from "fast-check";
import { commonStarts, type Member } from "./crew";
import { insertionsInto, prepareDay, roomsFor } from "./insertion";
import type { Stop } from "./timing";

const byDistance = (from: number, to: number) => Math.abs(from - to) * 5;
const visitAt = (place: number, from: number, to: number): Stop => ({
  place,
  earliest: from,
  latest: to,
  before: 0,
  minutes: 30,
  after: 0,
});
const all = { from: 0, to: 1440 };

/** Somebody with a day, and all the ways to put work of a length at place 3 into it; null where the day itself cannot be kept. */
function member(
  id: string,
  stops: Stop[],
  length: number,
  spans: [number, number][] = [
    [480, 720],
    [780, 1020],
  ],
): Member | null {
  const day = prepareDay({ start: 0, end: 0, spans, stops }, byDistance);
  return day && { id, day, insertions: insertionsInto(roomsFor(day, 3, length, byDistance), day, all, length) };
}
const everybody = (...members: (Member | null)[]): Member[] => members.filter((m) => m !== null);

describe("the moments at which a crew can begin together", () => {
  it("are those at which enough of them are there, each at their best position", () => {
    const members = everybody(member("t1", [visitAt(3, 540, 540)], 60), member("t2", [], 60));
    const starts = commonStarts(members, 60, 2);
    expect(starts.length).toBeGreaterThan(0);
    for (const { at, members: there } of starts)
      expect([
        [...there.keys()].sort(),
        [...there.values()].every((i) => i.arrive === at && i.arriveLatest === at),
      ]).toEqual([["t1", "t2"], true]);
    expect(starts[0]!.at).toBe(570);
  });

  it("are none where people work at different times", () => {
    expect(
      commonStarts(everybody(member("t1", [], 60, [[480, 600]]), member("t2", [], 60, [[600, 720]])), 60, 2),
    ).toEqual([]);
  });

  it("do not run into anybody's break", () => {
    const starts = commonStarts(everybody(member("t1", [], 90), member("t2", [], 90, [[480, 1020]])), 90, 2);
    expect(starts.map((s) => s.at).every((at) => at + 90 <= 720 || at >= 780)).toBe(true);
  });

  it("are found exactly where a look at every minute finds one", () => {
    const days = fc
      .array(
        fc.record({
          place: fc.nat(8),
          from: fc.integer({ min: 480, max: 900 }),
          length: fc.integer({ min: 0, max: 180 }),
        }),
        { maxLength: 3 },
      )
      .map((list) =>
        list.sort((a, b) => a.from - b.from).map(({ place, from, length }) => visitAt(place, from, from + length)),
      );
    fc.assert(
      fc.property(
        fc.array(days, { minLength: 2, maxLength: 3 }),
        fc.integer({ min: 20, max: 150 }),
        fc.integer({ min: 1, max: 3 }),
        (team, length, crew) => {
          const members = everybody(...team.map((stops, i) => member(`t${i}`, stops, length)));
          const fitsAt = ({ day, insertions }: Member, at: number) =>
            day.spans.some(([open, close]) => open <= at && at + length <= close) &&
            insertions.some((i) => i.arrive <= at && at <= i.arriveLatest);
          const minutes = Array.from({ length: 1440 }, (_, at) => at).filter(
            (at) => members.filter((m) => fitsAt(m, at)).length >= crew,
          );
          const starts = commonStarts(members, length, crew);
          expect(starts.length > 0).toBe(minutes.length > 0);
          for (const { at, members: there } of starts)
            expect([minutes.includes(at), there.size]).toEqual([true, members.filter((m) => fitsAt(m, at)).length]);
          // The soonest one is among them.
          if (minutes.length) expect(starts[0]!.at).toBe(minutes[0]);
        },
      ),
      { numRuns: 200 },
    );
  });
});
