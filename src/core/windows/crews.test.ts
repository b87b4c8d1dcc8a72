import fc from "fast-check";
import { commonStarts } from "../routes/crew";
import { insertionsInto, prepareDay, roomsFor } from "../routes/insertion";
import type { Stop } from "../routes/timing";
import { bestCrew, type CrewCandidate } from "./crews";

const byDistance = (from: number, to: number) => Math.abs(from - to) * 5;
const length = 60;

/** Somebody with a morning and an afternoon on each day, and a visit of half an hour now and then. */
function candidate(
  id: string,
  visitsOfDays: readonly (readonly { place: number; from: number }[])[],
): CrewCandidate | null {
  const days = visitsOfDays.map((visits) => {
    const stops = visits.map(({ place, from }): Stop => ({
      place,
      earliest: from,
      latest: from + 60,
      before: 0,
      minutes: 30,
      after: 0,
    }));
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
    return (
      day && {
        id,
        day,
        insertions: insertionsInto(roomsFor(day, 3, length, byDistance), day, { from: 0, to: 1440 }, length),
      }
    );
  });
  return days.every((day) => day !== null && day.insertions.length > 0)
    ? { id, load: 0, days: days as CrewCandidate["days"] }
    : null;
}
const days = (count: number) =>
  fc.array(
    fc
      .array(fc.record({ place: fc.nat(8), from: fc.constantFrom(500, 620, 800, 900) }), { maxLength: 2 })
      .map((list) => list.sort((a, b) => a.from - b.from)),
    { minLength: count, maxLength: count },
  );

/** What the best crew drives, found by trying every crew of that size at every common start of each day. */
function leastByTryingAll(candidates: readonly CrewCandidate[], size: number): number {
  const crews = (from: number, missing: number): CrewCandidate[][] =>
    missing === 0
      ? [[]]
      : candidates.flatMap((c, i) => (i < from ? [] : crews(i + 1, missing - 1).map((rest) => [c, ...rest])));
  const costs = crews(0, size).map((crew) =>
    crew[0]!.days.reduce((total, _, d) => {
      const starts = commonStarts(
        crew.map((c) => c.days[d]!),
        length,
        size,
      );
      return (
        total +
        Math.min(...starts.map(({ members }) => [...members.values()].reduce((sum, i) => sum + i.extraDriving, 0)))
      );
    }, 0),
  );
  return Math.min(Infinity, ...costs);
}
const drivenBy = (crew: ReturnType<typeof bestCrew>): number =>
  crew ? [...crew.members.values()].flat().reduce((sum, i) => sum + i.extraDriving, 0) : Infinity;

describe("the best crew over several days", () => {
  it("drives as little as the best of all crews tried one by one", () => {
    fc.assert(
      fc.property(fc.array(days(3), { minLength: 2, maxLength: 5 }), fc.integer({ min: 2, max: 3 }), (team, size) => {
        const candidates = team.flatMap((visits, i) => candidate(`t${i}`, visits) ?? []);
        expect(drivenBy(bestCrew(candidates, length, size))).toBe(
          candidates.length < size ? Infinity : leastByTryingAll(candidates, size),
        );
      }),
      { numRuns: 150 },
    );
  });

  it("takes the wanted technician along wherever that works at all", () => {
    fc.assert(
      fc.property(fc.array(days(2), { minLength: 2, maxLength: 4 }), (team) => {
        const candidates = team.flatMap((visits, i) => candidate(`t${i}`, visits) ?? []);
        const wanted = candidates.at(-1)?.id ?? "nobody";
        const withWanted = candidates.some(
          (c) => c.id !== wanted && bestCrew([c, ...candidates.filter((o) => o.id === wanted)], length, 2),
        );
        expect(bestCrew(candidates, length, 2, wanted)?.members.has(wanted) ?? false).toBe(withWanted);
      }),
    );
  });

  it("is found for ten days among thirty people while looking at each day once", () => {
    let asked = 0;
    const busy = Array.from({ length: 10 }, (_, d) => [
      { place: (d % 7) + 1, from: 500 },
      { place: (d % 5) + 1, from: 800 },
    ]);
    const candidates = Array.from({ length: 30 }, (_, i) =>
      candidate(
        `t${i}`,
        busy.map((visits) => visits.map((v) => ({ ...v, place: (v.place + i) % 9 }))),
      )!,
    );
    const counted = candidates.map((c) => ({
      ...c,
      days: c.days.map((member) => ({
        ...member,
        get insertions() {
          asked++;
          return member.insertions;
        },
      })),
    }));
    const crew = bestCrew(counted, length, 2);
    expect(crew?.at).toHaveLength(10);
    // Combinations over the days would ask for each start of each day again and again.
    expect(asked).toBeLessThan(30 * 10 * 400);
  });
});
