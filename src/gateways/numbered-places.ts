import type { Point } from "@/core/place/points";

/** Numbers for places: the engines see integers only. */
export function numberedPlaces() {
  const points: Point[] = [];
  const numbers = new Map<string, number>();
  return {
    points,
    numberOf({ lng, lat }: Point, suffix = ""): number {
      const key = `${lng},${lat}${suffix}`;
      let number = numbers.get(key);
      if (number === undefined) numbers.set(key, (number = points.push({ lng, lat }) - 1));
      return number;
    },
  };
}
