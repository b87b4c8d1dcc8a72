import fc from "fast-check";
import { plainArrivals, plainDay } from "../../../bench/plain-checker";
import { days, stops, travelTables } from "../../../bench/random-days";
import { bestInsertion, insertions, nearestMiss, prepareDay, roomsFor } from "./insertion";
import { asLateAsItIs } from "./lateness";
import { type Day, timeDay, work } from "./timing";

const byDistance = (from: number, to: number) => Math.abs(from - to) * 10;
const day: Day = {
  start: 0,
  end: 0,
  spans: [[540, 1020]],
  stops: [
    { place: 2, earliest: 600, latest: 660, before: 0, minutes: 60, after: 0 },
    { place: 4, earliest: 840, latest: 900, before: 0, minutes: 60, after: 0 },
  ],
};
const asked = { place: 3, earliest: 660, latest: 780, before: 0, minutes: 30, after: 0 };

describe("a new stop in a day", () => {
  it("goes where it adds the least driving", () => {
    const best = bestInsertion(prepareDay(day, byDistance)!, asked, byDistance);
    expect(best).toEqual({ position: 1, extraDriving: 0, arrive: 670, arriveLatest: 780 });
  });

  it("is refused with the minutes that are missing where it fits nowhere", () => {
    const long = { ...asked, minutes: 240, latest: 700 };
    const prepared = prepareDay(day, byDistance)!;
    expect(insertions(prepared, long, byDistance)).toEqual([]);
    expect(nearestMiss(roomsFor(prepared, 3, 240, byDistance), prepared, { from: 660, to: 700 }, 240)).toEqual({
      position: 1,
      shortBy: 20,
      late: "next",
    });
  });

  it("cannot be put into a day that cannot be kept as it is", () => {
    expect(prepareDay({ ...day, stops: [...day.stops].reverse() }, byDistance)).toBeNull();
  });

  it("fits exactly where a plain simulation of the whole day says so, with the same first and last arrival", () => {
    fc.assert(
      fc.property(days, stops, travelTables, (some, stop, travel) => {
        const prepared = prepareDay(some, travel);
        expect(prepared !== null).toBe(plainDay(some, travel) !== null || some.stops.length === 0);
        if (!prepared) return;
        for (let position = 0; position <= some.stops.length; position++) {
          const insertion = insertions(prepared, stop, travel).find((i) => i.position === position);
          const arrivals = plainArrivals(some, position, stop, travel);
          expect(insertion ? [insertion.arrive, insertion.arriveLatest] : null).toEqual(
            arrivals.length ? [arrivals[0], arrivals.at(-1)] : null,
          );
        }
      }),
      { numRuns: 1500 },
    );
  });

  it("keeps every other promise when it is put in", () => {
    fc.assert(
      fc.property(days, stops, travelTables, (some, stop, travel) => {
        const prepared = prepareDay(some, travel);
        for (const { position, extraDriving } of prepared ? insertions(prepared, stop, travel) : []) {
          const after = timeDay(
            { ...some, stops: [...some.stops.slice(0, position), stop, ...some.stops.slice(position)] },
            travel,
          );
          const before = timeDay(some, travel);
          expect(after.ok && before.ok && after.driving - before.driving).toBe(extraDriving);
        }
      }),
    );
  });

  it("misses a window by exactly the minutes that it would have to be longer", () => {
    fc.assert(
      fc.property(days, stops, travelTables, (some, stop, travel) => {
        const prepared = prepareDay(some, travel);
        if (!prepared || insertions(prepared, stop, travel).length) return;
        const { shortBy, late } = nearestMiss(
          roomsFor(prepared, stop.place, work(stop), travel),
          prepared,
          { from: stop.earliest, to: stop.latest },
          work(stop),
        );
        const longer = (minutes: number) =>
          some.stops.some(
            (_, k) => plainArrivals(some, k, { ...stop, latest: stop.latest + minutes }, travel).length,
          ) || plainArrivals(some, some.stops.length, { ...stop, latest: stop.latest + minutes }, travel).length > 0;
        if (late === "window") {
          expect(longer(shortBy)).toBe(true);
          expect(longer(shortBy - 1)).toBe(false);
        } else if (shortBy <= 300) expect(longer(shortBy - 1)).toBe(false);
      }),
      { numRuns: 600 },
    );
  });
});

describe("a day that cannot be kept any more", () => {
  it("goes on as late as it is: what is late keeps nobody from the rest", () => {
    const late: Day = {
      ...day,
      stops: [
        { ...day.stops[0]!, latest: 610, earliest: 540, minutes: 200 },
        { ...day.stops[1]!, earliest: 700, latest: 750 },
      ],
    };
    expect(prepareDay({ ...late, spans: [[600, 1020]] }, byDistance)).toBeNull();
    const going = asLateAsItIs({ ...late, spans: [[600, 1020]] }, byDistance);
    expect(going.stops.map((s) => s.latest)).toEqual([620, 840]);
    expect(timeDay(going, byDistance)).toMatchObject({ ok: true });
  });

  it("is always feasible as late as it is, and untouched where it can be kept", () => {
    fc.assert(
      fc.property(days, travelTables, (some, travel) => {
        const going = asLateAsItIs(some, travel);
        expect(prepareDay(going, travel)).not.toBeNull();
        if (prepareDay(some, travel)) expect(going).toBe(some);
      }),
    );
  });
});
