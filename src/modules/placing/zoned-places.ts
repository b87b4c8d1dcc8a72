/**
 * Numbers for places as the engines see them: a place of the road gateway together with the zone it
 * counts to. The same pair keeps its number while the application runs.
 */
export interface ZonedPlaces {
  number: (road: number, zoneId: number | null) => number;
  /** The number of the place at the road gateway. */
  road: (place: number) => number;
  zone: (place: number) => number | null;
}

export function zonedPlaces(): ZonedPlaces {
  const numbers = new Map<number | null, Map<number, number>>();
  const roads: number[] = [];
  const zones: (number | null)[] = [];
  return {
    number(road, zoneId) {
      let ofZone = numbers.get(zoneId);
      if (!ofZone) numbers.set(zoneId, (ofZone = new Map()));
      let number = ofZone.get(road);
      if (number === undefined) {
        ofZone.set(road, (number = roads.push(road) - 1));
        zones.push(zoneId);
      }
      return number;
    },
    road: (place) => roads[place]!,
    zone: (place) => zones[place]!,
  };
}
