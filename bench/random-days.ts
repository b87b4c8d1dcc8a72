import type { Day, Stop } from "@/core/routes/timing";
import fc from "fast-check";

/** Random days for property tests: up to three spans, up to five stops, travel not always the same both ways. */
const places = 7;

export const travelTables = fc
  .array(fc.integer({ min: 0, max: 40 }), { minLength: places * places, maxLength: places * places })
  .map((table) => (from: number, to: number) => (from === to ? 0 : table[from * places + to]!));

export const stops: fc.Arbitrary<Stop> = fc
  .record({
    place: fc.integer({ min: 0, max: places - 1 }),
    earliest: fc.integer({ min: 0, max: 480 }),
    width: fc.integer({ min: 0, max: 180 }),
    before: fc.integer({ min: 0, max: 10 }),
    minutes: fc.integer({ min: 1, max: 90 }),
    after: fc.integer({ min: 0, max: 10 }),
  })
  .map(({ width, ...stop }) => ({ ...stop, latest: stop.earliest + width }));

const spans = fc.array(fc.integer({ min: 1, max: 200 }), { minLength: 2, maxLength: 6 }).map((lengths) => {
  const edges: number[] = [];
  for (const length of lengths) edges.push((edges.at(-1) ?? -1) + length);
  return Array.from({ length: Math.floor(edges.length / 2) }, (_, i): [number, number] => [
    edges[2 * i]!,
    edges[2 * i + 1]!,
  ]);
});

export const days: fc.Arbitrary<Day> = fc
  .record({
    start: fc.integer({ min: 0, max: places - 1 }),
    end: fc.integer({ min: 0, max: places - 1 }),
    spans,
    stops: fc.array(stops, { maxLength: 5 }),
  })
  .map((day) => ({ ...day, stops: [...day.stops].sort((a, b) => a.earliest - b.earliest) }));
