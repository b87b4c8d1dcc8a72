import type { Hogar } from "@/kernel/hogar";
import { keptWith } from "@/store/kept";

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

/** The numbers of an application, for as long as it runs. */
export const zonedPlacesOf = ({ store }: Hogar): ZonedPlaces => keptWith(store, "zoned places", zonedPlaces);

function zonedPlaces(): ZonedPlaces {
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
