/** WGS 84 degrees, as in GeoJSON but by name. */
export interface Point {
  lng: number;
  lat: number;
}

/** How one drives around a place: how much longer the way is than the straight line, and how fast. */
export interface Pace {
  windingFactor: number;
  kmh: number;
}

const earthKm = 6371;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Great-circle distance in kilometres (haversine formula). */
export function distanceKm(a: Point, b: Point): number {
  const h =
    Math.sin(radians(b.lat - a.lat) / 2) ** 2 +
    Math.cos(radians(a.lat)) * Math.cos(radians(b.lat)) * Math.sin(radians(b.lng - a.lng) / 2) ** 2;
  return 2 * earthKm * Math.asin(Math.sqrt(h));
}

export const usualPace: Pace = { windingFactor: 1.35, kmh: 35 };

/** Driving minutes where no road data is at hand: the straight line, made longer by a winding factor, at a mean speed; at the slower pace of the two ends. */
export function estimateMinutes(a: Point, b: Point, paceA: Pace = usualPace, paceB: Pace = paceA): number {
  const hours = Math.max(paceA.windingFactor / paceA.kmh, paceB.windingFactor / paceB.kmh) * distanceKm(a, b);
  // A rounding error must not make a minute out of nothing.
  return Math.max(0, Math.ceil(hours * 60 - 1e-9));
}
