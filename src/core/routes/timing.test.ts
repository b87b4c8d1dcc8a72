import fc from "fast-check";
import { plainDay } from "../../../bench/plain-checker";
import { days, travelTables } from "../../../bench/random-days";
import { type Day, drive, driveBack, fit, timeDay, work } from "./timing";

const tenMinutes = (from: number, to: number) => (from === to ? 0 : 10);
const nineToFive: Day = {
  start: 0,
  end: 0,
  spans: [
    [540, 720],
    [780, 1020],
  ],
  stops: [],
};
const stop = (more: object) => ({ place: 1, earliest: 540, latest: 1020, before: 0, minutes: 60, after: 0, ...more });

describe("a technician's day", () => {
  it("begins no earlier than the first span, and driving counts", () => {
    const timing = timeDay({ ...nineToFive, stops: [stop({})] }, tenMinutes);
    expect(timing).toMatchObject({
      ok: true,
      stops: [{ driveFrom: 540, arrive: 550, leave: 610 }],
      driving: 20,
      home: 620,
    });
  });

  it("waits for a window to open, and leaves for it as late as it can", () => {
    const timing = timeDay({ ...nineToFive, stops: [stop({ earliest: 600 })] }, tenMinutes);
    expect(timing).toMatchObject({ stops: [{ driveFrom: 590, arrive: 600 }] });
  });

  it("pushes work that would run into the break behind it, and lets driving be paused by it", () => {
    const timing = timeDay({ ...nineToFive, stops: [stop({ earliest: 690 })] }, tenMinutes);
    expect(timing).toMatchObject({ stops: [{ arrive: 780, leave: 840, driving: 10 }] });
    expect(drive(nineToFive.spans, 715, 10)).toBe(785);
  });

  it("says which stop fails and by how many minutes", () => {
    const late = [stop({ latest: 600, minutes: 90 }), stop({ place: 2, latest: 600 })];
    expect(timeDay({ ...nineToFive, stops: late }, tenMinutes)).toEqual({ ok: false, at: 1, shortBy: 50 });
  });

  it("does not end after the last span closes", () => {
    expect(timeDay({ ...nineToFive, stops: [stop({ earliest: 960, minutes: 55 })] }, tenMinutes)).toEqual({
      ok: false,
      at: 1,
      shortBy: Infinity,
    });
  });

  it("is timed like a plain simulation, minute by minute", () => {
    fc.assert(
      fc.property(days, travelTables, (day, travel) => {
        const timing = timeDay(day, travel);
        const plain = plainDay(day, travel);
        expect(timing.ok ? timing.stops.map(({ arrive, leave }) => ({ arrive, leave })) : null).toEqual(plain);
      }),
      { numRuns: 3000 },
    );
  });

  it("never has the technician in two places, driving included, and keeps every window", () => {
    fc.assert(
      fc.property(days, travelTables, (day, travel) => {
        const timing = timeDay(day, travel);
        if (!timing.ok) return;
        timing.stops.forEach(({ driveFrom, arrive, leave }, i) => {
          expect(driveFrom).toBeGreaterThanOrEqual(i ? timing.stops[i - 1]!.leave : day.spans[0]![0]);
          expect(arrive).toBeGreaterThanOrEqual(driveFrom);
          expect(arrive).toBeGreaterThanOrEqual(day.stops[i]!.earliest);
          expect(arrive).toBeLessThanOrEqual(day.stops[i]!.latest);
          expect(leave - arrive).toBe(work(day.stops[i]!));
        });
      }),
    );
  });
});

describe("driving and fitting", () => {
  it("driveBack undoes drive: leaving any later would arrive too late", () => {
    fc.assert(
      fc.property(
        days,
        fc.integer({ min: 0, max: 700 }),
        fc.integer({ min: 1, max: 120 }),
        ({ spans }, time, minutes) => {
          const from = driveBack(spans, time, minutes);
          if (from === -Infinity) return;
          expect(drive(spans, from, minutes)).toBeLessThanOrEqual(time);
          expect(drive(spans, from + 1, minutes)).toBeGreaterThan(time);
        },
      ),
    );
  });

  it("fits work only where a whole span holds it", () => {
    expect(
      fit(
        [
          [0, 30],
          [60, 200],
        ],
        10,
        40,
      ),
    ).toBe(60);
    expect(fit([[0, 30]], 0, 31)).toBe(Infinity);
  });
});
