import fc from "fast-check";
import { plainDay } from "../../../bench/plain-checker";
import { days, stops, travelTables } from "../../../bench/random-days";
import { subtractSpans } from "../time/spans";
import { withCalls, withoutCall } from "./calls";
import { bestInsertion, insertInto, nearestMiss, type PreparedDay, prepareDay, roomsFor } from "./insertion";
import { type Day, timeDay, type Travel } from "./timing";

const byDistance = (from: number, to: number) => Math.abs(from - to) * 10;
const day: Day = {
  start: 0,
  end: 0,
  spans: [[540, 1020]],
  stops: [{ place: 4, earliest: 580, latest: 640, before: 0, minutes: 60, after: 0 }],
};
const call = { place: null, earliest: 540, latest: 1020, before: 0, minutes: 30, after: 0 };
const callAt = (some: Day, at: number, minutes = 30): Day => ({
  ...some,
  spans: withCalls(some.spans, [[at, at + minutes]]),
});

/** Whether the day can be kept with a call at that minute, walked through minute by minute. */
const plainly = (some: Day, at: number, length: number, travel: Travel): boolean =>
  some.spans.some(([open, close]) => open <= at && at + length <= close) &&
  plainDay({ ...some, spans: subtractSpans(some.spans, [[at, at + length]]) }, travel) !== null;

const offered = (prepared: PreparedDay, at: number, length: number, travel: Travel): boolean =>
  roomsFor(prepared, null, length, travel).rooms.some(
    (room) => insertInto(room, prepared, { from: at, to: at }, length) !== null,
  );

describe("a call in a day", () => {
  it("is made on the way, which goes on after it, and nobody drives for it", () => {
    const prepared = prepareDay(day, byDistance)!;
    expect(bestInsertion(prepared, call, byDistance)).toEqual({
      position: 0,
      extraDriving: 0,
      arrive: 540,
      arriveLatest: 610,
    });
    expect(timeDay(callAt(day, 560), byDistance)).toMatchObject({
      stops: [{ driveFrom: 540, driving: 40, arrive: 610, leave: 670 }],
    });
  });

  it("can be made exactly when a plain walk through the day says so", () => {
    fc.assert(
      fc.property(days, fc.integer({ min: 1, max: 90 }), travelTables, (some, length, travel) => {
        const prepared = some.stops.length ? prepareDay(some, travel) : null;
        for (let at = 0; prepared && at < 600; at++)
          expect([at, offered(prepared, at, length, travel)]).toEqual([at, plainly(some, at, length, travel)]);
      }),
      { numRuns: 300 },
    );
  });

  it("leaves room for what comes later only where all can be kept: stops before it, after it and around it", () => {
    fc.assert(
      fc.property(days, stops, stops, travelTables, (some, first, later, travel) => {
        const before = prepareDay(some, travel);
        const at = before && bestInsertion(before, { ...first, place: null }, travel)?.arrive;
        if (at == null) return;
        const withCall = callAt(some, at, first.before + first.minutes + first.after);
        const prepared = prepareDay(withCall, travel);
        expect(prepared).not.toBeNull();
        const best = bestInsertion(prepared!, later, travel);
        if (!best) return;
        const both = {
          ...withCall,
          stops: [...some.stops.slice(0, best.position), later, ...some.stops.slice(best.position)],
        };
        expect(timeDay(both, travel).ok).toBe(true);
      }),
      { numRuns: 1000 },
    );
  });

  it("misses by no more minutes than would let it in", () => {
    const full = { ...day, stops: [{ ...day.stops[0]!, earliest: 580, latest: 600 }] };
    const prepared = prepareDay(full, byDistance)!;
    // Twenty minutes may pass on the way; thirty are asked for.
    expect(nearestMiss(roomsFor(prepared, null, 30, byDistance), prepared, { from: 540, to: 560 }, 30)).toEqual({
      position: 0,
      shortBy: 10,
      late: "next",
    });
  });

  it("that ends the day keeps the way home before it", () => {
    expect(timeDay(callAt(day, 990), byDistance)).toMatchObject({ ok: true, home: 680 });
    expect(withCalls([[540, 1020]], [[990, 1020]])).toEqual([
      [540, 990],
      [1020, 1020],
    ]);
  });

  it("gives its time back when it is taken out", () => {
    const hours = [[540, 720] as const, [780, 1020] as const];
    for (const at of [540, 600, 690, 990])
      expect(withoutCall(withCalls(hours, [[at, at + 30]]), [at, at + 30], hours)).toEqual(hours);
  });
});
