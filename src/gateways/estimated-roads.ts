import { estimateMinutes, type Pace, usualPace } from "@/core/place/points";
import { numberedPlaces } from "./numbered-places";
import type { RoadGateway } from "./types";

/** Driving minutes from coordinates alone, at the pace of each place: for businesses without road data. */
export function estimatedRoads(): RoadGateway {
  const { numberOf, points } = numberedPlaces();
  const paces: Pace[] = [];
  return {
    place(point, pace = usualPace) {
      // The same point under another pace is another place.
      const number = numberOf(point, ` ${pace.windingFactor} ${pace.kmh}`);
      paces[number] ??= pace;
      return number;
    },
    minutes: (from, to) => (from === to ? 0 : estimateMinutes(points[from]!, points[to]!, paces[from], paces[to])),
    revision: () => 0,
  };
}
