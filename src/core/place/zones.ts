import booleanPointInPolygon from "@turf/boolean-point-in-polygon";
import kinks from "@turf/kinks";
import type { MultiPolygon, Polygon, Position } from "geojson";
import type { Point } from "./points";
import { matchesPostcode, normalPostcode, rangeOf } from "./postcodes";

/** An area as GeoJSON has it (RFC 7946). */
export type Area = Polygon | MultiPolygon;

/** What makes a zone: postcode patterns, towns, an area on the map, or several of them together. */
export interface ZoneBounds {
  id: number;
  name: string;
  /** Of zones that overlap the one with the highest. */
  priority: number;
  patterns: readonly string[];
  towns: readonly string[];
  area: Area | null;
}

/** Where an address lies; what is not known is left out. */
export interface AddressToZone {
  point: Point | null;
  postcode: string;
  town?: string;
}

export type ZoneMatch<Z> = { zone: Z; exactness: number } & (
  { by: "postcode"; pattern: string } | { by: "area" } | { by: "town"; town: string }
);

/** The zone of an address, or null: of all that hold it the one with the highest priority, then the one that names it most exactly. */
export const zoneAt = <Z extends ZoneBounds>(zones: readonly Z[], address: AddressToZone): Z | null =>
  zonesAt(zones, address)[0]?.zone ?? null;

/**
 * Every zone that holds an address, with what in it says so; the one that counts first. At the same
 * priority an exact postcode goes before a range, a range before an area, an area before a longer
 * beginning of a postcode, that before a shorter one, and a town comes last.
 */
export function zonesAt<Z extends ZoneBounds>(zones: readonly Z[], address: AddressToZone): ZoneMatch<Z>[] {
  return zones
    .flatMap((zone) => bestMatch(zone, address) ?? [])
    .sort((a, b) => b.zone.priority - a.zone.priority || b.exactness - a.exactness || a.zone.id - b.zone.id);
}

function bestMatch<Z extends ZoneBounds>(zone: Z, { point, postcode, town }: AddressToZone): ZoneMatch<Z> | null {
  const matches: ZoneMatch<Z>[] = [];
  if (postcode)
    for (const pattern of zone.patterns)
      if (matchesPostcode(pattern, postcode))
        matches.push({ zone, by: "postcode", pattern, exactness: exactnessOf(pattern) });
  if (point && zone.area && holds(zone.area, point)) matches.push({ zone, by: "area", exactness: 100 });
  const named = town && zone.towns.find((t) => sameName(t, town));
  if (named) matches.push({ zone, by: "town", town: named, exactness: 0 });
  return matches.reduce<ZoneMatch<Z> | null>(
    (best, next) => (best && best.exactness >= next.exactness ? best : next),
    null,
  );
}

/** Whether a point lies in an area; its border belongs to it. An area may lie across the 180th meridian. */
export function holds(area: Area, { lng, lat }: Point): boolean {
  if (!isAcross(area)) return booleanPointInPolygon([lng, lat], area);
  return booleanPointInPolygon([eastOf(lng), lat], mapped(area, eastOf));
}

/** A border that goes further than half around the earth goes the other way round: across the 180th meridian. */
const isAcross = (area: Area): boolean =>
  polygonsOf(area)
    .flat()
    .some((ring) => ring.some(([lng], i) => i > 0 && Math.abs(lng! - ring[i - 1]![0]!) > 180));

/** Degrees of longitude from 0 to 360. */
const eastOf = (lng: number): number => (lng < 0 ? lng + 360 : lng);

const polygonsOf = (area: Area): Position[][][] => (area.type === "Polygon" ? [area.coordinates] : area.coordinates);

const mapped = (area: Area, change: (lng: number) => number): MultiPolygon => ({
  type: "MultiPolygon",
  coordinates: polygonsOf(area).map((rings) => rings.map((ring) => ring.map(([lng, lat]) => [change(lng!), lat!]))),
});

const exactnessOf = (pattern: string): number =>
  pattern.trim().endsWith("*") ? normalPostcode(pattern).length : rangeOf(pattern) ? 200 : 300;
const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Null where the rings of an area can be used, otherwise the sentence that says what is wrong. Longitude and latitude in degrees. */
export function areaProblem(area: Area): string | null {
  const polygons = polygonsOf(area);
  if (polygons.length === 0) return "The area is empty.";
  for (const ring of polygons.flat()) {
    if (ring.length < 4) return "An area needs at least three corners.";
    const [first, last] = [ring[0]!, ring.at(-1)!];
    if (first[0] !== last[0] || first[1] !== last[1]) return "An area must end where it begins.";
    if (
      ring.some(
        ([lng, lat]) => !Number.isFinite(lng) || !Number.isFinite(lat) || Math.abs(lng!) > 180 || Math.abs(lat!) > 90,
      )
    )
      return "A corner of the area lies nowhere on earth.";
  }
  const flat = isAcross(area) ? mapped(area, eastOf) : area;
  if (kinks(flat).features.length > 0)
    return "The border of the area crosses itself. Move a corner, or draw two areas.";
  return null;
}

/** The words for why an address is in a zone. */
export function matchWords(match: ZoneMatch<ZoneBounds>): string {
  switch (match.by) {
    case "postcode":
      return `its postcode falls under “${match.pattern}”`;
    case "area":
      return "it lies in the area drawn on the map";
    case "town":
      return `it is in ${match.town}`;
  }
}
