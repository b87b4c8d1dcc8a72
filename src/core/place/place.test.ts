import fc from "fast-check";
import { distanceKm, estimateMinutes } from "./points";
import { matchesPostcode, patternProblem } from "./postcodes";
import { type Area, areaProblem, holds, matchWords, zoneAt, type ZoneBounds, zonesAt } from "./zones";

describe("postcode patterns", () => {
  it("match an exact code whatever its spaces and capitals", () => {
    expect(matchesPostcode("MW 101", "mw101")).toBe(true);
    expect(matchesPostcode("MW 101", "MW 1011")).toBe(false);
  });

  it("match a range with both ends, and a beginning", () => {
    expect(
      ["MW 100", "MW 101", "MW 109", "MW 110", "XX 105"].map((code) => matchesPostcode("MW 101-109", code)),
    ).toEqual([false, true, true, false, false]);
    expect(["MW 1", "MW 199", "MW 201"].map((code) => matchesPostcode("MW 1*", code))).toEqual([true, true, false]);
  });

  it("say what is wrong with one that cannot be read", () => {
    expect(patternProblem("MW 1*")).toBeNull();
    expect(patternProblem("MW 101-109")).toBeNull();
    expect(patternProblem("MW 109-101")).toMatch(/should run upwards/);
    expect(patternProblem("MW@1")).toMatch(/is not a postcode/);
  });
});

const zone = (id: number, more: Partial<ZoneBounds> = {}): ZoneBounds => ({
  id,
  name: `zone ${id}`,
  priority: 0,
  patterns: [],
  towns: [],
  area: null,
  ...more,
});
const square = (west: number, south: number, east: number, north: number): Area => ({
  type: "Polygon",
  coordinates: [
    [
      [west, south],
      [east, south],
      [east, north],
      [west, north],
      [west, south],
    ],
  ],
});
const nowhere = { point: null, postcode: "" };

describe("zones", () => {
  it("of several that hold a postcode, the one that names it most exactly", () => {
    const zones = [
      zone(1, { patterns: ["MW*"] }),
      zone(2, { patterns: ["MW 1*"] }),
      zone(3, { patterns: ["MW 105"] }),
      zone(4, { patterns: ["MW 104-106"] }),
    ];
    expect(
      ["MW 105", "MW 104", "MW 199", "MW 300", "ZZ 1"].map(
        (postcode) => zoneAt(zones, { ...nowhere, postcode })?.id ?? null,
      ),
    ).toEqual([3, 4, 2, 1, null]);
  });

  it("go by priority first, whatever names the address", () => {
    const zones = [
      zone(1, { patterns: ["MW 105"] }),
      zone(2, { area: square(0, 0, 1, 1), priority: 5 }),
      zone(3, { towns: ["Old Town"], priority: -1 }),
    ];
    const address = { point: { lng: 0.5, lat: 0.5 }, postcode: "MW 105", town: "old town" };
    expect(zonesAt(zones, address).map((m) => [m.zone.id, matchWords(m)])).toEqual([
      [2, "it lies in the area drawn on the map"],
      [1, "its postcode falls under “MW 105”"],
      [3, "it is in Old Town"],
    ]);
  });

  it("take an area before a beginning of a postcode, and a range before an area", () => {
    const area = zone(2, { area: square(0, 0, 1, 1) });
    const address = { point: { lng: 0.5, lat: 0.5 }, postcode: "MW 105" };
    expect(zoneAt([zone(1, { patterns: ["MW 1*"] }), area], address)?.id).toBe(2);
    expect(zoneAt([zone(1, { patterns: ["MW 101-109"] }), area], address)?.id).toBe(1);
  });

  it("hold what lies on their border, in each of several parts, and not in a hole", () => {
    const two: Area = {
      type: "MultiPolygon",
      coordinates: [square(0, 0, 1, 1).coordinates as number[][][], square(5, 5, 6, 6).coordinates as number[][][]],
    };
    const holed: Area = {
      type: "Polygon",
      coordinates: [
        ...(square(0, 0, 9, 9).coordinates as number[][][]),
        ...(square(3, 3, 6, 6).coordinates as number[][][]),
      ],
    };
    const inside = (area: Area, lng: number, lat: number) => holds(area, { lng, lat });
    expect([inside(two, 0, 0.5), inside(two, 1, 1), inside(two, 5.5, 5.5), inside(two, 3, 3)]).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect([inside(holed, 1, 1), inside(holed, 4.5, 4.5)]).toEqual([true, false]);
  });

  it("lie across the 180th meridian, where their border does", () => {
    const across = square(178, -18, -178, -16);
    const inside = (lng: number, lat = -17) => holds(across, { lng, lat });
    expect([inside(179), inside(-179), inside(180), inside(-180)]).toEqual([true, true, true, true]);
    expect([inside(170), inside(-170), inside(0)]).toEqual([false, false, false]);
    expect(areaProblem(across)).toBeNull();
  });

  it("answer the same whatever their order", () => {
    const some = fc.record({
      priority: fc.integer({ min: 0, max: 2 }),
      patterns: fc.subarray(["MW*", "MW 1*", "MW 105", "MW 100-110"]),
      towns: fc.subarray(["Old Town"]),
      area: fc.constantFrom(null, square(0, 0, 1, 1), square(0.2, 0.2, 3, 3)),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 6 }), fc.integer({ min: 0, max: 5 }), (bounds, turn) => {
        const zones = bounds.map((b, i) => zone(i + 1, b));
        const address = { point: { lng: 0.5, lat: 0.5 }, postcode: "MW 105", town: "Old Town" };
        const turned = [...zones.slice(turn % (zones.length || 1)), ...zones.slice(0, turn % (zones.length || 1))];
        const ids = (from: typeof zones) => zonesAt(from, address).map((m) => m.zone.id);
        expect(ids(turned)).toEqual(ids(zones));
        const [first] = zonesAt(zones, address);
        if (first) expect(first.zone.priority).toBe(Math.max(...zonesAt(zones, address).map((m) => m.zone.priority)));
      }),
    );
  });

  it("say what is wrong with an area", () => {
    expect(areaProblem(square(0, 0, 1, 1))).toBeNull();
    const bow: Area = {
      type: "Polygon",
      coordinates: [
        [
          [0, 0],
          [1, 1],
          [1, 0],
          [0, 1],
          [0, 0],
        ],
      ],
    };
    expect(areaProblem(bow)).toMatch(/crosses itself/);
    expect(
      areaProblem({
        type: "Polygon",
        coordinates: [
          [
            [0, 0],
            [1, 0],
            [1, 1],
            [0, 2],
          ],
        ],
      }),
    ).toMatch(/end where it begins/);
    expect(
      areaProblem({
        type: "Polygon",
        coordinates: [
          [
            [0, 0],
            [200, 0],
            [1, 1],
            [0, 0],
          ],
        ],
      }),
    ).toMatch(/nowhere on earth/);
  });
});

describe("points", () => {
  it("are as far apart as the earth is round", () => {
    expect(distanceKm({ lng: 0, lat: 0 }, { lng: 0, lat: 1 })).toBeCloseTo(111.2, 0);
    expect(estimateMinutes({ lng: 0, lat: 0 }, { lng: 0, lat: 0 })).toBe(0);
  });
});
