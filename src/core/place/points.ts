/** WGS 84 degrees, as in GeoJSON but by name. */
export interface Point {
  lng: number;
  lat: number;
}

const earthKm = 6371;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Great-circle distance in kilometres (haversine formula). */
export function distanceKm(a: Point, b: Point): number {
  const h = Math.sin(radians(b.lat - a.lat) / 2) ** 2 + Math.cos(radians(a.lat)) * Math.cos(radians(b.lat)) * Math.sin(radians(b.lng - a.lng) / 2) ** 2;
  return 2 * earthKm * Math.asin(Math.sqrt(h));
}

/** Driving minutes where no road data is at hand: the straight line, made longer by a winding factor, at a mean speed. */
export const estimateMinutes = (a: Point, b: Point, windingFactor = 1.35, kmh = 35): number => Math.ceil(((distanceKm(a, b) * windingFactor) / kmh) * 60);
