import { distanceKm, estimateMinutes } from "./points";
import { matchesPostcode, patternProblem, zoneOfPostcode } from "./postcodes";

describe("postcode patterns", () => {
  it("match an exact code whatever its spaces and capitals", () => {
    expect(matchesPostcode("MW 101", "mw101")).toBe(true);
    expect(matchesPostcode("MW 101", "MW 1011")).toBe(false);
  });

  it("match a range with both ends, and a beginning", () => {
    expect(["MW 100", "MW 101", "MW 109", "MW 110", "XX 105"].map((code) => matchesPostcode("MW 101-109", code))).toEqual([false, true, true, false, false]);
    expect(["MW 1", "MW 199", "MW 201"].map((code) => matchesPostcode("MW 1*", code))).toEqual([true, true, false]);
  });

  it("say what is wrong with one that cannot be read", () => {
    expect(patternProblem("MW 1*")).toBeNull();
    expect(patternProblem("MW 101-109")).toBeNull();
    expect(patternProblem("MW 109-101")).toMatch(/should run upwards/);
    expect(patternProblem("MW@1")).toMatch(/is not a postcode/);
  });

  it("give an address to the zone that names it most exactly", () => {
    const zones = [{ id: 1, patterns: ["MW*"] }, { id: 2, patterns: ["MW 1*"] }, { id: 3, patterns: ["MW 105"] }, { id: 4, patterns: ["MW 104-106"] }];
    expect(["MW 105", "MW 104", "MW 199", "MW 300", "ZZ 1"].map((code) => zoneOfPostcode(zones, code)?.id ?? null)).toEqual([3, 4, 2, 1, null]);
  });
});

describe("points", () => {
  it("are as far apart as the earth is round", () => {
    expect(distanceKm({ lng: 0, lat: 0 }, { lng: 0, lat: 1 })).toBeCloseTo(111.2, 0);
    expect(estimateMinutes({ lng: 0, lat: 0 }, { lng: 0, lat: 0 })).toBe(0);
  });
});
